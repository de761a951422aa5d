import type { HouseRules } from '../rules/index.js';
import { mustComeOff } from './views/charge-of-job.js';
import type { Refusal } from './events/event-kind.js';
import type { Job } from './job.js';
import { isLiftJoined } from './views/lift-of-job.js';
import { engineRuns, isHookupWhole, runningAttempt } from './views/queries.js';
import { isOverridden, restSecondsLeft } from './views/rest-owed.js';

/** Why nobody cranks at the moment `at`, where no stop is in force; null when a try may begin. */
export function refusalOfTry(job: Job, at: string, rules: HouseRules): Refusal | null {
  if (runningAttempt(job)) return 'attempt-running';
  if (engineRuns(job)) return 'already-running';
  if (isLiftJoined(job)) return 'lift-under-way';
  if (mustComeOff(job)) return 'charger-on';
  if (!isHookupWhole(job)) return 'clamps-unfinished';
  if (job.triesSinceChecks >= rules.crankTriesMax && !isOverridden(job, 'crankTriesMax'))
    return 'tries-spent';
  return restSecondsLeft(job, at, rules) > 0 ? 'rest-first' : null;
}
