import { type BatteryRecord, UUID_PATTERN, vehicleNumbersOf } from '@voltrek/contracts';
import type { BatteryEntry } from '@voltrek/core/job';
import { neededShare } from '@voltrek/core/verdict';
import { eq, sql } from 'drizzle-orm';
import type { Database } from '../db/database.js';
import { batteries, models, vehicles } from '../db/schema.js';
import { notFound } from '../http/problem.js';
import { houseRules } from '../rules/repository.js';
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
      // Within the one question: each of its own costs as much again as what it asks.
      entries: sql<BatteryEntry[]>`(
        SELECT coalesce(json_agg(json_build_object('jobId', e.job_id, 'battery', e.place, 'at', e.at, 'kind', e.kind,
          'volts', e.volts, 'share', e.share, 'spread', e.spread) ORDER BY e.at, e.position), '[]')
        FROM battery_entries e WHERE e.battery_id = ${batteries.id})`,
    })
    .from(batteries)
    .leftJoin(vehicles, eq(vehicles.id, batteries.vehicleId))
    .leftJoin(models, eq(models.id, vehicles.modelId))
    .where(isNamed);
  if (!row) throw notFound('battery', named);
  const { vehicle, machine, coldestC, entries } = row;
  const battery = batteryOf(row.battery);
  const coldC = vehicle ? Math.min(COLD_LEAST_C, coldestC ?? COLD_LEAST_C) : null;
  return {
    battery,
    vehicle: vehicle && vehicleNumbersOf(vehicle),
    moves: await movesOf(db, battery.id),
    entries: entries.map((entry) => ({ ...entry, at: new Date(entry.at).toISOString() })),
    coldC,
    needShare: machine && coldC !== null ? neededShare(machine, coldC, await houseRules(db)) : null,
  };
}
