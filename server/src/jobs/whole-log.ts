import { foldJob, type JobEvent, timeOf } from '@voltrek/core/job';
import type { Machine } from '@voltrek/core/machine';
import { eq } from 'drizzle-orm';
import { projectMoves, writeEntries } from '../batteries/of-job.js';
import type { Tx } from '../db/database.js';
import { insertAll } from '../db/many-rows.js';
import { jobEvents, jobs } from '../db/schema.js';
import { writePromises } from '../followups/repository.js';
import { eventRow, type KeptJob, rowOf } from './repository.js';

/**
 * Writes a whole log (the demo's past, an exported file) with every projection. What it
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
  const kept = { ...of, job };
  await tx.insert(jobs).values(rowOf(kept, machine));
  await insertAll(tx, jobEvents, events.map(eventRow));
  await rebuildRecord(tx, events, kept, machine);
}

/** The batteries and promises of a log whose row and events stand. */
export async function rebuildRecord(
  tx: Tx,
  events: readonly JobEvent[],
  kept: KeptJob,
  machine: Machine,
): Promise<void> {
  const inOrder = [...events].sort((a, b) => (timeOf(a) < timeOf(b) ? -1 : timeOf(a) > timeOf(b) ? 1 : 0));
  for (const event of inOrder) await projectMoves(tx, kept.job, machine, kept.vehicleId, event);
  await writeRecord(tx, kept, machine);
}

/** Writes a job's entries on its batteries and its promises; where the batteries have been stands already. */
export async function writeRecord(tx: Tx, { job, vehicleId }: KeptJob, machine: Machine): Promise<void> {
  await writeEntries(tx, job, machine, vehicleId);
  await writePromises(tx, job);
}

/** Puts the row of a job as its log now reads. */
export async function rewriteRow(tx: Tx, kept: KeptJob, machine: Machine): Promise<void> {
  await tx.update(jobs).set(rowOf(kept, machine)).where(eq(jobs.id, kept.job.id));
}
