import type { EarlierBelief, KnownStrength } from '@voltrek/core/belief';
import { currentVerdict, foldJob, type Job } from '@voltrek/core/job';
import { DAY_MS } from '@voltrek/core/quantities';
import { strengthPoints, strengthTrend } from '@voltrek/core/verdict';
import { and, asc, desc, inArray, isNotNull, lt, ne } from 'drizzle-orm';
import type { Db } from '../db/types.js';
import { batteryAt, movesInto } from '../batteries/repository.js';
import { batteryEntries, jobs } from '../db/schema.js';
import { currentSnapshot, type KeptJob, readEvents } from './repository.js';

/** A job that began, or would begin, on a vehicle. */
export interface Begun {
  readonly job: Pick<KeptJob['job'], 'id' | 'openedAt'>;
  readonly vehicleId: string;
}

/** The things that closed jobs of a vehicle left on some day. */
export interface LeftBehind {
  /** Null where they tell nothing of its parts. */
  readonly belief: EarlierBelief | null;
  /** The last of them; null where there is none. */
  readonly last: { readonly job: Job; readonly placeName: string } | null;
}

/**
 * Returns the belief that earlier jobs of a vehicle left, on the day that this job was opened; null where there is none. It is read from the
 * logs each time. So rebuilding gives the same, and a battery that moved brings its own.
 */
export async function earlierBelief(db: Db, { job, vehicleId }: Begun): Promise<EarlierBelief | null> {
  const left = await leftBehind(db, [vehicleId], new Date(job.openedAt), job.id);
  return left.get(vehicleId)!.belief;
}

/**
 * Returns the things that closed jobs of these vehicles left on a day, by vehicle.
 *
 * @param except a job whose own readings do not count; null: all count
 */
export async function leftBehind(
  db: Db,
  vehicleIds: readonly string[],
  on: Date,
  except: string | null = null,
): Promise<ReadonlyMap<string, LeftBehind>> {
  const rows = await db
    .selectDistinctOn([jobs.vehicleId], {
      id: jobs.id,
      vehicleId: jobs.vehicleId,
      closedAt: jobs.closedAt,
      placeName: jobs.placeName,
      snapshot: currentSnapshot,
    })
    .from(jobs)
    .where(and(inArray(jobs.vehicleId, vehicleIds), isNotNull(jobs.closedAt), lt(jobs.closedAt, on)))
    .orderBy(jobs.vehicleId, desc(jobs.closedAt));
  const lasts = new Map(rows.map((row) => [row.vehicleId, row]));
  const strengths = await strengthsOn(db, vehicleIds, on, except);
  const all = vehicleIds.map(async (vehicleId): Promise<readonly [string, LeftBehind]> => {
    const last = lasts.get(vehicleId);
    const job = last ? (last.snapshot ?? foldJob(await readEvents(db, last.id))) : null;
    const verdict = job ? currentVerdict(job) : null;
    const known = strengths.get(vehicleId) ?? [];
    const belief: EarlierBelief | null =
      !verdict && known.every((one) => one === null)
        ? null
        : {
            closedAt: last?.closedAt?.toISOString() ?? null,
            days: last?.closedAt ? (on.getTime() - last.closedAt.getTime()) / DAY_MS : 0,
            causes: verdict?.causes ?? [],
            strengths: known,
          };
    return [vehicleId, { belief, last: last && job ? { job, placeName: last.placeName } : null }];
  });
  return new Map(await Promise.all(all));
}

/** Returns the strength on that day of each battery that sat in these vehicles then. By vehicle, from the chassis side. */
async function strengthsOn(
  db: Db,
  vehicleIds: readonly string[],
  on: Date,
  except: string | null,
): Promise<ReadonlyMap<string, (KnownStrength | null)[]>> {
  const moves = await movesInto(db, vehicleIds);
  const sat = new Map(
    vehicleIds.map((vehicleId) => {
      const into = moves.filter((move) => move.vehicleId === vehicleId);
      const count = Math.max(0, ...into.map(({ place }) => (place ?? 0) + 1));
      return [vehicleId, Array.from({ length: count }, (_, place) => batteryAt(into, place, on))] as const;
    }),
  );
  const read = await db
    .select()
    .from(batteryEntries)
    .where(
      and(
        inArray(
          batteryEntries.batteryId,
          [...sat.values()].flat().filter((id) => id !== undefined),
        ),
        ...(except === null ? [] : [ne(batteryEntries.jobId, except)]),
        lt(batteryEntries.at, on),
      ),
    )
    .orderBy(asc(batteryEntries.at), asc(batteryEntries.position));
  const strengthOf = (id: string | undefined): KnownStrength | null => {
    const points = strengthPoints(read.filter(({ batteryId }) => batteryId === id));
    return points.length === 0 ? null : strengthTrend(points, 0).at(on.getTime() / DAY_MS);
  };
  return new Map([...sat].map(([vehicleId, ids]) => [vehicleId, ids.map(strengthOf)]));
}
