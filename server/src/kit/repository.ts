import type { Van } from '@voltrek/contracts';
import type { KitItem } from '@voltrek/core';
import { asc, eq } from 'drizzle-orm';
import type { Db, Tx } from '../db/database.js';
import { kitItems, vans } from '../db/schema.js';

export async function kitOfVan(db: Db | Tx, vanId: string): Promise<KitItem[]> {
  const rows = await db
    .select()
    .from(kitItems)
    .where(eq(kitItems.vanId, vanId))
    .orderBy(asc(kitItems.position));
  return rows.map((row) => row.detail);
}

export async function allVans(db: Db): Promise<Van[]> {
  const rows = await db.select().from(vans).orderBy(asc(vans.id));
  return Promise.all(rows.map(async (van) => ({ ...van, kit: await kitOfVan(db, van.id) })));
}
