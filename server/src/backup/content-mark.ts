import { sql } from 'drizzle-orm';
import type { Db } from '../db/database.js';
import { REACHED_KEY } from '../http/reach.js';

/** Tables that change while nobody changes anything of the house. */
const RESTLESS = ['sessions'];

/**
 * Returns a mark of everything that a house holds: another where any row of any table was written, changed or deleted. It reads every row, so
 * ask for it where a backup is due, not at each tap.
 */
export async function contentMark(db: Db): Promise<string> {
  const { rows: tables } = await db.execute<{ name: string }>(
    sql`SELECT tablename AS name FROM pg_tables WHERE schemaname = 'public' ORDER BY tablename`,
  );
  const marks: string[] = [];
  for (const { name } of tables) {
    if (RESTLESS.includes(name)) continue;
    const isCounted = name === 'facts' ? sql`WHERE key NOT LIKE ${`${REACHED_KEY}%`}` : sql``;
    const { rows } = await db.execute<{ count: string; newest: string | null }>(
      sql`SELECT count(*)::text AS count, max(xmin::text::bigint)::text AS newest FROM ${sql.identifier(name)} ${isCounted}`,
    );
    marks.push(`${name} ${rows[0]!.count} ${rows[0]!.newest ?? ''}`);
  }
  return marks.join('\n');
}
