import { type RestNeed, restNeed } from '../crank/rest.js';
import type { SourceOption } from '../plan/options.js';
import type { Machine } from '../machine/machine.js';
import type { HouseRules } from '../rules/house-rules.js';
import { anyClampOn } from '../hookup/state.js';
import type { Job } from './job.js';
import { workingTempC } from './queries.js';

/**
 * The rest that starter and leads need at the moment `at`, from every try so far and the amps that the plan computed. Null for a machine
 * that wakes, or while no plan says how much flows: then the house rule alone stands.
 *
 * @param lastSeconds length of the try that ends at `at` and is not in the log yet; null when there is none
 */
export function restOfJob(
  job: Job,
  machine: Machine,
  option: SourceOption | null,
  rules: HouseRules,
  at: string,
  lastSeconds: number | null,
): RestNeed | null {
  const amps = job.plan?.starterAmps ?? null;
  if (!machine.engine || amps === null) return null;
  const ended = job.attempts.flatMap(({ seconds, endedAt }) =>
    seconds === null || endedAt === null
      ? []
      : [{ seconds, agoSeconds: Math.max(0, (Date.parse(at) - Date.parse(endedAt)) / 1000) }],
  );
  const tries = lastSeconds === null ? ended : [...ended, { seconds: lastSeconds, agoSeconds: 0 }];
  const leads = option && anyClampOn(job.hookup) ? option.leads : null;
  return restNeed(
    // The leads carry what the casualty's own battery does not give: at most all of it.
    { engine: machine.engine, starterAmps: amps, leads, leadAmps: amps, tempC: workingTempC(job) },
    tries,
    rules,
  );
}
