import { plateKeyOf, wordsOf } from '@voltrek/contracts/search-text';
import { REST_VOLTS } from '@voltrek/core/battery';
import { type JobFilter, type JobSummary, type LogPage, UUID_PATTERN } from '@voltrek/contracts';
import {
  FOLD_VERSION,
  foldJob,
  type Job,
  type JobEvent,
  outcomeOfJob,
  reachedStage,
  restVoltsByBattery,
  currentVerdict,
  underCharge,
  upgradeLog,
  vansComing,
} from '@voltrek/core/job';
import type { Machine } from '@voltrek/core/machine';
import { and, asc, count, eq, gt, gte, ilike, inArray, lt, lte, or, type SQL, sql } from 'drizzle-orm';
import { union } from 'drizzle-orm/pg-core';
import type { Db, Tx } from '../db/database.js';
import { HttpProblem } from '../http/problem.js';
import { isNamedBy } from './filter.js';
import { jobEvents, jobs, vehicles } from '../db/schema.js';
import { rowVersion } from '../db/last-read.js';
import { insertInto, orOver } from '../db/many-rows.js';
import { plainLike } from '../db/words.js';
import { isWholePlate } from '../vehicles/repository.js';

type JobRow = typeof jobs.$inferSelect;

/** A job as it stands, with whose machine it is and the van it is worked from. */
export interface KeptJob {
  readonly job: Job;
  readonly vehicleId: string;
  readonly vanId: string;
}

/** The whole log of a job, oldest first, in today's words; empty when there is none. */
export async function readEvents(db: Db | Tx, jobId: string): Promise<JobEvent[]> {
  const rows = await db
    .select()
    .from(jobEvents)
    .where(eq(jobEvents.jobId, jobId))
    .orderBy(asc(jobEvents.position));
  return upgradeLog(rows.map(storedOf));
}

function storedOf({ id, jobId, at, heardAt, by, sentBy, type, data }: typeof jobEvents.$inferSelect) {
  return {
    id,
    jobId,
    at: at.toISOString(),
    ...(heardAt && { heardAt: heardAt.toISOString() }),
    by,
    ...(sentBy && { sentBy }),
    type,
    data,
  };
}

/** The event with this id, in whatever log it stands. */
export async function eventById(db: Db | Tx, id: string): Promise<JobEvent | null> {
  const [row] = await db.select().from(jobEvents).where(eq(jobEvents.id, id));
  return (row && upgradeLog([storedOf(row)])[0]) ?? null;
}

/** Selects the snapshot of a job as this version folds it; null where another version made it. */
export const currentSnapshot = sql<Job | null>`CASE WHEN ${jobs.snapshotVersion} = ${FOLD_VERSION} THEN ${jobs.snapshot} END`;

/** The snapshot of a job: no log is read for it. Null when there is no such job. */
export async function keptJob(db: Db | Tx, jobId: string): Promise<KeptJob | null> {
  const [row] = await db
    .select({ snapshot: currentSnapshot, vehicleId: jobs.vehicleId, vanId: jobs.vanId })
    .from(jobs)
    .where(eq(jobs.id, jobId));
  if (!row) return null;
  const job = row.snapshot ?? foldJob(await readEvents(db, jobId));
  return job && { job, vehicleId: row.vehicleId, vanId: row.vanId };
}

/** One more event, what its job has come to, and the job's machine. */
export interface Logged {
  readonly event: JobEvent;
  readonly kept: KeptJob;
  readonly machine: Machine;
}

const intoLogs = insertInto(jobEvents);
const intoJobs = insertInto(jobs);
const orOverJobs = orOver(jobs, jobs.id);

/**
 * Writes one more event of each of some jobs, and what the jobs have come to: in one statement, since between two the database waits for
 * this server. Call inside a transaction.
 *
 * @param logged of different jobs
 * @returns the version in which the row of each job now stands, by the job's id
 */
export async function writeEvents(tx: Tx, logged: readonly Logged[]): Promise<ReadonlyMap<string, string>> {
  if (logged.length === 0) return new Map();
  const events = logged.map(({ event, kept }) => eventRow(event, kept.job.revision - 1));
  const rows = logged.map(({ kept, machine }) => rowOf(kept, machine));
  // The foreign key is checked at the end of the statement, so one statement may insert job and event.
  const written = await tx.execute<{ id: string; version: string }>(
    sql`WITH logged AS (${intoLogs(events)}) ${intoJobs(rows)} ${orOverJobs}
      RETURNING id, ${rowVersion(jobs)} AS version`,
  );
  return new Map(written.rows.map(({ id, version }) => [id, version]));
}

/** An event as it is stored, at its place in the log. */
export function eventRow(
  { heardAt, sentBy, ...event }: JobEvent,
  position: number,
): typeof jobEvents.$inferInsert {
  return {
    ...event,
    at: new Date(event.at),
    heardAt: heardAt === undefined ? null : new Date(heardAt),
    sentBy: sentBy ?? null,
    position,
  };
}

const moment = (at: string | null | undefined): Date | null => (at ? new Date(at) : null);

/** The projection of a job's log, for lists and searches. */
export function rowOf({ job, vehicleId, vanId }: KeptJob, machine: Machine): typeof jobs.$inferInsert {
  const { callId, callNumber, title, placeName } = job.call;
  const rest = restVoltsByBattery(job, machine.batteries.length).filter((v) => v !== null);
  const stands = currentVerdict(job);
  return {
    id: job.id,
    callId,
    callNumber,
    title,
    placeName,
    modelId: job.modelId,
    vehicleId,
    vanId,
    stage: reachedStage(job),
    state: job.closedAt === null ? 'open' : 'closed',
    verdict: stands?.verdict ?? null,
    suspect: stands?.suspect ?? null,
    lowestRestVolts: rest.length > 0 ? Math.min(...rest) : null,
    chargeUntil: moment(job.closedAt === null ? underCharge(job)?.dueAt : null),
    openedAt: new Date(job.openedAt),
    closedAt: moment(job.closedAt),
    by: job.openedBy,
    machineClass: machine.machineClass,
    arrivedAt: moment(job.arrivedAt),
    ...outcomeOfJob(job, machine.batteries.length),
    revision: job.revision,
    searchText: [callNumber, title, placeName, machine.maker, machine.model].join(' ').toLowerCase(),
    snapshot: job,
    snapshotVersion: FOLD_VERSION,
  };
}

export async function jobOfCall(db: Db | Tx, callId: string): Promise<string | null> {
  const [row] = await db.select({ id: jobs.id }).from(jobs).where(eq(jobs.callId, callId));
  return row?.id ?? null;
}

/** A flooded battery that rests lower is flat, V. */
export const FLAT_VOLTS = REST_VOLTS.flooded[0]![1];

/** Jobs of this vehicle, opened before `before` and not before `since`, in which a battery was found flat. Later ones say nothing of it. */
export async function countEarlierFlatCalls(
  db: Db | Tx,
  vehicleId: string,
  since: Date,
  before: Date,
  flatVolts: number,
): Promise<number> {
  const [row] = await db
    .select({ n: count() })
    .from(jobs)
    .where(
      and(
        eq(jobs.vehicleId, vehicleId),
        gte(jobs.openedAt, since),
        lt(jobs.openedAt, before),
        lt(jobs.lowestRestVolts, flatVolts),
      ),
    );
  return row?.n ?? 0;
}

export interface LogQuery {
  readonly text: string;
  readonly filter: JobFilter;
  readonly limit: number;
  /** The beginning of the page, from the page before; null for the first. */
  readonly after: string | null;
}

const PLATES_MOST = 50;
const WORDS_MOST = 8;

/** As the index has it, nulls included: otherwise every row is sorted for each page. */
const NEWEST_FIRST = [sql`${jobs.closedAt} desc nulls last`, asc(jobs.id)] as const;

/**
 * One page of closed jobs, newest first, by a whole plate, by words or by the beginning of a plate. Each way of being meant is
 * a search of its own, joined: either has its index, and one condition for both would have none.
 */
export async function readLog(db: Db, query: LogQuery): Promise<LogPage> {
  const rowsMost = query.limit + 1;
  const meant = (isMeant: SQL | undefined) =>
    db
      .select(jobColumns)
      .from(jobs)
      .where(
        and(
          eq(jobs.state, 'closed'),
          isMeant,
          isNamedBy(query.filter),
          query.after ? behind(query.after) : undefined,
        ),
      )
      .orderBy(...NEWEST_FIRST)
      .limit(rowsMost);
  const owners = await ownersOf(db, query.text);
  if (owners.length > 0) return pageOf(await meant(inArray(jobs.vehicleId, owners)), query.limit);
  const words = wordsOf(query.text, WORDS_MOST);
  const bySays = meant(and(...words.map((word) => ilike(jobs.searchText, `%${plainLike(word)}%`))));
  const isPlate = ofPlate(db, query.text);
  if (!isPlate) return pageOf(await bySays, query.limit);
  const either = union(bySays, meant(isPlate))
    .orderBy(...NEWEST_FIRST)
    .limit(rowsMost);
  return pageOf(await either, query.limit);
}

/** A page of rows, of which one more than it holds was asked for. */
function pageOf(rows: readonly SummaryRow[], limit: number): LogPage {
  const page = rows.slice(0, limit);
  const last = page.at(-1);
  return {
    jobs: page.map(summaryOf),
    next: rows.length > limit && last?.closedAt ? `${last.closedAt.toISOString()}_${last.id}` : null,
  };
}

/** The vehicles whose whole plate was typed. */
async function ownersOf(db: Db, typed: string): Promise<string[]> {
  const isWhole = isWholePlate(typed);
  const found = isWhole ? await db.select({ id: vehicles.id }).from(vehicles).where(isWhole) : [];
  return found.map(({ id }) => id);
}

/** A job of a vehicle whose plate begins as typed; undefined for what is too short to be one. Looked up once, within the same query. */
function ofPlate(db: Db, typed: string): SQL | undefined {
  const key = plateKeyOf(typed);
  if (key.length < 3) return undefined;
  const owned = db
    .select({ id: vehicles.id })
    .from(vehicles)
    .where(and(gte(vehicles.plateKey, key), lt(vehicles.plateKey, `${key}\uffff`)))
    .limit(PLATES_MOST);
  return sql`${jobs.vehicleId} = any(array(${owned}))`;
}

/** Rows behind the last of a page. @throws HttpProblem 400 for a cursor that no page gave */
function behind(cursor: string): SQL | undefined {
  const [at = '', id = ''] = cursor.split('_');
  const moment = new Date(at);
  if (Number.isNaN(moment.getTime()) || !UUID_PATTERN.test(id)) throw new HttpProblem(400, 'brokenCursor');
  return and(lte(jobs.closedAt, moment), or(lt(jobs.closedAt, moment), gt(jobs.id, id)));
}

/** Everything of a job's row that lists show: the snapshot and the search text stay where they are. */
export const jobColumns = {
  id: jobs.id,
  callId: jobs.callId,
  callNumber: jobs.callNumber,
  title: jobs.title,
  placeName: jobs.placeName,
  modelId: jobs.modelId,
  vehicleId: jobs.vehicleId,
  vanId: jobs.vanId,
  stage: jobs.stage,
  state: jobs.state,
  verdict: jobs.verdict,
  suspect: jobs.suspect,
  lowestRestVolts: jobs.lowestRestVolts,
  chargeUntil: jobs.chargeUntil,
  /** Of the snapshot no more than this, and of open jobs alone: it is large, and read whole for it. */
  vans: sql<Job['vans'] | null>`CASE WHEN ${jobs.closedAt} IS NULL THEN ${jobs.snapshot} -> 'vans' END`,
  openedAt: jobs.openedAt,
  closedAt: jobs.closedAt,
  by: jobs.by,
  revision: jobs.revision,
};

type SummaryRow = Pick<JobRow, Exclude<keyof typeof jobColumns, 'vans'>> & {
  readonly vans: Job['vans'] | null;
};

export function summaryOf({ openedAt, closedAt, chargeUntil, vans, ...row }: SummaryRow): JobSummary {
  return {
    ...row,
    vansComing: vansComing({ vans: vans ?? [] }),
    openedAt: openedAt.toISOString(),
    closedAt: closedAt?.toISOString() ?? null,
    chargeUntil: chargeUntil?.toISOString() ?? null,
  };
}

/** Open jobs that are worked with one of these entries. */
export const openJobsOn = (
  db: Db | Tx,
  modelIds: readonly string[],
): Promise<{ id: string; callNumber: number; modelId: string }[]> =>
  db
    .select({ id: jobs.id, callNumber: jobs.callNumber, modelId: jobs.modelId })
    .from(jobs)
    .where(and(eq(jobs.state, 'open'), inArray(jobs.modelId, [...modelIds])));
