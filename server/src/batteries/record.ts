import { type BatteryRecord, UUID_PATTERN } from '@voltrek/contracts';
import { vehicleName } from '@voltrek/contracts/vehicle-name';
import { neededShare } from '@voltrek/core/verdict';
import { eq, min } from 'drizzle-orm';
import { modelById } from '../atlas/repository.js';
import type { Database } from '../db/database.js';
import { calls } from '../db/schema.js';
import { notFound } from '../http/problem.js';
import { houseRules } from '../rules/repository.js';
import { vehicleById } from '../vehicles/repository.js';
import { entriesOfBattery } from './of-job.js';
import { batteryByCode, batteryById, movesOf } from './repository.js';

/** Every battery must stand this cold, however mild its calls were, degC. */
const COLD_LEAST_C = -10;

/** A battery with its whole life, by its id or the code on its label. @throws HttpProblem 404 */
export async function batteryRecord({ db }: Database, named: string): Promise<BatteryRecord> {
  const battery = UUID_PATTERN.test(named) ? await batteryById(db, named) : await batteryByCode(db, named);
  if (!battery) throw notFound(`battery ${named}`);
  const vehicle = battery.vehicleId === null ? null : await vehicleById(db, battery.vehicleId);
  const machine = vehicle && (await modelById(db, vehicle.modelId));
  const [coldest] = vehicle
    ? await db
        .select({ tempC: min(calls.ambientC) })
        .from(calls)
        .where(eq(calls.vehicleId, vehicle.id))
    : [];
  const coldC = vehicle ? Math.min(COLD_LEAST_C, coldest?.tempC ?? COLD_LEAST_C) : null;
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
