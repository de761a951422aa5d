import { ANSWERS } from '@voltrek/contracts/words';
import { randomUUID } from 'node:crypto';
import type { JobDetail } from '@voltrek/contracts';
import type { EventTaken } from '@voltrek/contracts/api';
import { anyClampOn } from '@voltrek/core/hookup';
import {
  applyEvent,
  type Job,
  type JobEvent,
  type JobSheet,
  kitCare,
  kitMeasured,
  kitUses,
  lastUndoable,
  momentAfter,
  refusalOf,
  rulesOfJob,
  sheetOfJob,
  timeOf,
  vansHere,
} from '@voltrek/core/job';
import type { Machine } from '@voltrek/core/machine';
import { donorOf, entryById, modelById } from '../atlas/repository.js';
import { followJob } from '../batteries/of-job.js';
import { batteriesIn } from '../batteries/repository.js';
import { callById, endCall, takenCall } from '../calls/repository.js';
import type { Database, Tx } from '../db/database.js';
import { writePromises } from '../followups/repository.js';
import { HttpProblem, notFound, refused } from '../http/problem.js';
import { houseRules } from '../rules/repository.js';
import { chargeKit, firstVan, kitOfVan, markKit, measureKit, requireVan } from '../vans/repository.js';
import { vehicleById } from '../vehicles/repository.js';
import { matchModel } from '../vehicles/service.js';
import {
  countEarlierFlatCalls,
  eventById,
  FLAT_VOLTS,
  jobOfCall,
  type KeptJob,
  keptJob,
  openJobsOn,
  readEvents,
  writeEvent,
} from './repository.js';
import { type Standing, standingFor } from './standing.js';
import type { NewsDesk } from '../http/news.js';
import { DAY_MS } from '@voltrek/core/quantities';

/**
 * Appends one event to a job: judged against the job as it stands, written with the snapshot and everything that lists and records show of
 * it in one transaction, which is on the disk when it is answered, then told to every page that watches.
 *
 * The server's clock says when it happened: now, less what it waited on the device. A device whose clock is ahead or back shortens no rest.
 *
 * @param heldMs how long the event waited on the device, by a clock that nobody sets
 * @param isAlone whoever reports it may work alone; others only in a job that somebody answers for
 * @throws HttpProblem 404 for an unknown call, crew member or model, 409 when the job's state refuses the event, 403 for who may not
 */
export async function acceptEvent(
  database: Database,
  news: NewsDesk,
  reported: JobEvent,
  heldMs = 0,
  isAlone = true,
): Promise<EventTaken> {
  const now = new Date();
  const heardAt = new Date(now.getTime() - heldMs).toISOString();
  const result = await database.write(async (tx): Promise<EventTaken> => {
    const { isCrew, isKnown, standing: known } = await standingFor(tx, reported);
    if (isKnown) {
      const event = (await eventById(tx, reported.id))!;
      if (event.jobId !== reported.jobId) throw new HttpProblem(409, ANSWERS.eventIdTaken);
      return {
        event,
        revision: (await keptJob(tx, event.jobId))?.job.revision ?? 0,
        isNew: false,
        now: now.toISOString(),
      };
    }
    if (!isCrew) throw notFound('crewMember', reported.by);
    const { standing, named } = known ? { standing: known, named: reported } : await opening(tx, reported);
    const before = known && (known.job ?? (await keptJob(tx, reported.jobId))?.job ?? null);
    if (!isAlone && (!before?.supervisedBy || reported.type === 'job.supervised'))
      throw new HttpProblem(403, ANSWERS.notSupervised);
    const event = { ...named, heardAt: notBefore(before, heardAt) } as JobEvent;
    const { job } = await append(tx, { ...standing, job: before }, event);
    return { event, revision: job.revision, isNew: true, now: now.toISOString() };
  }, reported.jobId);
  if (result.isNew) news.tell(result.event, result.revision);
  return result;
}

/**
 * Time neither runs back nor stands still within a log: what was held longer than the event before it, which a busy server took late, still
 * came after it. What is listed by its time is then listed in the order of the log.
 */
function notBefore(job: Job | null, heardAt: string): string {
  return job && job.lastAt >= heardAt ? momentAfter(job.lastAt) : heardAt;
}

/**
 * Tells the open jobs of entries that were corrected in what hands rely on: their points, polarity, parking and plan were another machine's.
 * Call inside the transaction that corrects them.
 *
 * @returns what is to be told once it stands
 * @throws HttpProblem 409 while a clamp is on one of these machines
 */
export async function identifyAgain(
  tx: Tx,
  modelIds: readonly string[],
  by: string,
): Promise<readonly Pick<EventTaken, 'event' | 'revision'>[]> {
  const told: Pick<EventTaken, 'event' | 'revision'>[] = [];
  for (const { id: jobId, callNumber, modelId } of await openJobsOn(tx, modelIds)) {
    const reported = { id: randomUUID(), jobId, by, type: 'model.identified', data: { modelId } } as const;
    const { standing } = await standingFor(tx, reported);
    const job = standing && (standing.job ?? (await keptJob(tx, jobId))?.job ?? null);
    if (!standing || !job) continue;
    if (anyClampOn(job.hookup)) throw new HttpProblem(409, ANSWERS.clampsOnMachine(callNumber));
    const at = notBefore(job, new Date().toISOString());
    const event: JobEvent = { ...reported, at, heardAt: at };
    told.push({ event, revision: (await append(tx, { ...standing, job }, event)).job.revision });
  }
  return told;
}

/** Judges one event and writes it. @throws HttpProblem as `acceptEvent` */
async function append(tx: Tx, standing: Standing, event: JobEvent): Promise<KeptJob> {
  const { job: before, machine, kit, donor, rules, vehicleId, vanId } = standing;
  const found = event.type === 'model.identified' ? await modelById(tx, event.data.modelId) : null;
  if (event.type === 'model.identified' && !found) throw notFound('machine', event.data.modelId);
  if (event.type === 'van.called' || event.type === 'van.arrived') await requireVan(tx, event.data.vanId);
  // Only an undo looks back; everything else costs the same however long the log is.
  const log = event.type === 'event.undone' ? await readEvents(tx, event.jobId) : [];
  const refusal = refusalOf(before, event, { machine, donor, kit, rules, undoable: () => lastUndoable(log) });
  if (refusal) throw refused(refusal);
  const job = applyEvent(before, event, () => log)!;
  const next: KeptJob = { vehicleId, vanId, job };
  const now = job.modelId === machine.id ? machine : (found ?? (await modelById(tx, job.modelId))!);
  await writeEvent(tx, event, next, now);
  await bringUpToDate(tx, next, now, { kit, rules }, event);
  return next;
}

/** Everything beside the log that one more event changes. */
async function bringUpToDate(
  tx: Tx,
  { job, vehicleId, vanId }: KeptJob,
  machine: Machine,
  { kit, rules }: Pick<Standing, 'kit' | 'rules'>,
  event: JobEvent,
): Promise<void> {
  const at = new Date(timeOf(event));
  await followJob(tx, job, machine, vehicleId, event);
  switch (event.type) {
    case 'job.opened':
      await takenCall(tx, job.call.callId, vanId, event.by, at);
      break;
    case 'model.identified':
      await matchModel(tx, vehicleId, job.modelId);
      break;
    case 'job.closed':
      await endCall(tx, job.call.callId, 'done', at);
      await writePromises(tx, job);
      break;
    case 'follow-up.done':
    case 'recheck.taken':
      await writePromises(tx, job);
      break;
    case 'leads.measured':
      await measureKit(tx, kitMeasured(job, machine, kit, rules));
      break;
    case 'attempt.ended':
    case 'clamp.detached':
    case 'pack.switched':
    case 'event.undone':
      await chargeKit(tx, job.id, kitUses(job, machine, kit, rules), at);
      await markKit(tx, kitCare(job, kit), job.id, at);
      if (event.type === 'event.undone' || event.type === 'attempt.ended')
        await measureKit(tx, kitMeasured(job, machine, kit, rules));
      break;
    default:
  }
}

/**
 * What a job that opens stands on: its machine, and the kit of the van that its call says. A device that had no network knows neither the
 * number of its call nor whose vehicle a plate turned out to be: the event is told both.
 *
 * @throws HttpProblem 404, 409
 */
async function opening(tx: Tx, event: JobEvent): Promise<{ standing: Standing; named: JobEvent }> {
  if (event.type !== 'job.opened') throw notFound('job', event.jobId);
  const call = await callById(tx, event.data.callId);
  if (!call) throw notFound('call', event.data.callId);
  const other = await jobOfCall(tx, event.data.callId);
  if (other && other !== event.jobId) throw refused('already-open');
  const vanId = event.data.vanId ?? call.vanId ?? (await firstVan(tx));
  const machine = await modelById(tx, event.data.modelId);
  if (!machine) throw notFound('machine', event.data.modelId);
  const kit = await kitOfVan(tx, vanId);
  return {
    standing: {
      vehicleId: call.vehicleId,
      vanId,
      job: null,
      machine,
      kit,
      donor: await donorOf(tx, kit),
      rules: await houseRules(tx),
    },
    named: { ...event, data: { ...event.data, callNumber: call.number, vehicleId: call.vehicleId } },
  };
}

/** A job with its machine, vehicle, kit and donor. @throws HttpProblem 404 */
export async function jobDetail({ db }: Database, jobId: string): Promise<JobDetail> {
  const kept = await keptJob(db, jobId);
  if (!kept) throw notFound('job', jobId);
  const { job, vehicleId, vanId } = kept;
  const entry = await entryById(db, job.modelId);
  if (!entry) throw notFound('machine', job.modelId);
  const { machine, confidence } = entry;
  const call = await callById(db, job.call.callId);
  const vehicle = await vehicleById(db, vehicleId);
  if (!call || !vehicle) throw notFound('call', job.call.callId);
  const kits = await Promise.all([vanId, ...vansHere(job)].map((id) => kitOfVan(db, id)));
  const kit = kits.flat();
  const rules = await houseRules(db);
  return {
    call,
    vehicle,
    batteries: await batteriesIn(db, vehicleId),
    events: await readEvents(db, jobId),
    machine,
    confidence,
    kit,
    donorMachine: await donorOf(db, kit),
    rules,
    earlierFlatCalls: await earlierFlatCalls(db, kept, rulesOfJob(job, rules).repeatFlatDays),
  };
}

/** Those of these jobs that there are, as {@link jobDetail} tells them. */
export async function jobDetails(database: Database, jobIds: readonly string[]): Promise<JobDetail[]> {
  const details: JobDetail[] = [];
  for (const jobId of jobIds)
    try {
      details.push(await jobDetail(database, jobId));
    } catch (error) {
      if (!(error instanceof HttpProblem)) throw error;
    }
  return details;
}

async function earlierFlatCalls(
  db: Database['db'],
  { job, vehicleId }: KeptJob,
  repeatDays: number,
): Promise<number> {
  const opened = new Date(job.openedAt);
  const since = new Date(opened.getTime() - repeatDays * DAY_MS);
  return countEarlierFlatCalls(db, vehicleId, since, opened, FLAT_VOLTS);
}

/** Everything a job comes to, for other programs. @throws HttpProblem 404 */
export async function jobSheet({ db }: Database, jobId: string): Promise<JobSheet> {
  const kept = await keptJob(db, jobId);
  if (!kept) throw notFound('job', jobId);
  const machine = (await modelById(db, kept.job.modelId))!;
  const { repeatFlatDays } = rulesOfJob(kept.job, await houseRules(db));
  return sheetOfJob(kept.job, machine, await earlierFlatCalls(db, kept, repeatFlatDays));
}
