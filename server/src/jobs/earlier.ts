import type { EarlierBelief, KnownStrength } from '@voltrek/core/belief';
import { currentVerdict } from '@voltrek/core/job';
import { DAY_MS } from '@voltrek/core/quantities';
import { strengthPoints, strengthTrend } from '@voltrek/core/verdict';
import { and, asc, desc, eq, inArray, isNotNull, lt, ne } from 'drizzle-orm';
import type { Db } from '../db/types.js';
import { batteryAt, movesInto } from '../batteries/repository.js';
import { batteryEntries, jobs } from '../db/schema.js';
import { type KeptJob, keptJob } from './repository.js';

/** A job that began, or would begin, on a vehicle. */
export interface Begun {
  readonly job: Pick<KeptJob['job'], 'id' | 'openedAt'>;
  readonly vehicleId: string;
}

/**
 * Returns the belief that earlier jobs of a vehicle left, on the day that this job was opened; null where there is none. It is read from the
 * logs each time. So rebuilding gives the same, and a battery that moved brings its own.
 */
export async function earlierBelief(db: Db, { job, vehicleId }: Begun): Promise<EarlierBelief | null> {
  const opened = new Date(job.openedAt);
  const [last] = await db
    .select({ id: jobs.id, closedAt: jobs.closedAt })
    .from(jobs)
    .where(and(eq(jobs.vehicleId, vehicleId), isNotNull(jobs.closedAt), lt(jobs.closedAt, opened)))
    .orderBy(desc(jobs.closedAt))
    .limit(1);
  const strengths = await strengthsOn(db, vehicleId, job.id, opened);
  const verdict = last ? currentVerdict((await keptJob(db, last.id))!.job) : null;
  if (!verdict && strengths.every((known) => known === null)) return null;
  return {
    closedAt: last?.closedAt?.toISOString() ?? null,
    days: last?.closedAt ? (opened.getTime() - last.closedAt.getTime()) / DAY_MS : 0,
    causes: verdict?.causes ?? [],
    strengths,
  };
}

/** Returns the strength on that day of each battery that sat in the vehicle then. */
async function strengthsOn(
  db: Db,
  vehicleId: string,
  jobId: string,
  on: Date,
): Promise<(KnownStrength | null)[]> {
  const moves = await movesInto(db, vehicleId);
  const count = Math.max(0, ...moves.map(({ place }) => (place ?? 0) + 1));
  const sat = Array.from({ length: count }, (_, place) => batteryAt(moves, place, on));
  const read = await db
    .select()
    .from(batteryEntries)
    .where(
      and(
        inArray(
          batteryEntries.batteryId,
          sat.filter((id) => id !== undefined),
        ),
        ne(batteryEntries.jobId, jobId),
        lt(batteryEntries.at, on),
      ),
    )
    .orderBy(asc(batteryEntries.at), asc(batteryEntries.position));
  return sat.map((id): KnownStrength | null => {
    const points = strengthPoints(read.filter(({ batteryId }) => batteryId === id));
    return points.length === 0 ? null : strengthTrend(points, 0).at(on.getTime() / DAY_MS);
  });
}
