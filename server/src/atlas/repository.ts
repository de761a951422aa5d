import type { KitItem, Machine } from '@voltrek/core';
import { asc, eq } from 'drizzle-orm';
import type { Db, Tx } from '../db/database.js';
import { machines } from '../db/schema.js';

export async function allMachines(db: Db): Promise<Machine[]> {
  const rows = await db.select().from(machines).orderBy(asc(machines.maker), asc(machines.model));
  return rows.map((row) => row.detail);
}

export async function machineById(db: Db | Tx, id: string): Promise<Machine | null> {
  const [row] = await db.select().from(machines).where(eq(machines.id, id));
  return row?.detail ?? null;
}

/** The atlas entry of the kit's donor vehicle; null when the kit has none. */
export async function donorOf(db: Db | Tx, kit: readonly KitItem[]): Promise<Machine | null> {
  const donor = kit.find((item) => item.kind === 'donor');
  return donor ? machineById(db, donor.machineId) : null;
}
