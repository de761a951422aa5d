import { getTableColumns, type SQL, sql } from 'drizzle-orm';
import type { PgColumn, PgTable } from 'drizzle-orm/pg-core';
import type { Tx } from './database.js';

/** Rows that one statement carries. */
const ROWS_AT_ONCE = 200;

function* parts<T>(rows: readonly T[]): Generator<T[]> {
  for (let from = 0; from < rows.length; from += ROWS_AT_ONCE) yield rows.slice(from, from + ROWS_AT_ONCE);
}

/** Puts rows in, some at a time. */
export async function insertAll<T extends PgTable>(
  tx: Tx,
  table: T,
  rows: readonly T['$inferInsert'][],
): Promise<void> {
  for (const part of parts(rows)) await tx.insert(table).values(part);
}

/**
 * Puts rows in, or over those that stand under the same key, some at a time.
 *
 * @param rows each with the same fields, no two with the same key
 */
export async function upsert<T extends PgTable>(
  tx: Tx,
  table: T,
  key: PgColumn,
  rows: readonly T['$inferInsert'][],
): Promise<void> {
  for (const part of parts(rows))
    await tx
      .insert(table)
      .values(part)
      .onConflictDoUpdate({ target: key, set: excludedValues(table, Object.keys(part[0]!)) as never });
}

/**
 * An insert of rows that are sent as one parameter: the statement is the same for any count. So the database keeps it planned, and no
 * statement is built for each value. Fields that a row lacks are null: no default of the table is taken.
 */
export function insertInto<T extends PgTable>(table: T): (rows: readonly T['$inferInsert'][]) => SQL {
  const columns = Object.entries(getTableColumns(table));
  const into = columns.map(([, { name }]) => `"${name}"`).join(', ');
  const from = columns.map(([field]) => `"${field}"`).join(', ');
  const kinds = columns.map(([field, column]) => `"${field}" ${column.getSQLType()}`).join(', ');
  const head = sql`INSERT INTO ${table} (${sql.raw(into)}) SELECT ${sql.raw(from)}`;
  const given = sql.raw(`AS given (${kinds})`);
  return (rows) => sql`${head} FROM jsonb_to_recordset(${JSON.stringify(rows)}::jsonb) ${given}`;
}

/** How such an insert ends that takes the place of rows that stand under the same key. */
export function orOver(table: PgTable, key: PgColumn): SQL {
  const set = Object.values(getTableColumns(table))
    .filter(({ name }) => name !== key.name)
    .map(({ name }) => `"${name}" = excluded."${name}"`);
  return sql.raw(`ON CONFLICT ("${key.name}") DO UPDATE SET ${set.join(', ')}`);
}

/** The columns that a row takes over from the one that was to be inserted: its values are sent once. */
function excludedValues(table: PgTable, fields: readonly string[]): Readonly<Record<string, SQL>> {
  const columns = getTableColumns(table);
  return Object.fromEntries(fields.map((field) => [field, sql.raw(`excluded."${columns[field]!.name}"`)]));
}
