import type { DevicePack, PackedVehicle } from '@voltrek/contracts';
import { DAY_MS } from '@voltrek/core/quantities';
import { and, asc, desc, eq, gte, inArray, lt, max, sql } from 'drizzle-orm';
import { batteryOf } from '../batteries/repository.js';
import type { Db } from '../db/database.js';
import { batteries, jobs, models, vehicles } from '../db/schema.js';
import { FLAT_VOLTS } from '../jobs/repository.js';
import { houseRules } from '../rules/repository.js';
import { vehicleOf } from '../vehicles/repository.js';

/** A device holds this many of each: what a house of a few vans knows, in a few megabytes. */
const MODELS_MOST = 3_000;
const VEHICLES_MOST = 3_000;
/** Rows of one query: others have their turn in between. */
const ROWS_AT_ONCE = 200;

/** Returns the data that a device needs to open a call with no network: the atlas, and the vehicles that were seen last. */
export async function devicePack(db: Db): Promise<DevicePack> {
  return { models: await packedModels(db), vehicles: await packedVehicles(db) };
}

async function packedModels(db: Db): Promise<DevicePack['models']> {
  const packed: DevicePack['models'][number][] = [];
  for (let from = 0; from < MODELS_MOST; from += ROWS_AT_ONCE) {
    const page = await db
      .select({ machine: models.detail, confidence: models.confidence })
      .from(models)
      .orderBy(asc(models.id))
      .offset(from)
      .limit(ROWS_AT_ONCE);
    packed.push(...page);
    if (page.length < ROWS_AT_ONCE) break;
  }
  return packed;
}

async function packedVehicles(db: Db): Promise<PackedVehicle[]> {
  const { repeatFlatDays } = await houseRules(db);
  const seen = db
    .select({ vehicleId: jobs.vehicleId, last: max(jobs.openedAt).as('last') })
    .from(jobs)
    .groupBy(jobs.vehicleId)
    .as('seen');
  const newest = await db
    .select({ vehicle: vehicles, maker: models.maker, model: models.model })
    .from(vehicles)
    .innerJoin(models, eq(models.id, vehicles.modelId))
    .leftJoin(seen, eq(seen.vehicleId, vehicles.id))
    .orderBy(desc(sql`coalesce(${seen.last}, ${vehicles.createdAt})`))
    .limit(VEHICLES_MOST);
  const packed: PackedVehicle[] = [];
  for (let from = 0; from < newest.length; from += ROWS_AT_ONCE) {
    const some = newest.slice(from, from + ROWS_AT_ONCE);
    const ids = some.map(({ vehicle }) => vehicle.id);
    const fitted = await db
      .select()
      .from(batteries)
      .where(and(inArray(batteries.vehicleId, ids), eq(batteries.state, 'fitted')))
      .orderBy(asc(batteries.place));
    const flat = await db
      .select({ vehicleId: jobs.vehicleId, openedAt: jobs.openedAt })
      .from(jobs)
      .where(
        and(
          inArray(jobs.vehicleId, ids),
          gte(jobs.openedAt, new Date(Date.now() - repeatFlatDays * DAY_MS)),
          lt(jobs.lowestRestVolts, FLAT_VOLTS),
        ),
      );
    for (const { vehicle, maker, model } of some)
      packed.push({
        vehicle: { ...vehicleOf(vehicle), modelName: `${maker} ${model}` },
        batteries: fitted.filter((b) => b.vehicleId === vehicle.id).map(batteryOf),
        flatCalls: flat.flatMap((f) => (f.vehicleId === vehicle.id ? [f.openedAt.toISOString()] : [])),
      });
  }
  return packed;
}
