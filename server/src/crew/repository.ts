import type { CrewMember } from '@voltrek/contracts';
import { asc, eq } from 'drizzle-orm';
import type { Db, Tx } from '../db/database.js';
import { crew } from '../db/schema.js';

export async function allCrew(db: Db): Promise<CrewMember[]> {
  return db.select().from(crew).orderBy(asc(crew.id));
}

export async function crewExists(db: Db | Tx, id: string): Promise<boolean> {
  return (await db.select({ id: crew.id }).from(crew).where(eq(crew.id, id))).length > 0;
}
