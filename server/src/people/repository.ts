import { randomUUID } from 'node:crypto';
import type { Person, PersonEntry } from '@voltrek/contracts';
import { eq } from 'drizzle-orm';
import type { Db, Tx } from '../db/database.js';
import { calls, people, vehicles } from '../db/schema.js';

export async function addPerson(tx: Tx, { name, phone, noLetters }: PersonEntry, at: Date): Promise<string> {
  const id = randomUUID();
  await tx
    .insert(people)
    .values({ id, name, phone: phone || null, noLetters: noLetters ?? false, createdAt: at });
  return id;
}

export async function changePerson(
  tx: Tx,
  id: string,
  { name, phone, noLetters }: PersonEntry,
): Promise<void> {
  await tx
    .update(people)
    .set({ name, phone: phone || null, ...(noLetters !== undefined && { noLetters }) })
    .where(eq(people.id, id));
}

export async function personById(db: Db | Tx, id: string | null): Promise<Person | null> {
  const [row] = id === null ? [] : await db.select().from(people).where(eq(people.id, id));
  return row ? personOf(row) : null;
}

/** Vehicles that somebody owns. */
export async function vehiclesOf(db: Db | Tx, personId: string) {
  return db.select().from(vehicles).where(eq(vehicles.ownerId, personId));
}

/** Calls that somebody made. */
export async function callsBy(db: Db | Tx, personId: string) {
  return db.select().from(calls).where(eq(calls.callerId, personId));
}

export async function erasePerson(tx: Tx, id: string, at: Date): Promise<void> {
  await tx.update(people).set({ name: null, phone: null, erasedAt: at }).where(eq(people.id, id));
}

export function personOf({ id, name, phone, noLetters, erasedAt }: typeof people.$inferSelect): Person {
  return { id, name, phone, noLetters, erasedAt: erasedAt?.toISOString() ?? null };
}
