import { foldJob, type JobEvent, timeOf } from '@voltrek/core/job';
import type { Machine } from '@voltrek/core/machine';
import { eq } from 'drizzle-orm';
import { followMoves, writeEntries } from '../batteries/of-job.js';
import type { Tx } from '../db/database.js';
import { jobEvents, jobs } from '../db/schema.js';
import { writePromises } from '../followups/repository.js';
import { type KeptJob, rowOf } from './repository.js';

/** Events brought in at once with one statement: a statement takes 65,535 figures, and an event has eight. */
const AT_ONCE = 500;

/**
 * Writes a log that is whole already (the demo's past, a file that was exported) with everything that lists and records show of it. What it
 * took out of the kit has long been put back, and its call is its own business.
 */
export async function writeLog(
  tx: Tx,
  events: readonly JobEvent[],
  of: Omit<KeptJob, 'job'>,
  machine: Machine,
): Promise<void> {
  const job = foldJob(events);
  if (!job) throw new Error('writeLog: the log has not been opened');
  await tx.insert(jobs).values(rowOf({ ...of, job }, machine));
  for (let from = 0; from < events.length; from += AT_ONCE)
    await tx.insert(jobEvents).values(
      events.slice(from, from + AT_ONCE).map(({ heardAt, ...event }, i) => ({
        ...event,
        at: new Date(event.at),
        heardAt: heardAt === undefined ? null : new Date(heardAt),
        position: from + i,
      })),
    );
  await rebuildRecord(tx, events, of, machine);
}

/** The batteries and promises of a log whose row and events stand. */
export async function rebuildRecord(
  tx: Tx,
  events: readonly JobEvent[],
  of: Omit<KeptJob, 'job'>,
  machine: Machine,
): Promise<void> {
  const job = foldJob(events)!;
  const inOrder = [...events].sort((a, b) => (timeOf(a) < timeOf(b) ? -1 : timeOf(a) > timeOf(b) ? 1 : 0));
  for (const event of inOrder) await followMoves(tx, job, machine, of.vehicleId, event);
  await writeEntries(tx, job, machine, of.vehicleId);
  await writePromises(tx, job);
}

/** Puts the row of a job as its log now reads. */
export async function rewriteRow(tx: Tx, kept: KeptJob, machine: Machine): Promise<void> {
  await tx.update(jobs).set(rowOf(kept, machine)).where(eq(jobs.id, kept.job.id));
}
