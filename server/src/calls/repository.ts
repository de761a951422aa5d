import {
  type BoardCall,
  type Call,
  type CallChange,
  type CallState,
  type NewCall,
  hasEnded,
  type NewCallChange,
  vehicleNumbersOf,
} from '@voltrek/contracts';
import { and, asc, desc, eq, gte, inArray, max, or } from 'drizzle-orm';
import type { Db, Tx } from '../db/database.js';
import { callChanges, calls, jobs, people, vehicles } from '../db/schema.js';
import { jobColumns, summaryOf } from '../jobs/repository.js';
import { addPerson, personOf } from '../people/repository.js';
import { HOUR_MS } from '@voltrek/core/quantities';

/** A call that ended stays on the board this long, so that the shift sees what it has done. */
const SHIFT_MS = 12 * HOUR_MS;

/** Tonight's calls, urgent first, then oldest; what ended in this shift last. */
export async function readBoard(db: Db | Tx): Promise<BoardCall[]> {
  const rows = await db
    .select({ call: calls, vehicle: vehicles, job: jobColumns, caller: people })
    .from(calls)
    .innerJoin(vehicles, eq(vehicles.id, calls.vehicleId))
    .leftJoin(jobs, eq(jobs.callId, calls.id))
    .leftJoin(people, eq(people.id, calls.callerId))
    .where(
      or(
        inArray(calls.state, ['waiting', 'taken']),
        and(
          inArray(calls.state, ['done', 'called-off']),
          gte(calls.endedAt, new Date(Date.now() - SHIFT_MS)),
        ),
      ),
    )
    .orderBy(desc(calls.urgent), calls.receivedAt);
  const board = rows.map(
    ({ call, vehicle, job, caller }): BoardCall => ({
      ...callOf(call),
      vehicle: vehicleNumbersOf(vehicle),
      caller: caller && personOf(caller),
      job: job && summaryOf(job),
    }),
  );
  return board.sort((a, b) => Number(hasEnded(a)) - Number(hasEnded(b)));
}

export async function callById(db: Db | Tx, id: string): Promise<Call | null> {
  const [row] = await db.select().from(calls).where(eq(calls.id, id));
  return row ? callOf(row) : null;
}

/** Puts a reported call on the board with the next number. */
export async function addCall(
  tx: Tx,
  { id, title, placeName, said, ambientC, urgent, caller, vanId, technicianId, promisedAt }: NewCall,
  vehicle: { readonly id: string; readonly modelId: string },
  at: Date,
): Promise<Call> {
  const [last] = await tx.select({ number: max(calls.number) }).from(calls);
  await tx.insert(calls).values({
    id,
    title,
    placeName,
    said,
    ambientC,
    urgent,
    number: (last?.number ?? 0) + 1,
    receivedAt: at,
    modelId: vehicle.modelId,
    vehicleId: vehicle.id,
    callerId: caller ? await addPerson(tx, caller, at) : null,
    vanId: vanId ?? null,
    technicianId: technicianId ?? null,
    promisedAt: promisedAt === undefined ? null : new Date(promisedAt),
  });
  return (await callById(tx, id))!;
}

/** Somebody opened the call's job: it is taken, by whom and from which van. */
export async function takenCall(
  tx: Tx,
  id: string,
  vanId: string,
  technicianId: string,
  at: Date,
): Promise<void> {
  await tx.update(calls).set({ state: 'taken', vanId, technicianId }).where(eq(calls.id, id));
  await tx
    .insert(callChanges)
    .values({ callId: id, kind: 'taken', at, by: technicianId, vanId, technicianId, reason: '' });
}

export async function endCall(tx: Tx, id: string, state: CallState, at: Date): Promise<void> {
  await tx.update(calls).set({ state, endedAt: at }).where(eq(calls.id, id));
}

const STATE_AFTER: Record<NewCallChange['kind'], CallState> = {
  taken: 'taken',
  'passed-on': 'taken',
  'given-back': 'waiting',
  'called-off': 'called-off',
  reopened: 'waiting',
};

/** Puts down who took, passed on or called off a call, and the call where that leads. */
export async function changeCall(tx: Tx, id: string, change: NewCallChange, at: Date): Promise<void> {
  const { promisedAt, ...told } = change;
  const { kind, vanId, technicianId } = told;
  const isAssigned = kind === 'taken' || kind === 'passed-on';
  await tx
    .update(calls)
    .set({
      state: STATE_AFTER[kind],
      endedAt: kind === 'called-off' ? at : null,
      ...(isAssigned && { vanId, technicianId }),
      ...(promisedAt !== undefined && { promisedAt: new Date(promisedAt) }),
      ...(kind === 'given-back' && { vanId: null, technicianId: null }),
    })
    .where(eq(calls.id, id));
  await tx.insert(callChanges).values({ callId: id, at, ...told });
}

/** Returns the changes of a call, oldest first. */
export async function changesOf(db: Db | Tx, id: string): Promise<CallChange[]> {
  const rows = await db
    .select()
    .from(callChanges)
    .where(eq(callChanges.callId, id))
    .orderBy(asc(callChanges.position));
  return rows.map(({ kind, at, by, vanId, technicianId, reason }) => ({
    kind,
    at: at.toISOString(),
    by,
    vanId,
    technicianId,
    reason,
  }));
}

function callOf({ receivedAt, promisedAt, endedAt: _endedAt, ...call }: typeof calls.$inferSelect): Call {
  return { ...call, receivedAt: receivedAt.toISOString(), promisedAt: promisedAt?.toISOString() ?? null };
}
