import { isDeepStrictEqual } from 'node:util';
import { FOLD_VERSION, foldJob } from '@voltrek/core/job';
import { asc, eq, gt, isNull, ne, or } from 'drizzle-orm';
import { modelById } from '../atlas/repository.js';
import { writeEntries } from '../batteries/of-job.js';
import { batteriesIn } from '../batteries/repository.js';
import type { Db } from '../db/database.js';
import { batteryEntries, followUps, jobs } from '../db/schema.js';
import { promisesOf, writePromises } from '../followups/repository.js';
import { readEvents, rowOf } from './repository.js';
import { rebuildRecord, rewriteRow } from './whole-log.js';

const JOBS_AT_ONCE = 200;

/** The differences that a rebuild found and put right. */
export interface Rebuilt {
  readonly jobs: number;
  /** The parts that differed from the logs, as `job id: part`. */
  readonly differed: readonly string[];
}

/** Folds the logs whose snapshot another version made. */
export async function snapshotOldLogs(db: Db): Promise<number> {
  const rows = await db
    .select({ id: jobs.id })
    .from(jobs)
    .where(or(isNull(jobs.snapshot), ne(jobs.snapshotVersion, FOLD_VERSION)))
    .orderBy(asc(jobs.openedAt));
  for (const { id } of rows)
    await db.transaction(async (tx) => {
      const events = await readEvents(tx, id);
      const [row] = await tx.select().from(jobs).where(eq(jobs.id, id));
      const job = foldJob(events);
      const machine = job && (await modelById(tx, job.modelId));
      if (!row || !machine) return;
      const kept = { job, vehicleId: row.vehicleId, vanId: row.vanId };
      await rewriteRow(tx, kept, machine);
      if ((await batteriesIn(tx, row.vehicleId)).length === 0) await rebuildRecord(tx, events, kept, machine);
    });
  return rows.length;
}

/**
 * Makes every list and record anew from the logs, and says what differed. The logs are the truth; nothing of them is changed.
 */
export async function rebuild(db: Db): Promise<Rebuilt> {
  const differed: string[] = [];
  let count = 0;
  let last = '00000000-0000-0000-0000-000000000000';
  for (;;) {
    const page = await db
      .select({ id: jobs.id })
      .from(jobs)
      .where(gt(jobs.id, last))
      .orderBy(asc(jobs.id))
      .limit(JOBS_AT_ONCE);
    if (page.length === 0) return { jobs: count, differed };
    for (const { id } of page) {
      count++;
      differed.push(...(await rebuildJob(db, id)).map((part) => `${id}: ${part}`));
    }
    last = page.at(-1)!.id;
  }
}

async function rebuildJob(db: Db, id: string): Promise<string[]> {
  return db.transaction(async (tx) => {
    const [row] = await tx.select().from(jobs).where(eq(jobs.id, id));
    const job = foldJob(await readEvents(tx, id));
    if (!row || !job) return ['the log cannot be read'];
    const machine = (await modelById(tx, job.modelId))!;
    const kept = { job, vehicleId: row.vehicleId, vanId: row.vanId };
    const found: string[] = [];
    const { snapshot, ...listed } = rowOf(kept, machine);
    const { snapshot: stood, ...stoodListed } = row;
    if (!isDeepStrictEqual(plain(snapshot), plain(stood))) found.push('snapshot');
    if (!isDeepStrictEqual(plain(listed), plain(stoodListed))) found.push('summary');
    if (found.length > 0) await rewriteRow(tx, kept, machine);
    const promised = await tx.select().from(followUps).where(eq(followUps.jobId, id));
    const key = (f: { kind: string; dueOn: string; done: boolean }): string =>
      `${f.kind} ${f.dueOn} ${f.done}`;
    if (!isDeepStrictEqual(promised.map(key).sort(), promisesOf(job).map(key).sort())) {
      found.push('follow-ups');
      await writePromises(tx, job);
    }
    const before = await tx.select().from(batteryEntries).where(eq(batteryEntries.jobId, id));
    await writeEntries(tx, job, machine, row.vehicleId);
    const after = await tx.select().from(batteryEntries).where(eq(batteryEntries.jobId, id));
    if (!isDeepStrictEqual(before, after)) found.push('battery record');
    return found;
  });
}

/** As JSON has it: keys in one order, dates as text, what is not there left out. */
function plain(value: unknown): unknown {
  return JSON.parse(
    JSON.stringify(value, (_key, held: unknown) =>
      held !== null && typeof held === 'object' && !Array.isArray(held)
        ? Object.fromEntries(Object.entries(held).sort(([a], [b]) => (a < b ? -1 : 1)))
        : held,
    ),
  );
}
