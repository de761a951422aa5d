import type { BatteryLife, BatteryRecord } from '@voltrek/contracts';
import { batteryEntries, type BatteryEntry, foldJob, type Machine, neededShare } from '@voltrek/core';
import { asc, eq } from 'drizzle-orm';
import { modelById } from '../atlas/repository.js';
import type { Database } from '../db/database.js';
import { jobs } from '../db/schema.js';
import { notFound } from '../http/problem.js';
import { readEvents } from '../jobs/repository.js';
import { houseRules } from '../rules/repository.js';

/** Every battery must stand this cold, however mild its calls were, degC. */
const COLD_LEAST_C = -10;

/** The record of a machine's batteries, folded out of the logs of all its jobs. @throws HttpProblem 404 */
export async function batteryRecord({ db }: Database, modelId: string): Promise<BatteryRecord> {
  const machine = await modelById(db, modelId);
  if (!machine) throw notFound(`machine ${modelId}`);
  const rows = await db
    .select({ id: jobs.id })
    .from(jobs)
    .where(eq(jobs.modelId, modelId))
    .orderBy(asc(jobs.openedAt));
  const folded = (await Promise.all(rows.map(({ id }) => readEvents(db, id)))).flatMap(
    (events) => foldJob(events) ?? [],
  );
  const entries = folded.flatMap((job) => batteryEntries(job, machine));
  const coldC = Math.min(COLD_LEAST_C, ...folded.map((job) => job.scene?.ambientC ?? job.call.ambientC));
  const fitted = new Map(
    folded.flatMap((job) => job.replaced.map((r) => [`${r.at} ${r.battery}`, r.rating] as const)),
  );
  return {
    machine,
    batteries: machine.batteries.flatMap((_, battery) =>
      livesOf(
        machine,
        battery,
        entries.filter((e) => e.battery === battery),
        (at) => fitted.get(`${at} ${battery}`) ?? null,
      ),
    ),
    coldC,
    needShare: neededShare(machine, coldC, await houseRules(db)),
  };
}

/** Batteries that sat in one place, one after the other: each change begins another. */
function livesOf(
  machine: Machine,
  battery: number,
  entries: readonly BatteryEntry[],
  ratingAt: (at: string) => BatteryLife['rating'] | null,
): BatteryLife[] {
  const lives: BatteryLife[] = [];
  let rating = machine.batteries[battery]!.rating;
  let current: BatteryEntry[] = [];
  const end = (endedAt: string | null): void => {
    lives.push({
      id: `${machine.id}:${battery}:${lives.length + 1}`,
      battery,
      rating,
      entries: current,
      endedAt,
    });
  };
  for (const entry of entries) {
    if (entry.kind === 'replaced') {
      end(entry.at);
      current = [];
      rating = ratingAt(entry.at) ?? rating;
    }
    current.push(entry);
  }
  end(null);
  return lives;
}
