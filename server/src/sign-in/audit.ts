import type { AuditLine } from '@voltrek/contracts';
import { desc } from 'drizzle-orm';
import type { Db, Tx } from '../db/database.js';
import { audit } from '../db/schema.js';

const LINES_MOST = 200;

/** Logs a sign-in act, or one with a lead's or a finder's rights. @param by null for somebody who did not sign in */
export async function note(
  db: Db | Tx,
  by: string | null,
  kind: AuditLine['kind'],
  about: string,
): Promise<void> {
  await db.insert(audit).values({ at: new Date(), by, kind, about });
}

/** Newest first. */
export async function newestNotes(db: Db | Tx): Promise<AuditLine[]> {
  const rows = await db.select().from(audit).orderBy(desc(audit.position)).limit(LINES_MOST);
  return rows.map((row) => ({ ...row, at: row.at.toISOString() }));
}
