import { randomUUID } from 'node:crypto';
import type { KitEntry, Van } from '@voltrek/contracts';
import { chargedTo, chargeOf, type KitCare, type KitUse, type MeasuredKit } from '@voltrek/core/job';
import { chargeNow, isCharged, type KitItem, kitNow } from '@voltrek/core/sources';
import { and, asc, eq, inArray, isNull, max } from 'drizzle-orm';
import type { Db, Tx } from '../db/database.js';
import { kitItems, kitMarks, kitUses, vans } from '../db/schema.js';
import { HttpProblem, notFound } from '../http/problem.js';

/** Returns the kit of a van as it is now: with the losses of rest and age. */
export async function kitOfVan(db: Db | Tx, vanId: string): Promise<KitItem[]> {
  const now = new Date();
  return ((await kitOfVans(db, [vanId]))[vanId] ?? []).map((item) => kitNow(item, now));
}

/** Returns the kit of vans, by van, as it was last written down of each item. */
export async function kitOfVans(
  db: Db | Tx,
  vanIds: readonly string[],
): Promise<Readonly<Record<string, readonly KitItem[]>>> {
  const rows = await db
    .select({ vanId: kitItems.vanId, detail: kitItems.detail })
    .from(kitItems)
    .where(and(inArray(kitItems.vanId, [...vanIds]), isNull(kitItems.retiredAt)))
    .orderBy(asc(kitItems.position));
  const byVan: Record<string, KitItem[]> = {};
  for (const { vanId, detail } of rows) (byVan[vanId] ??= []).push(detail);
  return byVan;
}

/** Every van with what it carries, those off the road included. */
export async function allVans(db: Db | Tx): Promise<Van[]> {
  const rows = await db.select().from(vans).orderBy(asc(vans.name), asc(vans.id));
  const items = await db
    .select()
    .from(kitItems)
    .where(isNull(kitItems.retiredAt))
    .orderBy(asc(kitItems.position));
  const open = await db.select().from(kitMarks).where(isNull(kitMarks.doneAt)).orderBy(asc(kitMarks.at));
  return rows.map(({ id, name, retiredAt }) => {
    const kit = items.filter((i) => i.vanId === id).map((i) => i.detail);
    const marks = open
      .filter((m) => kit.some((item) => item.id === m.kitItemId))
      .map(({ id: markId, kitItemId, need, jobId, at }) => ({
        id: markId,
        kitItemId,
        need,
        jobId,
        at: at.toISOString(),
      }));
    return { id, name, retired: retiredAt !== null, kit, marks };
  });
}

/** @throws HttpProblem 404 for a van nobody knows */
export async function requireVan(db: Db | Tx, id: string): Promise<void> {
  const [row] = await db.select({ id: vans.id }).from(vans).where(eq(vans.id, id));
  if (!row) throw notFound('van', id);
}

/** The van that a call is worked from when none is named: the first on the road, by name. */
export async function firstVan(db: Db | Tx): Promise<string> {
  const [row] = await db
    .select({ id: vans.id })
    .from(vans)
    .where(isNull(vans.retiredAt))
    .orderBy(asc(vans.name), asc(vans.id))
    .limit(1);
  if (!row) throw new HttpProblem(409, 'noVan');
  return row.id;
}

export async function addVan(tx: Tx, name: string): Promise<string> {
  const id = `van-${randomUUID().slice(0, 8)}`;
  await tx.insert(vans).values({ id, name });
  return id;
}

/** Typed just now: its charge is of now. */
export const knownAt = (item: KitItem, at: Date): KitItem =>
  isCharged(item) ? chargedTo(item, chargeOf(item), at) : item;

export async function addKitItem(
  tx: Tx,
  vanId: string,
  entry: KitEntry,
  id = `kit-${randomUUID().slice(0, 8)}`,
): Promise<void> {
  const [last] = await tx
    .select({ position: max(kitItems.position) })
    .from(kitItems)
    .where(eq(kitItems.vanId, vanId));
  const position = (last?.position ?? -1) + 1;
  await tx
    .insert(kitItems)
    .values({ id, vanId, position, detail: knownAt({ ...entry, id } as KitItem, new Date()) });
}

/** A piece of kit that is carried. @throws HttpProblem 404 */
export async function kitItemById(tx: Tx, id: string): Promise<KitItem> {
  const [row] = await tx
    .select()
    .from(kitItems)
    .where(and(eq(kitItems.id, id), isNull(kitItems.retiredAt)));
  if (!row) throw notFound('kit', id);
  return row.detail;
}

export async function writeKitItem(tx: Tx, item: KitItem): Promise<void> {
  await tx.update(kitItems).set({ detail: item }).where(eq(kitItems.id, item.id));
}

export async function retireKitItem(tx: Tx, id: string, at: Date): Promise<void> {
  await tx.update(kitItems).set({ retiredAt: at }).where(eq(kitItems.id, id));
}

/** Writes what a job has measured of lead sets. Call inside a transaction. */
export async function measureKit(tx: Tx, measured: readonly MeasuredKit[]): Promise<void> {
  for (const { id, kind, uses } of measured) {
    const item = await kitItemById(tx, id).catch(() => null);
    if (item?.kind === kind) await writeKitItem(tx, { ...item, ...(uses && { uses }) } as KitItem);
  }
}

/** Marks what a job's kit needs; a need that the job has marked before stays as it is. Call inside a transaction. */
export async function markKit(tx: Tx, care: readonly KitCare[], jobId: string, at: Date): Promise<void> {
  if (care.length === 0) return;
  await tx
    .insert(kitMarks)
    .values(care.map((mark) => ({ id: randomUUID(), jobId, at, ...mark })))
    .onConflictDoNothing();
}

/** A mark that is done, and what was done: the kit and its need. Null when there is no such open mark. */
export async function finishMark(
  tx: Tx,
  id: string,
  by: string,
  at: Date,
): Promise<{ kitItemId: string; need: KitCare['need'] } | null> {
  const [done] = await tx
    .update(kitMarks)
    .set({ doneBy: by, doneAt: at })
    .where(and(eq(kitMarks.id, id), isNull(kitMarks.doneAt)))
    .returning({ kitItemId: kitMarks.kitItemId, need: kitMarks.need });
  return done ?? null;
}

/** Fills a piece of kit that carries a charge, and closes what asked for it. */
export async function recharge(tx: Tx, item: KitItem, by: string, at: Date): Promise<void> {
  if (!isCharged(item)) throw new HttpProblem(409, 'carriesNoCharge');
  await writeKitItem(tx, chargedTo(item, 1, at));
  await tx
    .update(kitMarks)
    .set({ doneBy: by, doneAt: at })
    .where(and(eq(kitMarks.kitItemId, item.id), eq(kitMarks.need, 'recharge'), isNull(kitMarks.doneAt)));
}

/** Takes out of the kit what a job's log now says that it took, less what it said before: an undone try gives it back. */
export async function chargeKit(tx: Tx, jobId: string, uses: readonly KitUse[], at: Date): Promise<void> {
  const before = await tx.select().from(kitUses).where(eq(kitUses.jobId, jobId));
  const ids = new Set([...uses.map((u) => u.kitItemId), ...before.map((u) => u.kitItemId)]);
  for (const kitItemId of ids) {
    const share = uses.find((u) => u.kitItemId === kitItemId)?.share ?? 0;
    const known = before.find((u) => u.kitItemId === kitItemId)?.share ?? 0;
    if (share === known) continue;
    await tx
      .insert(kitUses)
      .values({ kitItemId, jobId, share, at })
      .onConflictDoUpdate({ target: [kitUses.kitItemId, kitUses.jobId], set: { share, at } });
    const item = await kitItemById(tx, kitItemId).then(
      (known) => chargeNow(known, at),
      () => null,
    );
    if (item && isCharged(item))
      await writeKitItem(tx, chargedTo(item, chargeOf(item) - (share - known), at));
  }
}
