import { foldJob, lastUndoable } from './apply.js';
import type { JobEvent } from './events/event.js';
import type { Around, Refusal, Surroundings } from './events/event-kind.js';
import { eventKind } from './events/index.js';
import type { Job } from './job.js';
import { rulesOfJob } from './views/queries.js';

/**
 * Whether a job allows one more event. The only gate: server, screens and command line ask here and nowhere else. An admitted log can always
 * be folded, solved and made safe.
 *
 * @returns the reason it does not, or null
 */
export function refusalOf(job: Job | null, next: JobEvent, around: Surroundings): Refusal | null {
  if (next.type === 'job.opened') return job ? 'already-open' : null;
  if (!job) return 'not-open';
  const kind = eventKind(next.type);
  if (job.closedAt !== null && !kind?.whenClosed) return 'job-closed';
  // Undo needs no other check: the state before the last event was allowed by the rules in force then.
  if (next.type === 'event.undone') return around.undoable()?.id === next.data.eventId ? null : 'cannot-undo';
  return kind!.refuse(job, next, { ...around, rules: rulesOfJob(job, around.rules) });
}

/** The same over a whole log. */
export function refusalInLog(log: readonly JobEvent[], next: JobEvent, around: Around): Refusal | null {
  return refusalOf(foldJob(log), next, { ...around, undoable: () => lastUndoable(log) });
}
