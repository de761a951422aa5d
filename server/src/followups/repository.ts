import type { DueFollowUp } from '@voltrek/contracts';
import { type Job, currentVerdict } from '@voltrek/core/job';
import { and, asc, eq, gte } from 'drizzle-orm';
import type { Db, Tx } from '../db/database.js';
import { followUps, jobs } from '../db/schema.js';
import { DAY_MS } from '@voltrek/core/quantities';

/** A follow-up that was due longer ago than this is no longer shown. */
const OVERDUE_DAYS = 30;

/** Everything that verdicts of closed jobs still promise, soonest first. */
export async function dueFollowUps(db: Db | Tx, now: Date): Promise<DueFollowUp[]> {
  const oldest = dayOf(now.getTime() - OVERDUE_DAYS * DAY_MS);
  return db
    .select({
      jobId: jobs.id,
      vehicleId: jobs.vehicleId,
      callNumber: jobs.callNumber,
      title: jobs.title,
      placeName: jobs.placeName,
      kind: followUps.kind,
      dueOn: followUps.dueOn,
    })
    .from(followUps)
    .innerJoin(jobs, eq(followUps.jobId, jobs.id))
    .where(and(eq(followUps.done, false), gte(followUps.dueOn, oldest)))
    .orderBy(asc(followUps.dueOn), asc(jobs.callNumber));
}

/** Returns the promises of a closed job by day; none while it is open. A verdict given again, or after a recheck, replaces the one before. */
export function promisesOf(job: Job): (typeof followUps.$inferInsert)[] {
  const { closedAt, recheck } = job;
  const verdict = currentVerdict(job);
  if (closedAt === null || !verdict) return [];
  const byKind = new Map(verdict.followUps.map(({ kind, days }) => [kind, days]));
  return [...byKind].map(([kind, days]) => ({
    jobId: job.id,
    kind,
    dueOn: dayOf(Date.parse(recheck?.at ?? closedAt) + days * DAY_MS),
    done: job.followedUp.includes(kind),
  }));
}

export async function writePromises(tx: Tx, job: Job): Promise<void> {
  await tx.delete(followUps).where(eq(followUps.jobId, job.id));
  const rows = promisesOf(job);
  if (rows.length > 0) await tx.insert(followUps).values(rows);
}

const dayOf = (ms: number): string => new Date(ms).toISOString().slice(0, 10);
