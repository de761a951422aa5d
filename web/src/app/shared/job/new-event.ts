import type { EventEntry, JobEvent } from '@voltrek/core/job';

/** A new event with an id of its own, at this moment. */
export function newEvent(jobId: string, by: string, ...[type, data]: EventEntry): JobEvent {
  return { id: crypto.randomUUID(), jobId, at: new Date().toISOString(), by, type, data } as JobEvent;
}
