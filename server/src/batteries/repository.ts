import { randomInt } from 'node:crypto';
import {
  type Battery,
  type BatteryMove,
  type BatteryMoveKind,
  type BatteryState,
  vehicleNumbersOf,
} from '@voltrek/contracts';
import type { BatteryRating } from '@voltrek/core/battery';
import { and, asc, desc, eq, inArray } from 'drizzle-orm';
import type { Db, Tx } from '../db/database.js';
import { batteries, batteryEntries, batteryMoves, vehicles } from '../db/schema.js';

/** Signs of a label's code: none that is taken for another when it is read off a dirty case. */
const CODE_SIGNS = '23456789ABCDEFGHJKMNPQRSTUVWXYZ';
const CODE_LENGTH = 6;

/** A move as it is put down. */
export interface Move {
  readonly kind: BatteryMoveKind;
  readonly at: Date;
  readonly by: string;
  readonly vehicleId: string | null;
  readonly place: number | null;
  readonly vanId: string | null;
  readonly note?: string;
  readonly jobId?: string | null;
  readonly eventId?: string | null;
}

export async function batteryById(db: Db | Tx, id: string): Promise<Battery | null> {
  const [row] = await db.select().from(batteries).where(eq(batteries.id, id));
  return row ? batteryOf(row) : null;
}

/** The code on a label, however it was typed. */
export const codeOf = (typed: string): string => typed.toUpperCase().replace(/[^A-Z0-9]/g, '');

export async function batteryByCode(db: Db | Tx, code: string): Promise<Battery | null> {
  const [row] = await db
    .select()
    .from(batteries)
    .where(eq(batteries.code, codeOf(code)));
  return row ? batteryOf(row) : null;
}

/** Batteries in a vehicle now, from the chassis end. */
export async function batteriesIn(db: Db | Tx, vehicleId: string): Promise<Battery[]> {
  const rows = await db
    .select()
    .from(batteries)
    .where(and(eq(batteries.vehicleId, vehicleId), eq(batteries.state, 'fitted')))
    .orderBy(asc(batteries.place));
  return rows.map(batteryOf);
}

/** Spares of the vans and what stands at the depot. */
export async function looseBatteries(db: Db | Tx): Promise<Battery[]> {
  const rows = await db
    .select()
    .from(batteries)
    .where(inArray(batteries.state, ['on-van', 'depot']))
    .orderBy(asc(batteries.since));
  return rows.map(batteryOf);
}

export async function movesOf(db: Db | Tx, batteryId: string): Promise<BatteryMove[]> {
  const rows = await db
    .select({ move: batteryMoves, vehicle: vehicles })
    .from(batteryMoves)
    .leftJoin(vehicles, eq(vehicles.id, batteryMoves.vehicleId))
    .where(eq(batteryMoves.batteryId, batteryId))
    .orderBy(asc(batteryMoves.position));
  return rows.map(({ move, vehicle }) => {
    const { kind, at, by, vehicleId, place, vanId, note, jobId } = move;
    return {
      ...{ kind, at: at.toISOString(), by, vehicleId, place, vanId, note, jobId },
      vehicle: vehicle && vehicleNumbersOf(vehicle),
    };
  });
}

/** The moves that brought batteries into these vehicles, in the order in which they were written. */
export const movesInto = (
  db: Db | Tx,
  vehicleIds: readonly string[],
): Promise<(typeof batteryMoves.$inferSelect)[]> =>
  db
    .select()
    .from(batteryMoves)
    .where(and(inArray(batteryMoves.vehicleId, vehicleIds), inArray(batteryMoves.kind, ['met', 'fitted'])))
    .orderBy(asc(batteryMoves.position));

/** Returns the battery that sat in a place of a vehicle at a moment, by `movesInto`: the first known where none had come yet. */
export function batteryAt(
  moves: readonly Pick<typeof batteryMoves.$inferSelect, 'place' | 'at' | 'batteryId'>[],
  place: number,
  at: Date,
): string | undefined {
  const into = moves.filter((move) => move.place === place);
  return (into.filter((move) => move.at <= at).at(-1) ?? into[0])?.batteryId;
}

/** A new battery and the move that brings it into the record. */
export async function addBattery(
  tx: Tx,
  id: string,
  rating: BatteryRating,
  dateMark: string | null,
  first: Move,
): Promise<void> {
  const code = await freeCode(tx);
  await tx.insert(batteries).values({ id, code, rating, dateMark, ...placeAfter(first) });
  await tx.insert(batteryMoves).values({ batteryId: id, ...first });
}

/** Puts a move down and the battery where it leads. */
export async function moveBattery(tx: Tx, id: string, move: Move): Promise<void> {
  await tx.insert(batteryMoves).values({ batteryId: id, ...move });
  // A charge changes nothing of where it is.
  if (move.kind !== 'charged') await tx.update(batteries).set(placeAfter(move)).where(eq(batteries.id, id));
}

/** Takes back what an event moved. A battery that the event brought into the record goes with it. */
export async function unmove(tx: Tx, eventId: string): Promise<void> {
  const taken = await tx
    .delete(batteryMoves)
    .where(eq(batteryMoves.eventId, eventId))
    .returning({ batteryId: batteryMoves.batteryId });
  for (const { batteryId } of taken) {
    const left = await tx
      .select()
      .from(batteryMoves)
      .where(eq(batteryMoves.batteryId, batteryId))
      .orderBy(desc(batteryMoves.position));
    const last = left.find((move) => move.kind !== 'charged');
    if (last) await tx.update(batteries).set(placeAfter(last)).where(eq(batteries.id, batteryId));
    else {
      await tx.delete(batteryEntries).where(eq(batteryEntries.batteryId, batteryId));
      await tx.delete(batteries).where(eq(batteries.id, batteryId));
    }
  }
}

const STATE_AFTER: Record<BatteryMoveKind, BatteryState> = {
  met: 'fitted',
  fitted: 'fitted',
  'taken-out': 'depot',
  charged: 'depot',
  'to-van': 'on-van',
  gone: 'gone',
  scrapped: 'scrapped',
};

/** Returns the place of a battery after a move. */
function placeAfter({ kind, at, vehicleId, place, vanId }: Move) {
  const state = STATE_AFTER[kind];
  return {
    state,
    since: at,
    vehicleId: state === 'fitted' ? vehicleId : null,
    place: state === 'fitted' ? place : null,
    vanId: state === 'on-van' ? vanId : null,
  };
}

async function freeCode(tx: Tx): Promise<string> {
  for (;;) {
    const code = Array.from({ length: CODE_LENGTH }, () => CODE_SIGNS[randomInt(CODE_SIGNS.length)]).join('');
    if (!(await batteryByCode(tx, code))) return code;
  }
}

export function batteryOf({
  id,
  code,
  rating,
  dateMark,
  state,
  vehicleId,
  place,
  vanId,
  since,
}: typeof batteries.$inferSelect): Battery {
  return { id, code, rating, dateMark, state, vehicleId, place, vanId, since: since.toISOString() };
}
