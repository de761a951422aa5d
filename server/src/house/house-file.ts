import { createReadStream, createWriteStream } from 'node:fs';
import { createInterface } from 'node:readline';
import { once } from 'node:events';
import { parseStoredEvent, ValidationError } from '@voltrek/contracts';
import { foldJob } from '@voltrek/core/job';
import type { Machine } from '@voltrek/core/machine';
import { asc, getTableColumns, sql, type SQL, type SQLWrapper } from 'drizzle-orm';
import type { Db, Tx } from '../db/database.js';
import { jobs } from '../db/schema.js';
import { causeOf } from '../db/errors.js';
import { modelById } from '../atlas/repository.js';
import { hasCrew } from '../crew/repository.js';
import { readEvents } from '../jobs/repository.js';
import { rewriteRow, writeRecord } from '../jobs/whole-log.js';
import { markFilled } from './filled.js';
import { HOUSE_TABLES, type HouseTable, rowFromFile, rowToFile } from './tables.js';

export const HOUSE_FORMAT = 'voltrek-house';
export const HOUSE_VERSION = 1;
const ROWS_AT_ONCE = 500;

/** A file that is no house, or not wholly one; the message names the line. */
export class HouseFileError extends Error {
  constructor(line: number, message: string) {
    super(`Line ${line}: ${message}. Nothing was brought in.`);
    this.name = 'HouseFileError';
  }
}

/**
 * Everything that a house is, as lines of JSON: a head, then a line for each row, each table behind those that it names.
 *
 * @returns how many rows of each table were written
 */
export async function exportHouse(db: Db | Tx, path: string): Promise<Readonly<Record<string, number>>> {
  const out = createWriteStream(path, { flags: 'wx' });
  const say = async (line: unknown): Promise<void> => {
    if (!out.write(`${JSON.stringify(line)}\n`)) await once(out, 'drain');
  };
  await say({ format: HOUSE_FORMAT, version: HOUSE_VERSION });
  const counts: Record<string, number> = {};
  for (const part of HOUSE_TABLES) {
    counts[part.name] = 0;
    for await (const row of rowsOf(db, part)) {
      await say({ table: part.name, row: rowToFile(part, row) });
      counts[part.name]!++;
    }
  }
  out.end();
  await once(out, 'finish');
  return counts;
}

/** The rows of a table in order of their key, a page at a time; each page begins behind the last row, however deep it lies. */
async function* rowsOf(
  db: Db | Tx,
  { table, key }: HouseTable,
): AsyncGenerator<Readonly<Record<string, unknown>>> {
  const all = getTableColumns(table);
  const columns = key.map((name) => all[name]!);
  const tuple = (parts: readonly SQLWrapper[]): SQL => sql`(${sql.join([...parts], sql`, `)})`;
  let last: Readonly<Record<string, unknown>> | undefined;
  do {
    const behind = last && tuple(key.map((name, i) => sql.param(last![name], columns[i])));
    const page: Readonly<Record<string, unknown>>[] = await db
      .select()
      .from(table)
      .where(behind && sql`${tuple(columns)} > ${behind}`)
      .orderBy(...columns.map((column) => asc(column)))
      .limit(ROWS_AT_ONCE);
    yield* page;
    last = page.length === ROWS_AT_ONCE ? page.at(-1) : undefined;
  } while (last);
}

/**
 * Brings a house in from its file, into a data folder that nobody works in yet: all of it or nothing. Logs of any earlier version are put
 * into today's words; lists and records are made from them.
 *
 * @param andThen what else must come with it, or nothing comes
 * @throws HouseFileError for a file that is not one, is cut off, or holds a row that does not belong
 */
export async function importHouse(
  db: Db,
  path: string,
  andThen?: (tx: Tx) => Promise<unknown>,
): Promise<Readonly<Record<string, number>>> {
  return db.transaction(async (tx) => {
    if (await hasCrew(tx))
      throw new HouseFileError(1, 'somebody works in this house already: bring it into an empty data folder');
    // The templates of unknown machines come with the program, and with the file.
    await tx.execute(sql`TRUNCATE models CASCADE`);
    const counts: Record<string, number> = {};
    let line = 0;
    let last = -1;
    for await (const text of createInterface({ input: createReadStream(path), crlfDelay: Infinity })) {
      line++;
      const parsed = parsedLine(text, line);
      if (line === 1) {
        if (parsed.format !== HOUSE_FORMAT || parsed.version !== HOUSE_VERSION)
          throw new HouseFileError(1, `must say {"format":"${HOUSE_FORMAT}","version":${HOUSE_VERSION}}`);
        continue;
      }
      const at = HOUSE_TABLES.findIndex(({ name }) => name === parsed.table);
      if (at < 0) throw new HouseFileError(line, `there is no table ${JSON.stringify(parsed.table)}`);
      if (at < last)
        throw new HouseFileError(line, `${HOUSE_TABLES[at]!.name} comes before ${HOUSE_TABLES[last]!.name}`);
      last = at;
      await bringRow(tx, at, parsed.row, line);
      counts[HOUSE_TABLES[at]!.name] = (counts[HOUSE_TABLES[at]!.name] ?? 0) + 1;
    }
    if (line === 0) throw new HouseFileError(1, 'the file is empty');
    await makeRecords(tx);
    await markFilled(tx, 'file');
    await andThen?.(tx);
    return counts;
  });
}

function parsedLine(text: string, line: number): Readonly<Record<string, unknown>> {
  try {
    const parsed: unknown = JSON.parse(text);
    if (typeof parsed === 'object' && parsed !== null) return parsed as Readonly<Record<string, unknown>>;
  } catch {
    // Reported below.
  }
  throw new HouseFileError(line, 'is no JSON: the file is cut off there or was changed');
}

async function bringRow(tx: Tx, at: number, given: unknown, line: number): Promise<void> {
  const part = HOUSE_TABLES[at]!;
  try {
    const row = rowFromFile(part, (given ?? {}) as Readonly<Record<string, unknown>>);
    if (part.name === 'job_events') {
      const {
        position: _position,
        heardAt: _heardAt,
        sentBy: _sentBy,
        ...event
      } = given as Readonly<Record<string, unknown>>;
      parseStoredEvent(event);
    }
    // Columns that are made from the logs are filled in afterwards; until then they must only be there.
    await tx.insert(part.table).values((part.name === 'jobs' ? { ...row, searchText: '' } : row) as never);
  } catch (error) {
    if (error instanceof RangeError) throw new HouseFileError(line, `${part.name}: ${error.message}`);
    if (error instanceof ValidationError)
      throw new HouseFileError(line, `${part.name}: ${error.errors.join('; ')}`);
    const cause = causeOf(error);
    throw new HouseFileError(
      line,
      `${part.name}: ${cause instanceof Error ? cause.message : 'does not belong'}`,
    );
  }
}

/** Rows, battery entries and promises of every job, from its log. */
async function makeRecords(tx: Tx): Promise<void> {
  const models = new Map<string, Machine>();
  const rows = await tx.select({ id: jobs.id, vehicleId: jobs.vehicleId, vanId: jobs.vanId }).from(jobs);
  for (const { id, ...of } of rows) {
    const job = foldJob(await readEvents(tx, id));
    if (!job) continue;
    const machine = models.get(job.modelId) ?? (await modelById(tx, job.modelId));
    if (!machine) continue;
    models.set(job.modelId, machine);
    const kept = { ...of, job };
    await rewriteRow(tx, kept, machine);
    await writeRecord(tx, kept, machine);
  }
}
