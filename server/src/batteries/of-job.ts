import { randomUUID } from 'node:crypto';
import { MOVE_NOTES } from '@voltrek/contracts';
import { batteryEntries as entriesOf, type Job, type JobEvent, timeOf } from '@voltrek/core/job';
import type { Machine } from '@voltrek/core/machine';
import { asc, eq } from 'drizzle-orm';
import type { Tx } from '../db/database.js';
import { batteryEntries } from '../db/schema.js';
import {
  addBattery,
  batteriesIn,
  batteryAt,
  batteryById,
  type Move,
  moveBattery,
  movesInto,
  unmove,
} from './repository.js';

/** Events after which the record of the batteries may say something else. */
const TELLING: readonly JobEvent['type'][] = [
  'reading.taken',
  'reading.withdrawn',
  'finding.recorded',
  'attempt.ended',
  'battery.found',
  'battery.replaced',
  'follow-up.done',
  'recheck.taken',
  'model.identified',
  'event.undone',
];

/** Whether the record of the batteries may say something else after an event of this type. */
export const tellsOfBatteries = (type: JobEvent['type']): boolean => TELLING.includes(type);

/** Events that bring batteries into the record, move them, or put them back. */
const MOVING: readonly JobEvent['type'][] = [
  'job.opened',
  'model.identified',
  'battery.found',
  'battery.replaced',
  'follow-up.done',
  'event.undone',
];

/** Whether an event of this type says where batteries are, which other jobs of the vehicle rely on. */
export const movesBatteries = (type: JobEvent['type']): boolean => MOVING.includes(type);

/** Brings the batteries of a job's vehicle up to what one more event of it says. */
export async function projectBatteries(
  tx: Tx,
  job: Job,
  machine: Machine,
  vehicleId: string,
  event: JobEvent,
): Promise<void> {
  await projectMoves(tx, job, machine, vehicleId, event);
  if (tellsOfBatteries(event.type)) await writeEntries(tx, job, machine, vehicleId);
}

/** Batteries that an event brings into the record, moves, or puts back. */
export async function projectMoves(
  tx: Tx,
  job: Pick<Job, 'id' | 'openedAt'>,
  machine: Machine,
  vehicleId: string,
  event: JobEvent,
): Promise<void> {
  if (!movesBatteries(event.type)) return;
  const at = new Date(timeOf(event));
  const of = { by: event.by, jobId: job.id, eventId: event.id, at } as const;
  switch (event.type) {
    case 'job.opened':
    case 'model.identified':
      await meetBatteries(tx, machine, vehicleId, of);
      break;
    case 'battery.found': {
      const { battery: place, rating, dateMark = null } = event.data;
      // It sat there when the job was opened, so each reading of the job is its own: `writeEntries` puts them down anew.
      await tx.delete(batteryEntries).where(eq(batteryEntries.jobId, job.id));
      const then = { ...of, at: new Date(job.openedAt) };
      await removeAt(tx, vehicleId, place, 'gone', then);
      await addBattery(tx, event.id, rating, dateMark, {
        ...then,
        kind: 'met',
        vehicleId,
        place,
        vanId: null,
      });
      break;
    }
    case 'battery.replaced': {
      const { battery: place, rating, batteryId, dateMark = null } = event.data;
      await removeAt(tx, vehicleId, place, 'taken-out', of);
      const known = batteryId ? await batteryById(tx, batteryId) : null;
      const move = fitted(vehicleId, place, of);
      if (known) await moveBattery(tx, known.id, move);
      else await addBattery(tx, batteryId ?? event.id, rating, dateMark, move);
      break;
    }
    case 'follow-up.done':
      if (event.data.kind === 'replace')
        for (const [place, { rating }] of machine.batteries.entries()) {
          await removeAt(tx, vehicleId, place, 'taken-out', of);
          const move = { ...fitted(vehicleId, place, of), note: MOVE_NOTES.isPromised };
          await addBattery(tx, randomUUID(), rating, null, move);
        }
      break;
    case 'event.undone':
      await unmove(tx, event.data.eventId);
      break;
    default:
  }
}

interface Of {
  readonly by: string;
  readonly jobId: string;
  readonly eventId: string;
  readonly at: Date;
}

const fitted = (vehicleId: string, place: number, of: Of): Move => ({
  ...of,
  kind: 'fitted',
  vehicleId,
  place,
  vanId: null,
});

/** A vehicle that comes for the first time has batteries, and each is one from then on. */
async function meetBatteries(tx: Tx, machine: Machine, vehicleId: string, of: Of): Promise<void> {
  const known = await batteriesIn(tx, vehicleId);
  for (const [place, { rating }] of machine.batteries.entries()) {
    if (known.some((b) => b.place === place)) continue;
    await addBattery(tx, randomUUID(), rating, null, { ...of, kind: 'met', vehicleId, place, vanId: null });
  }
}

async function removeAt(
  tx: Tx,
  vehicleId: string,
  place: number,
  kind: 'taken-out' | 'gone',
  of: Of,
): Promise<void> {
  for (const old of (await batteriesIn(tx, vehicleId)).filter((b) => b.place === place))
    await moveBattery(tx, old.id, { ...of, kind, vehicleId, place, vanId: null });
}

/** Returns the job's entries on batteries, each at the battery that sat in its place then. */
export async function writeEntries(tx: Tx, job: Job, machine: Machine, vehicleId: string): Promise<void> {
  const entries = entriesOf(job, machine);
  const stood = await tx
    .select()
    .from(batteryEntries)
    .where(eq(batteryEntries.jobId, job.id))
    .orderBy(asc(batteryEntries.position));
  const same = (i: number): boolean => {
    const a = entries[i];
    const b = stood[i];
    if (!a || !b) return false;
    const isSame = a.kind === b.kind && a.battery === b.place && a.volts === b.volts && a.share === b.share;
    return isSame && Date.parse(a.at) === b.at.getTime();
  };
  let kept = 0;
  while (same(kept)) kept++;
  for (const { position } of stood.slice(kept))
    await tx.delete(batteryEntries).where(eq(batteryEntries.position, position));
  const added = entries.slice(kept);
  if (added.length === 0) return;
  const moves = await movesInto(tx, [vehicleId]);
  const rows = added.flatMap(({ battery: place, at, kind, volts, share, spread }) => {
    const batteryId = batteryAt(moves, place, new Date(at));
    return batteryId
      ? [{ batteryId, jobId: job.id, place, at: new Date(at), kind, volts, share, spread }]
      : [];
  });
  if (rows.length > 0) await tx.insert(batteryEntries).values(rows);
}
