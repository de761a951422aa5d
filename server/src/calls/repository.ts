import type { BoardCall, Call, NewCall } from '@voltrek/contracts';
import { desc, eq, gte, isNull, max, or } from 'drizzle-orm';
import type { Db, Tx } from '../db/database.js';
import { calls, jobs } from '../db/schema.js';
import { summaryOf } from '../jobs/repository.js';

/** A closed call stays on the board this long, so that the shift sees what it has done. */
const SHIFT_MS = 12 * 3_600_000;

/** Tonight's calls, urgent first, then oldest; closed ones of this shift last. */
export async function readBoard(db: Db): Promise<BoardCall[]> {
  const rows = await db
    .select()
    .from(calls)
    .leftJoin(jobs, eq(jobs.callId, calls.id))
    .where(or(isNull(jobs.id), eq(jobs.state, 'open'), gte(jobs.closedAt, new Date(Date.now() - SHIFT_MS))))
    .orderBy(desc(calls.urgent), calls.receivedAt);
  const board = rows.map(
    ({ calls: call, jobs: job }): BoardCall => ({
      ...callOf(call),
      job: job && summaryOf(job),
    }),
  );
  return board.sort((a, b) => Number(a.job?.state === 'closed') - Number(b.job?.state === 'closed'));
}

export async function callById(db: Db | Tx, id: string): Promise<Call | null> {
  const [row] = await db.select().from(calls).where(eq(calls.id, id));
  return row ? callOf(row) : null;
}

/** Puts a reported call on the board with the next number. A resend of the same id changes nothing. */
export async function addCall(db: Db, call: NewCall, now: Date): Promise<{ call: Call; isNew: boolean }> {
  return db.transaction(async (tx) => {
    const [known] = await tx.select().from(calls).where(eq(calls.id, call.id));
    if (known) return { call: callOf(known), isNew: false };
    const [last] = await tx.select({ number: max(calls.number) }).from(calls);
    const row = { ...call, number: (last?.number ?? 0) + 1, receivedAt: now };
    await tx.insert(calls).values(row);
    return { call: callOf(row), isNew: true };
  });
}

function callOf({ receivedAt, ...call }: typeof calls.$inferSelect): Call {
  return { ...call, receivedAt: receivedAt.toISOString() };
}
