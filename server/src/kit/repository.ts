import { randomUUID } from 'node:crypto';
import type { Van } from '@voltrek/contracts';
import type { KitCare, KitItem } from '@voltrek/core';
import { and, asc, eq, isNull } from 'drizzle-orm';
import type { Db, Tx } from '../db/database.js';
import { kitItems, kitMarks, vans } from '../db/schema.js';

export async function kitOfVan(db: Db | Tx, vanId: string): Promise<KitItem[]> {
  const rows = await db
    .select()
    .from(kitItems)
    .where(eq(kitItems.vanId, vanId))
    .orderBy(asc(kitItems.position));
  return rows.map((row) => row.detail);
}

export async function allVans(db: Db | Tx): Promise<Van[]> {
  const rows = await db.select().from(vans).orderBy(asc(vans.id));
  const open = await db.select().from(kitMarks).where(isNull(kitMarks.doneAt)).orderBy(asc(kitMarks.at));
  const marks = open.map(({ id, kitItemId, need, jobId, at }) => ({
    id,
    kitItemId,
    need,
    jobId,
    at: at.toISOString(),
  }));
  return Promise.all(
    rows.map(async (van) => {
      const kit = await kitOfVan(db, van.id);
      return { ...van, kit, marks: marks.filter((m) => kit.some((item) => item.id === m.kitItemId)) };
    }),
  );
}

/** Marks what a job's kit needs; a need that the job has marked before stays as it is. Call inside a transaction. */
export async function markKit(tx: Tx, care: readonly KitCare[], jobId: string, at: Date): Promise<void> {
  if (care.length === 0) return;
  await tx
    .insert(kitMarks)
    .values(care.map((mark) => ({ id: randomUUID(), jobId, at, ...mark })))
    .onConflictDoNothing();
}

/** Says that what a mark asks for is done; false when there is no such open mark. */
export async function finishMark(tx: Tx, id: string, by: string, at: Date): Promise<boolean> {
  const done = await tx
    .update(kitMarks)
    .set({ doneBy: by, doneAt: at })
    .where(and(eq(kitMarks.id, id), isNull(kitMarks.doneAt)))
    .returning({ id: kitMarks.id });
  return done.length > 0;
}
