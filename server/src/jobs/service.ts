import type { JobDetail } from '@voltrek/contracts';
import {
  DEFAULT_RULES,
  foldJob,
  isSourceClamp,
  isTemplate,
  type JobEvent,
  type JobSheet,
  kitCare,
  refusalOf,
  REST_VOLTS,
  sheetOfJob,
  SPARE_POSTS,
} from '@voltrek/core';
import type { Database } from '../db/database.js';
import { donorOf, entryById, modelById } from '../atlas/repository.js';
import { callById } from '../calls/repository.js';
import { crewExists } from '../crew/repository.js';
import { HttpProblem, notFound, refused } from '../http/problem.js';
import { kitOfVan, markKit } from '../kit/repository.js';
import { houseRules } from '../rules/repository.js';
import type { JobStreams } from './streams.js';
import { appendEvents, countFlatCalls, eventExists, jobOfCall, readEvents } from './repository.js';

/** The van tonight's jobs are worked from, until vans are assigned to calls. */
const VAN_ID = 'van-1';

/** What an acknowledged event tells its sender. */
export interface Acknowledged {
  readonly event: JobEvent;
  readonly revision: number;
  /** False when the event was already in the log: a resend changes nothing. */
  readonly isNew: boolean;
}

/**
 * Appends one event to a job: checked against the folded log, written with its projection in one transaction, which is on the disk when it is answered, then
 * told to every page that watches.
 *
 * @throws HttpProblem 404 for an unknown call, crew member or machine, 409 when the job's state refuses the event
 */
export async function acceptEvent(
  database: Database,
  streams: JobStreams,
  event: JobEvent,
): Promise<Acknowledged> {
  const result = await database.db.transaction(async (tx): Promise<Acknowledged> => {
    const before = await readEvents(tx, event.jobId);
    if (before.some((e) => e.id === event.id)) return { event, revision: before.length, isNew: false };
    if (await eventExists(tx, event.id)) throw new HttpProblem(409, 'That event id belongs to another job.');
    if (!(await crewExists(tx, event.by))) throw notFound(`crew member ${event.by}`);
    if (event.type === 'job.opened') {
      if (!(await callById(tx, event.data.callId))) throw notFound(`call ${event.data.callId}`);
      if (!(await modelById(tx, event.data.modelId))) throw notFound(`machine ${event.data.modelId}`);
      const other = await jobOfCall(tx, event.data.callId);
      if (other && other !== event.jobId) throw refused('already-open');
    } else if (before.length === 0) throw notFound(`job ${event.jobId}`);
    if (event.type === 'model.identified' && !(await modelById(tx, event.data.modelId)))
      throw notFound(`machine ${event.data.modelId}`);
    await requireKnownPoint(tx, before, event);
    const refusal = refusalOf(before, event, await houseRules(tx));
    if (refusal) throw refused(refusal);
    await appendEvents(tx, before, [event]);
    const after = foldJob([...before, event])!;
    await markKit(tx, kitCare(after, await kitOfVan(tx, VAN_ID)), event.jobId, new Date(event.at));
    return { event, revision: before.length + 1, isNew: true };
  });
  if (result.isNew) {
    streams.tell(event, result.revision);
  }
  return result;
}

/** A clamp can only go on a point that the atlas knows on the vehicle at its end. */
async function requireKnownPoint(
  tx: Parameters<typeof modelById>[0],
  before: readonly JobEvent[],
  event: JobEvent,
): Promise<void> {
  if (event.type !== 'clamp.attached') return;
  const posts: readonly string[] = Object.values(SPARE_POSTS);
  const job = foldJob(before);
  if (!job) return;
  const { clamp, pointId } = event.data;
  if (isSourceClamp(clamp) && job.plan?.sourceKind === 'spare-batteries' && posts.includes(pointId)) return;
  const machine = isSourceClamp(clamp)
    ? await donorOf(tx, await kitOfVan(tx, VAN_ID))
    : await modelById(tx, job.modelId);
  if (machine && !machine.points.some((p) => p.id === pointId)) throw notFound(`point ${pointId} there`);
}

/** A job with its machine, kit and donor. @throws HttpProblem 404 */
export async function jobDetail({ db }: Database, jobId: string): Promise<JobDetail> {
  const events = await readEvents(db, jobId);
  const job = foldJob(events);
  if (!job) throw notFound(`job ${jobId}`);
  const entry = await entryById(db, job.modelId);
  if (!entry) throw notFound(`machine ${job.modelId}`);
  const { machine, confidence } = entry;
  const call = await callById(db, job.call.callId);
  if (!call) throw notFound(`call ${job.call.callId}`);
  const kit = await kitOfVan(db, VAN_ID);
  const since = new Date(Date.parse(job.openedAt) - DEFAULT_RULES.repeatFlatDays * 86_400_000);
  const flatVolts = REST_VOLTS.flooded[0]![1];
  return {
    call,
    events,
    machine,
    confidence,
    kit,
    donorMachine: await donorOf(db, kit),
    rules: await houseRules(db),
    // Other unknown machines of the class are other machines.
    earlierFlatCalls: isTemplate(machine) ? 0 : await countFlatCalls(db, machine.id, jobId, since, flatVolts),
  };
}

/** Everything a job comes to, for other programs. @throws HttpProblem 404 */
export async function jobSheet(database: Database, jobId: string): Promise<JobSheet> {
  const { events, machine, earlierFlatCalls } = await jobDetail(database, jobId);
  return sheetOfJob(foldJob(events)!, machine, earlierFlatCalls);
}
