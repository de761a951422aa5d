import { anyClampOn } from '../../hookup/index.js';
import type { Stage } from '../events/event.js';
import type { Job } from '../job.js';
import { hasStarted, isPolarityProved } from './queries.js';

/**
 * The stage that a job's log has come to: the last in which something was done. Where a board and a newly opened screen take it up; which
 * stage a screen shows meanwhile is that screen's own and never in the log.
 */
export function reachedStage(job: Job): Stage {
  if (job.closedAt !== null || job.verdict) return 'verdict';
  if (hasStarted(job)) return 'cleardown';
  if (job.attempts.length > 0) return 'crank';
  if (job.everConnected || anyClampOn(job.hookup)) return 'hookup';
  if (job.plan) return 'plan';
  if (job.readings.length > 0) return 'measure';
  if (isPolarityProved(job)) return 'locate';
  if (job.symptoms.length > 0 || Object.keys(job.findings).length > 0) return 'checks';
  return 'scene';
}
