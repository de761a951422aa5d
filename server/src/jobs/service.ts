import type { JobDetail } from '@voltrek/contracts';
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
import { earlierBelief } from './earlier.js';
import { countEarlierFlatCalls, FLAT_VOLTS, type KeptJob, keptJob, readEvents } from './repository.js';

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
