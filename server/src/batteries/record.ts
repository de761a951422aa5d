import { type BatteryRecord, UUID_PATTERN } from '@voltrek/contracts';
import { vehicleName } from '@voltrek/contracts/words';
import { neededShare } from '@voltrek/core/verdict';
import { eq, sql } from 'drizzle-orm';
import type { Database } from '../db/database.js';
import { batteries, models, vehicles } from '../db/schema.js';
import { notFound } from '../http/problem.js';
import { houseRules } from '../rules/repository.js';
import { entriesOfBattery } from './of-job.js';
import { batteryOf, codeOf, movesOf } from './repository.js';

/** Every battery must stand this cold, however mild its calls were, degC. */
const COLD_LEAST_C = -10;

/** A battery with its whole life, by its id or the code on its label. @throws HttpProblem 404 */
export async function batteryRecord({ db }: Database, named: string): Promise<BatteryRecord> {
  const isNamed = UUID_PATTERN.test(named) ? eq(batteries.id, named) : eq(batteries.code, codeOf(named));
  const [row] = await db
    .select({
      battery: batteries,
      vehicle: vehicles,
      machine: models.detail,
      coldestC: sql<
        number | null
      >`(SELECT min(ambient_c) FROM calls WHERE calls.vehicle_id = ${vehicles.id})`,
    })
    .from(batteries)
    .leftJoin(vehicles, eq(vehicles.id, batteries.vehicleId))
    .leftJoin(models, eq(models.id, vehicles.modelId))
    .where(isNamed);
  if (!row) throw notFound(`battery ${named}`);
  const { vehicle, machine, coldestC } = row;
  const battery = batteryOf(row.battery);
  const coldC = vehicle ? Math.min(COLD_LEAST_C, coldestC ?? COLD_LEAST_C) : null;
  const entries = await entriesOfBattery(db, battery.id);
  return {
    battery,
    vehicleName: vehicle && vehicleName(vehicle),
    moves: await movesOf(db, battery.id),
    entries: entries.map(({ jobId, place, at, kind, volts, share, spread }) => ({
      jobId,
      battery: place,
      at: at.toISOString(),
      kind,
      volts,
      share,
      spread,
    })),
    coldC,
    needShare: machine && coldC !== null ? neededShare(machine, coldC, await houseRules(db)) : null,
  };
}
