import type { DueFollowUp } from '@voltrek/contracts';
import type { EventData } from '@voltrek/core';
import { and, desc, eq, gte, inArray } from 'drizzle-orm';
import type { Db } from '../db/database.js';
import { jobEvents, jobs } from '../db/schema.js';

const DAY_MS = 86_400_000;
/** Jobs closed longer ago than this have nothing due any more: the longest promise is an inspection, a year at most. */
const LOOK_BACK_DAYS = 400;
/** What was due longer ago than this is no longer shown. */
const OVERDUE_DAYS = 30;

/** Everything that verdicts of closed jobs still promise, soonest first. A verdict given again replaces the one before. */
export async function dueFollowUps(db: Db, now: Date): Promise<DueFollowUp[]> {
  const rows = await db
    .select({
      jobId: jobs.id,
      callNumber: jobs.callNumber,
      title: jobs.title,
      placeName: jobs.placeName,
      closedAt: jobs.closedAt,
      type: jobEvents.type,
      data: jobEvents.data,
    })
    .from(jobEvents)
    .innerJoin(jobs, eq(jobEvents.jobId, jobs.id))
    .where(
      and(
        inArray(jobEvents.type, ['verdict.given', 'follow-up.done']),
        eq(jobs.state, 'closed'),
        gte(jobs.closedAt, new Date(now.getTime() - LOOK_BACK_DAYS * DAY_MS)),
      ),
    )
    .orderBy(desc(jobEvents.position));
  const oldest = new Date(now.getTime() - OVERDUE_DAYS * DAY_MS).toISOString().slice(0, 10);
  const done = new Set<string>();
  const seen = new Set<string>();
  const due: DueFollowUp[] = [];
  // Newest first: what was done comes before the verdict that promised it.
  for (const { jobId, closedAt, type, data, ...job } of rows) {
    if (type === 'follow-up.done') done.add(`${jobId} ${(data as EventData['follow-up.done']).kind}`);
    if (type !== 'verdict.given' || seen.has(jobId) || !closedAt) continue;
    seen.add(jobId);
    for (const { kind, days } of (data as EventData['verdict.given']).followUps) {
      const dueOn = new Date(closedAt.getTime() + days * DAY_MS).toISOString().slice(0, 10);
      if (dueOn >= oldest && !done.has(`${jobId} ${kind}`)) due.push({ jobId, ...job, kind, dueOn });
    }
  }
  return due.sort((a, b) => a.dueOn.localeCompare(b.dueOn) || a.callNumber - b.callNumber);
}
