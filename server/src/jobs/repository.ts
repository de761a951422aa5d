import type { JobSummary, LogPage } from '@voltrek/contracts';
import {
  foldJob,
  type Job,
  type JobEvent,
  reachedStage,
  restVoltsByBattery,
  upgradeLog,
} from '@voltrek/core';
import { and, asc, count, desc, eq, gte, ilike, lt, ne } from 'drizzle-orm';
import type { Db, Tx } from '../db/database.js';
import { jobEvents, jobs, models } from '../db/schema.js';

type JobRow = typeof jobs.$inferSelect;

/** The whole log of a job, oldest first; empty when there is none. */
export async function readEvents(db: Db | Tx, jobId: string): Promise<JobEvent[]> {
  const rows = await db
    .select()
    .from(jobEvents)
    .where(eq(jobEvents.jobId, jobId))
    .orderBy(asc(jobEvents.position));
  return upgradeLog(
    rows.map(({ id, jobId: job, at, by, type, data }) => ({
      id,
      jobId: job,
      at: at.toISOString(),
      by,
      type,
      data,
    })),
  );
}

/** True when an event with this id stands in any log. */
export async function eventExists(db: Db | Tx, id: string): Promise<boolean> {
  return (await db.select({ id: jobEvents.id }).from(jobEvents).where(eq(jobEvents.id, id))).length > 0;
}

/** Appends events to one job's log and brings its summary up to date. Call inside a transaction. */
export async function appendEvents(
  tx: Tx,
  before: readonly JobEvent[],
  added: readonly JobEvent[],
): Promise<void> {
  const events = [...before, ...added];
  const job = foldJob(events);
  if (!job) throw new Error('appendEvents: the log has not been opened');
  const summary = await projectionOf(tx, job);
  await tx.insert(jobs).values(summary).onConflictDoUpdate({ target: jobs.id, set: summary });
  await tx
    .insert(jobEvents)
    .values(added.map((event, i) => ({ ...event, at: new Date(event.at), position: before.length + i })));
}

async function projectionOf(tx: Tx, job: Job): Promise<typeof jobs.$inferInsert> {
  const [machine] = await tx.select().from(models).where(eq(models.id, job.modelId));
  const { callId, callNumber, title, placeName } = job.call;
  const { modelId } = job;
  const rest = restVoltsByBattery(job, machine?.detail.batteries.length ?? 1).filter((v) => v !== null);
  return {
    id: job.id,
    callId,
    callNumber,
    title,
    placeName,
    modelId,
    stage: reachedStage(job),
    state: job.closedAt === null ? 'open' : 'closed',
    verdict: job.verdict?.verdict ?? null,
    suspect: job.verdict?.suspect ?? null,
    lowestRestVolts: rest.length > 0 ? Math.min(...rest) : null,
    openedAt: new Date(job.openedAt),
    closedAt: job.closedAt === null ? null : new Date(job.closedAt),
    by: job.openedBy,
    revision: job.revision,
    searchText: [callNumber, title, placeName, machine?.maker, machine?.model].join(' ').toLowerCase(),
  };
}

export async function jobOfCall(db: Db | Tx, callId: string): Promise<string | null> {
  const [row] = await db.select({ id: jobs.id }).from(jobs).where(eq(jobs.callId, callId));
  return row?.id ?? null;
}

/** Other jobs of this machine since `since` in which its battery was found flat. */
export async function countFlatCalls(
  db: Db,
  modelId: string,
  jobId: string,
  since: Date,
  flatVolts: number,
): Promise<number> {
  const [row] = await db
    .select({ n: count() })
    .from(jobs)
    .where(
      and(
        eq(jobs.modelId, modelId),
        ne(jobs.id, jobId),
        gte(jobs.openedAt, since),
        lt(jobs.lowestRestVolts, flatVolts),
      ),
    );
  return row?.n ?? 0;
}

export interface LogQuery {
  readonly text: string;
  readonly verdict: string | null;
  readonly limit: number;
  readonly offset: number;
}

/** One page of closed jobs, newest first. */
export async function readLog(db: Db, query: LogQuery): Promise<LogPage> {
  const words = query.text.toLowerCase().split(/\s+/).filter(Boolean);
  const where = and(
    eq(jobs.state, 'closed'),
    ...words.map((word) => ilike(jobs.searchText, `%${word.replace(/[\\%_]/g, '\\$&')}%`)),
    ...(query.verdict ? [eq(jobs.verdict, query.verdict as NonNullable<JobRow['verdict']>)] : []),
  );
  const rows = await db
    .select()
    .from(jobs)
    .where(where)
    .orderBy(desc(jobs.closedAt))
    .limit(query.limit)
    .offset(query.offset);
  const [total] = await db.select({ n: count() }).from(jobs).where(where);
  return { jobs: rows.map(summaryOf), total: total?.n ?? 0 };
}

export function summaryOf({ searchText: _searchText, openedAt, closedAt, ...row }: JobRow): JobSummary {
  return { ...row, openedAt: openedAt.toISOString(), closedAt: closedAt?.toISOString() ?? null };
}
