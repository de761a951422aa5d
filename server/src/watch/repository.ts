import { vehicleNumbersOf, type WatchedVehicle, type WatchPage } from '@voltrek/contracts';
import { standingOfJob } from '@voltrek/core/job';
import { DAY_MS, DAYS_A_YEAR } from '@voltrek/core/quantities';
import { and, asc, eq, exists, gt, inArray } from 'drizzle-orm';
import type { Db } from '../db/types.js';
import { batteries, jobs, models, people, vehicles } from '../db/schema.js';
import { leftBehind } from '../jobs/earlier.js';
import { personOf } from '../people/repository.js';

/**
 * Returns one page of the vehicles that the house has worked on, each as its jobs left it.
 *
 * @param after the cursor of the page before; empty for the first
 */
export async function watchPage(db: Db, after: string, limit: number, on: Date): Promise<WatchPage> {
  const isWorkedOn = exists(
    db
      .select({ id: jobs.id })
      .from(jobs)
      .where(and(eq(jobs.vehicleId, vehicles.id), eq(jobs.state, 'closed'))),
  );
  const rows = await db
    .select({ vehicle: vehicles, machine: models.detail, owner: people })
    .from(vehicles)
    .innerJoin(models, eq(models.id, vehicles.modelId))
    .leftJoin(people, eq(people.id, vehicles.ownerId))
    .where(and(gt(vehicles.id, after), isWorkedOn))
    .orderBy(asc(vehicles.id))
    .limit(limit);
  const ids = rows.map(({ vehicle }) => vehicle.id);
  if (ids.length === 0) return { vehicles: [], next: null };
  const left = await leftBehind(db, ids, on);
  const fitted = await db
    .select({ vehicleId: batteries.vehicleId, place: batteries.place, rating: batteries.rating })
    .from(batteries)
    .where(and(inArray(batteries.vehicleId, ids), eq(batteries.state, 'fitted')));
  const ratings = new Map(fitted.map(({ vehicleId, place, rating }) => [`${vehicleId} ${place}`, rating]));
  const page = rows.map(({ vehicle, machine, owner }): WatchedVehicle => {
    const { belief, last } = left.get(vehicle.id)!;
    const sat = machine.batteries.map(({ rating }, place) => ({
      rating: ratings.get(`${vehicle.id} ${place}`) ?? rating,
    }));
    const told = last && standingOfJob(last.job, { batteries: sat });
    const closedAt = last?.job.closedAt;
    const days = closedAt ? (on.getTime() - Date.parse(closedAt)) / DAY_MS : 0;
    const { machineClass, systemVolts, engine } = machine;
    return {
      id: vehicle.id,
      ...vehicleNumbersOf(vehicle),
      modelName: `${machine.maker} ${machine.model}`,
      placeName: last?.placeName ?? '',
      owner: owner && personOf(owner),
      standing: {
        machine: { machineClass, systemVolts, engine, batteries: sat },
        earlier: belief,
        years: sat.map(() => (told?.years == null ? null : told.years + days / DAYS_A_YEAR)),
        use: told?.use ?? null,
        found: told?.found ?? null,
        left: told?.leftSoc == null ? null : { soc: told.leftSoc, days },
      },
    };
  });
  return { vehicles: page, next: ids.length === limit ? ids.at(-1)! : null };
}
