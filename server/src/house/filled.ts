import { eq } from 'drizzle-orm';
import type { Tx } from '../db/database.js';
import { facts } from '../db/schema.js';

const FILLED = 'filled';

/** Whether this database has had its first content: nothing is put into it unasked after that. */
export async function isFilled(tx: Tx): Promise<boolean> {
  const [filled] = await tx.select().from(facts).where(eq(facts.key, FILLED));
  return filled !== undefined;
}

/** Keeps where its first content came from. */
export async function markFilled(tx: Tx, by: 'demo' | 'empty' | 'file'): Promise<void> {
  await tx.insert(facts).values({ key: FILLED, value: by }).onConflictDoNothing();
}
