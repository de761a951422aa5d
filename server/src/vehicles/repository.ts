import { plateKeyOf, wordsOf } from '@voltrek/contracts/search-text';
import type { Vehicle, VehicleSummary } from '@voltrek/contracts';
import { and, asc, desc, eq, like, or, type SQL, sql } from 'drizzle-orm';
import type { Db, Tx } from '../db/database.js';
import { models, vehicles } from '../db/schema.js';
import { plainLike } from '../db/words.js';

type Row = typeof vehicles.$inferSelect;
const RESULTS_MOST = 20;
const WORDS_MOST = 6;
/** A plate with this share of its three-letter runs in common with what was typed may be meant: one wrong sign in seven leaves 0.3. */
const PLATE_LIKENESS = 0.25;
const PLATE_FUZZY_FROM = 4;
/** A text this long that is somebody's whole plate means that plate, not a part of another. */
const WHOLE_PLATE_FROM = 5;

/** Everything that a vehicle may be looked for by, in lower case, each word after a space. */
export function vehicleSearchText(
  { plate, fleetNumber, serialNumber }: Pick<Vehicle, 'plate' | 'fleetNumber' | 'serialNumber'>,
  modelName: string,
): string {
  return ['', plate && plateKeyOf(plate), fleetNumber, serialNumber, modelName]
    .filter((w) => w !== null)
    .join(' ')
    .toLowerCase();
}

export async function vehicleById(db: Db | Tx, id: string): Promise<Vehicle | null> {
  const [row] = await db.select().from(vehicles).where(eq(vehicles.id, id));
  return row ? vehicleOf(row) : null;
}

/** The vehicle with this plate, whatever blanks and letters it was typed in; null when nobody knows it. */
export async function vehicleByPlate(db: Db | Tx, plate: string): Promise<Vehicle | null> {
  const [row] = await db
    .select()
    .from(vehicles)
    .where(eq(vehicles.plateKey, plateKeyOf(plate)))
    .limit(1);
  return row ? vehicleOf(row) : null;
}

/** Matches a typed whole plate; undefined for a text too short to be one. */
export function isWholePlate(typed: string): SQL | undefined {
  const key = plateKeyOf(typed);
  return key.length < WHOLE_PLATE_FROM ? undefined : eq(vehicles.plateKey, key);
}

/**
 * Vehicles by plate, number, maker or model: a whole plate alone, otherwise what stands as typed first, then plates that differ by a slip
 * of the finger. Blanks and letter case do not matter.
 */
export async function searchVehicles(db: Db, typed: string): Promise<VehicleSummary[]> {
  const isWhole = isWholePlate(typed);
  const whole = isWhole ? await rows(db, isWhole, asc(vehicles.id)) : [];
  if (whole.length > 0) return whole;
  const key = plateKeyOf(typed);
  const words = wordsOf(typed, WORDS_MOST);
  const stands = words.map((word) => like(vehicles.searchText, `%${plainLike(word)}%`));
  const byPlate = key === '' ? undefined : like(vehicles.plateKey, `%${plainLike(key)}%`);
  const found = await rows(
    db,
    words.length === 0 ? undefined : or(and(...stands), byPlate),
    asc(vehicles.plateKey),
  );
  if (found.length > 0 || key.length < PLATE_FUZZY_FROM) return found;
  const near = sql`${key.toLowerCase()} <% ${vehicles.searchText}`;
  const likeness = sql`similarity(lower(${vehicles.plateKey}), ${key.toLowerCase()})`;
  return rows(db, or(near, sql`${likeness} > ${PLATE_LIKENESS}`), desc(likeness));
}

async function rows(db: Db, where: SQL | undefined, order: SQL): Promise<VehicleSummary[]> {
  const found = await db
    .select({ vehicle: vehicles, maker: models.maker, model: models.model })
    .from(vehicles)
    .innerJoin(models, eq(models.id, vehicles.modelId))
    .where(where)
    .orderBy(order)
    .limit(RESULTS_MOST);
  return found.map(({ vehicle, maker, model }) => ({
    ...vehicleOf(vehicle),
    modelName: `${maker} ${model}`,
  }));
}

/** Plates and notes of what somebody owns are forgotten with them. */
export async function erasePlates(tx: Tx, ownerId: string): Promise<void> {
  await tx
    .update(vehicles)
    .set({ plate: null, plateKey: null, notes: '', searchText: '' })
    .where(eq(vehicles.ownerId, ownerId));
}

export function vehicleOf({
  id,
  plate,
  fleetNumber,
  serialNumber,
  modelId,
  ownerId,
  notes,
  revision,
}: Row): Vehicle {
  return { id, plate, fleetNumber, serialNumber, modelId, ownerId, notes, revision };
}
