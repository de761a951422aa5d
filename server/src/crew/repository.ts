import type { CrewMember } from '@voltrek/contracts';
import { asc, eq } from 'drizzle-orm';
import type { Db, Tx } from '../db/database.js';
import { crew } from '../db/schema.js';
import { HttpProblem, notFound } from '../http/problem.js';

/** Everybody, those who left included: logs name them. */
export async function allCrew(db: Db | Tx): Promise<CrewMember[]> {
  const rows = await db.select().from(crew).orderBy(asc(crew.id));
  return rows.map(({ id, name, role, retiredAt }) => ({ id, name, role, retired: retiredAt !== null }));
}

/** Whether anybody works here: until then the house has not been set up. */
export async function hasCrew(db: Db | Tx): Promise<boolean> {
  return (await db.select({ id: crew.id }).from(crew).limit(1)).length > 0;
}

/** @throws HttpProblem 404 for somebody nobody knows, 403 for whoever is no crew lead */
export async function requireLead(db: Db | Tx, id: string): Promise<void> {
  const [row] = await db
    .select({ role: crew.role, retiredAt: crew.retiredAt })
    .from(crew)
    .where(eq(crew.id, id));
  if (!row) throw notFound('crewMember', id);
  if (row.role !== 'crew-lead' || row.retiredAt) throw new HttpProblem(403, 'notYourRole');
}

/** @throws HttpProblem 404 for somebody nobody knows */
export async function requireCrew(db: Db | Tx, id: string): Promise<Pick<CrewMember, 'role'>> {
  const [row] = await db.select({ role: crew.role }).from(crew).where(eq(crew.id, id));
  if (!row) throw notFound('crewMember', id);
  return row;
}
