import { applyEvent, foldJob } from './apply.js';
import type { JobEvent } from './events/event.js';
import type { Job } from './job.js';

/**
 * `foldJob` for a screen that folds the same log again with every tap: where a log begins with the events of the last call, only the events
 * after them are applied.
 *
 * @returns a fold of its own, which remembers the last log alone
 * @example foldingOnward()([]) // => null
 */
export function foldingOnward(): (events: readonly JobEvent[]) => Job | null {
  let folded: readonly JobEvent[] = [];
  let job: Job | null = null;
  return (events) => {
    const goesOn = folded.length <= events.length && folded.every((event, i) => event === events[i]);
    if (goesOn)
      for (let n = folded.length; n < events.length; n++)
        job = applyEvent(job, events[n]!, () => events.slice(0, n));
    else job = foldJob(events);
    folded = events;
    return job;
  };
}
