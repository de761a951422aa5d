import { randomUUID } from 'node:crypto';
import { isDeepStrictEqual } from 'node:util';
import type { EventTaken } from '@voltrek/contracts/api';
import type { BatteryRating } from '@voltrek/core/battery';
import { anyClampOn } from '@voltrek/core/hookup';
import { applyEvent, type Job, type JobEvent, lastUndoable, momentAfter, refusalOf } from '@voltrek/core/job';
import type { Machine } from '@voltrek/core/machine';
import { donorOf, modelById } from '../atlas/repository.js';
import { batteriesIn } from '../batteries/repository.js';
import { callById } from '../calls/repository.js';
import type { Db, Tx } from '../db/database.js';
import { HttpProblem, notFound, refused } from '../http/problem.js';
import { houseRules } from '../rules/repository.js';
import { firstVan, kitOfVan, requireVan } from '../vans/repository.js';
import { project, changesMore, changesOthers } from './project.js';
import {
  eventById,
  jobOfCall,
  keptJob,
  type Logged,
  openJobsOn,
  readEvents,
  writeEvents,
} from './repository.js';
import { type Looked, ReadForEvents, type EventContext, contextsFor } from './event-context.js';

/** An event as a device reported it. */
export interface Report {
  readonly event: JobEvent;
  /** How long it waited on the device, by a clock that nobody sets, ms. */
  readonly heldMs: number;
  /** The holder of the device by now, where the reporter handed it over; null otherwise. */
  readonly sentBy: string | null;
  /** True where the reporter may work alone; others only in a job that somebody answers for. */
  readonly isAlone: boolean;
}

/** The outcome of a report: taken, or refused. */
export type Outcome = EventTaken | HttpProblem;

/** An event of its job and nothing else: it may be appended together with those of other jobs, in any order. */
export const isOfItsJobAlone = ({ event }: Report): boolean => !changesOthers(event.type);

/** An event that is one line of its log and nothing else. */
export const isOneLine = ({ event }: Report): boolean => !changesMore(event.type);

/** An event that was judged, with everything that is to be written of it, and what it was judged against. */
interface Judged extends Logged {
  readonly context: EventContext;
}

/**
 * Appends events to their jobs: each judged against its job as it stands, and written with the snapshot and every projection.
 *
 * The server's clock says when it happened: now, less what it waited on the device. A device whose clock is ahead or back shortens no rest.
 *
 * @param read what was read of this database for events before
 * @param reports of different jobs; more than one only where each is of its job alone
 * @returns for each what it came to; of one that is refused nothing is written: 404 for an unknown call, crew member or model, 409 when the
 *   job refuses it, 403 without the right
 */
export async function appendAll(tx: Tx, read: ReadForEvents, reports: readonly Report[]): Promise<Outcome[]> {
  const now = new Date();
  const contexts = await contextsFor(
    tx,
    read,
    reports.map(({ event }) => event),
  );
  const outcomes: Outcome[] = [];
  const judged: Judged[] = [];
  for (const [i, report] of reports.entries())
    try {
      const context = contexts[i]!;
      if (context.isKnown) {
        outcomes.push({ ...(await standsAlready(tx, report.event)), now: now.toISOString() });
        continue;
      }
      const one = await judgeReport(tx, report, context, now);
      judged.push(one);
      const { event, kept } = one;
      outcomes.push({ event, revision: kept.job.revision, isNew: true, now: now.toISOString() });
    } catch (error) {
      if (!(error instanceof HttpProblem)) throw error;
      outcomes.push(error);
    }
  await write(tx, read, judged);
  return outcomes;
}

/** Returns the answer to the same event when it came before. @throws HttpProblem 409 when it is of another job */
async function standsAlready(tx: Tx, reported: JobEvent): Promise<Omit<EventTaken, 'now'>> {
  const { id, jobId } = reported;
  const event = (await eventById(tx, id))!;
  if (event.jobId !== jobId) throw new HttpProblem(409, 'eventIdTaken');
  const differing = differences(event, reported);
  if (differing.length > 0) throw new HttpProblem(409, 'eventDiffers', { params: [differing.join(', ')] });
  return { event, revision: (await keptJob(tx, jobId))?.job.revision ?? 0, isNew: false };
}

/** The facts of a job that opens which the server adds itself. */
const NAMED_HERE: readonly string[] = ['callNumber', 'vehicleId', 'fitted', 'vanId'];

/** Fields of a resent event that differ from the log, as a device has them. */
function differences(stood: JobEvent, reported: JobEvent): string[] {
  const factsOf = (event: JobEvent): Readonly<Record<string, unknown>> => {
    const data = Object.entries(event.data).filter(
      ([name, value]) => value !== undefined && !(event.type === 'job.opened' && NAMED_HERE.includes(name)),
    );
    const { type, by, at } = event;
    return { type, by, at, ...Object.fromEntries(data.map(([name, value]) => [`data.${name}`, value])) };
  };
  const [a, b] = [factsOf(stood), factsOf(reported)];
  return [...new Set([...Object.keys(a), ...Object.keys(b)])].filter(
    (name) => !isDeepStrictEqual(plain(a[name]), plain(b[name])),
  );
}
const plain = (value: unknown): unknown => (value === undefined ? null : JSON.parse(JSON.stringify(value)));

async function judgeReport(
  tx: Tx,
  { event: reported, heldMs, sentBy, isAlone }: Report,
  { isCrew, context: known }: Looked,
  now: Date,
): Promise<Judged> {
  if (!isCrew) throw notFound('crewMember', reported.by);
  const { context, named } = known ? { context: known, named: reported } : await opening(tx, reported);
  const before = known && (known.job ?? (await keptJob(tx, reported.jobId))?.job ?? null);
  if (!isAlone && (!before?.supervisedBy || reported.type === 'job.supervised'))
    throw new HttpProblem(403, 'notSupervised');
  const heardAt = new Date(now.getTime() - heldMs).toISOString();
  const { sentBy: _sentByDevice, ...reportedEvent } = named;
  const event = {
    ...reportedEvent,
    heardAt: notBefore(before, heardAt),
    ...(sentBy && { sentBy }),
  } as JobEvent;
  return judge(tx, { ...context, job: before }, event);
}

/**
 * Time neither runs back nor stands still within a log: what was held longer than the event before it, which a busy server took late, still
 * came after it. What is listed by its time is then listed in the order of the log.
 */
function notBefore(job: Job | null, heardAt: string): string {
  return job && job.lastAt >= heardAt ? momentAfter(job.lastAt) : heardAt;
}

/** @throws HttpProblem as {@link appendAll} tells */
async function judge(tx: Tx, context: EventContext, event: JobEvent): Promise<Judged> {
  const { job: before, vehicleId, vanId, machine, kit, donor, rules } = context;
  const found = event.type === 'model.identified' ? await modelById(tx, event.data.modelId) : null;
  if (event.type === 'model.identified' && !found) throw notFound('machine', event.data.modelId);
  if (event.type === 'van.called' || event.type === 'van.arrived') await requireVan(tx, event.data.vanId);
  // Only an undo looks back; everything else costs the same however long the log is.
  const log = event.type === 'event.undone' ? await readEvents(tx, event.jobId) : [];
  const refusal = refusalOf(before, event, { machine, donor, kit, rules, undoable: () => lastUndoable(log) });
  if (refusal) throw refused(refusal);
  const job = applyEvent(before, event, () => log)!;
  const now = job.modelId === machine.id ? machine : (found ?? (await modelById(tx, job.modelId))!);
  return { event, kept: { vehicleId, vanId, job }, machine: now, context };
}

async function write(tx: Tx, read: ReadForEvents, judged: readonly Judged[]): Promise<void> {
  const written = await writeEvents(tx, judged);
  for (const {
    kept: { job },
  } of judged)
    read.jobs.put(job.id, written.get(job.id)!, job);
  for (const one of judged) await project(tx, one, one.context);
}

/**
 * Tells the open jobs of entries that were corrected in what hands rely on: their points, polarity, parking and plan were another
 * machine's. Call inside the transaction that corrects them.
 *
 * @returns the messages to send after the commit
 * @throws HttpProblem 409 while a clamp is on one of these machines
 */
export async function identifyAgain(
  tx: Tx,
  modelIds: readonly string[],
  by: string,
): Promise<readonly Pick<EventTaken, 'event' | 'revision'>[]> {
  const appended: Pick<EventTaken, 'event' | 'revision'>[] = [];
  const read = new ReadForEvents();
  for (const { id: jobId, callNumber, modelId } of await openJobsOn(tx, modelIds)) {
    const reported = { id: randomUUID(), jobId, by, type: 'model.identified', data: { modelId } } as const;
    const { context } = (await contextsFor(tx, read, [reported]))[0]!;
    const job = context && (context.job ?? (await keptJob(tx, jobId))?.job ?? null);
    if (!context || !job) continue;
    if (anyClampOn(job.hookup)) throw new HttpProblem(409, 'clampsOnMachine', { params: [callNumber] });
    const at = notBefore(job, new Date().toISOString());
    const judged = await judge(tx, { ...context, job }, { ...reported, at, heardAt: at });
    await write(tx, read, [judged]);
    appended.push({ event: judged.event, revision: judged.kept.job.revision });
  }
  return appended;
}

/** The batteries of the record that sit in a vehicle, where one of them is not what its model has; undefined where they are the same. */
export async function fittedIn(
  tx: Db | Tx,
  vehicleId: string,
  { batteries }: Machine,
): Promise<readonly BatteryRating[] | undefined> {
  const known = await batteriesIn(tx, vehicleId);
  const fitted = batteries.map(({ rating }, place) => known.find((b) => b.place === place)?.rating ?? rating);
  const isOther = fitted.some((rating, i) => !isDeepStrictEqual({ ...rating }, { ...batteries[i]!.rating }));
  return isOther ? fitted : undefined;
}

/**
 * Completes a job that opens: its machine, and the kit of the van that its call says. A device without network knows neither the number of
 * its call nor the vehicle of a plate: the event gets both.
 *
 * @throws HttpProblem 404, 409
 */
async function opening(tx: Tx, event: JobEvent): Promise<{ context: EventContext; named: JobEvent }> {
  if (event.type !== 'job.opened') throw notFound('job', event.jobId);
  const call = await callById(tx, event.data.callId);
  if (!call) throw notFound('call', event.data.callId);
  const other = await jobOfCall(tx, event.data.callId);
  if (other && other !== event.jobId) throw refused('already-open');
  const vanId = event.data.vanId ?? call.vanId ?? (await firstVan(tx));
  const machine = await modelById(tx, event.data.modelId);
  if (!machine) throw notFound('machine', event.data.modelId);
  const kit = await kitOfVan(tx, vanId);
  const { fitted: _sentByDevice, ...data } = event.data;
  const fitted = await fittedIn(tx, call.vehicleId, machine);
  return {
    context: {
      vehicleId: call.vehicleId,
      vanId,
      job: null,
      machine,
      kit,
      donor: await donorOf(tx, kit),
      rules: await houseRules(tx),
    },
    named: {
      ...event,
      data: {
        ...data,
        callNumber: call.number,
        vehicleId: call.vehicleId,
        ...(fitted && { fitted }),
      },
    },
  };
}
