import { hasEnded, type ShiftLeft } from '@voltrek/contracts';
import { DAY_MS } from '@voltrek/core/quantities';
import { readBoard } from '../calls/repository.js';
import type { Db, Tx } from '../db/database.js';
import { dueFollowUps } from '../followups/repository.js';
import { allVans } from '../vans/repository.js';

/** A recheck that is due later is no matter of the next shift, days. */
const RECHECKS_DAYS = 7;

/** Returns the open things of the house at this moment, from the same lists that their own pages show. */
export async function leftOver(db: Db | Tx, now: Date): Promise<ShiftLeft> {
  const board = await readBoard(db);
  const vans = (await allVans(db)).filter(({ retired }) => !retired);
  const last = new Date(now.getTime() + RECHECKS_DAYS * DAY_MS).toISOString().slice(0, 10);
  return {
    calls: board
      .filter((call) => !hasEnded(call))
      .map(({ number, title, placeName, vanId, technicianId, promisedAt, job }) => ({
        ...{ number, title, placeName, vanId, technicianId, promisedAt },
        jobId: job?.id ?? null,
        chargeUntil: job?.chargeUntil ?? null,
      })),
    kit: vans.flatMap(({ id: vanId, kit, marks }) => {
      const needs = new Map(
        marks.map(({ kitItemId, need }) => [`${kitItemId} ${need}`, { kitItemId, need }]),
      );
      return [...needs.values()].map(({ kitItemId, need }) => ({
        ...{ kitItemId, vanId, need },
        name: kit.find(({ id }) => id === kitItemId)?.name ?? kitItemId,
      }));
    }),
    rechecks: (await dueFollowUps(db, now)).filter(({ kind, dueOn }) => kind === 'recheck' && dueOn <= last),
  };
}
