import { type RestNeed, restNeed } from '../../crank/index.js';
import type { SourceOption } from '../../plan/index.js';
import { anyClampOn } from '../../hookup/index.js';
import type { Job } from '../job.js';
import type { Situation } from '../situation.js';

/**
 * The rest that starter and leads need at the moment `at`, from every try so far and the planned amps. Null for a machine
 * that wakes, or while nothing that was joined says how much flows: then the house rule alone stands.
 *
 * @param lastSeconds length of the try that ends at `at` and is not in the log yet; null when there is none
 */
export function restOfJob(
  job: Job,
  { machine, tempC, rules }: Situation,
  option: SourceOption | null,
  at: string,
  lastSeconds: number | null,
): RestNeed | null {
  const isJoined = anyClampOn(job.hookup);
  const tried = job.attempts.flatMap(({ starterAmps }) => starterAmps ?? []);
  const amps = Math.max(0, ...tried, (isJoined ? job.plan?.starterAmps : null) ?? 0);
  if (!machine.engine || amps === 0) return null;
  const ended = job.attempts.flatMap(({ seconds, endedAt }) =>
    seconds === null || endedAt === null
      ? []
      : [{ seconds, agoSeconds: Math.max(0, (Date.parse(at) - Date.parse(endedAt)) / 1000) }],
  );
  const tries = lastSeconds === null ? ended : [...ended, { seconds: lastSeconds, agoSeconds: 0 }];
  const leads = option && isJoined ? option.leads : null;
  return restNeed(
    // The leads carry what the casualty's own battery does not give: at most all of it.
    { engine: machine.engine, starterAmps: amps, leads, leadAmps: amps, tempC },
    tries,
    rules,
  );
}
