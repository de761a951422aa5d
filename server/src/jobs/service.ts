import { randomUUID } from 'node:crypto';
import type { CallOutset, JobDetail } from '@voltrek/contracts';
import { type JobSheet, rulesOfJob, sheetOfJob, vansHere } from '@voltrek/core/job';
import { DAY_MS } from '@voltrek/core/quantities';
import { donorOf, entryById, modelById } from '../atlas/repository.js';
import { batteriesIn } from '../batteries/repository.js';
import { callById } from '../calls/repository.js';
import type { Database } from '../db/database.js';
import { HttpProblem, notFound } from '../http/problem.js';
import { houseRules } from '../rules/repository.js';
import { kitOfVan } from '../vans/repository.js';
import { vehicleById } from '../vehicles/repository.js';
import { fittedIn } from './append.js';
import { type Begun, earlierBelief } from './earlier.js';
import { countEarlierFlatCalls, FLAT_VOLTS, keptJob, readEvents } from './repository.js';

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
    earlier: await earlierBelief(db, kept),
  };
}

/** Returns a job as it would begin for a call. @throws HttpProblem 404 */
export async function outsetOf(db: Database['db'], callId: string): Promise<CallOutset> {
  const call = await callById(db, callId);
  const machine = call && (await modelById(db, call.modelId));
  if (!machine) throw notFound('call', callId);
  const rules = await houseRules(db);
  const begun = { job: { id: randomUUID(), openedAt: new Date().toISOString() }, vehicleId: call.vehicleId };
  return {
    ...{ call, machine, rules },
    fitted: (await fittedIn(db, call.vehicleId, machine)) ?? null,
    earlierFlatCalls: await earlierFlatCalls(db, begun, rules.repeatFlatDays),
    earlier: await earlierBelief(db, begun),
  };
}

/** Returns these jobs as far as they exist, as {@link jobDetail} tells them. */
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
  { job, vehicleId }: Begun,
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
