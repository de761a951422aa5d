import { createHash } from 'node:crypto';
import { isDeepStrictEqual } from 'node:util';
import { type FileNoun, type ImportReport, type RowFault, ValidationError } from '@voltrek/contracts';
import { NOUN_ROWS, type NounRow, parseNounRow } from '@voltrek/contracts/noun-files';
import { requireCrew } from '../crew/repository.js';
import type { Database, Db, Tx } from '../db/database.js';
import { HttpProblem } from '../http/problem.js';
import { type Cells, cellsOf, columnsOf, rowOf } from './cells.js';
import { readCsvRows, writeCsvRows } from './csv-rows.js';
import { type DocumentForm, rowsOfDocument, writeDocument } from './document.js';
import { atFault, FAULTS_MOST, type FoundRow, rowFaults, textOf, turns } from './found-row.js';
import { NOUN_STORES, type NounWrite, REFERENCED, type Referenced } from './nouns.js';

/** How the file of a noun calls itself. */
export const formOf = (noun: FileNoun): DocumentForm => ({
  format: `voltrek-${noun}`,
  version: 1,
  list: 'rows',
});

/** The file of a noun as JSON, a row a line, in pieces as they are read. */
export const toJson = (db: Db, noun: FileNoun): AsyncGenerator<string> =>
  writeDocument(formOf(noun), NOUN_STORES[noun].rows(db));

/** The columns of a noun's CSV: which row it is, then the fields of it and of its list. */
export function csvColumns(noun: FileNoun): string[] {
  const { ofRow, ofKinds } = describedOf(noun);
  return [
    ...new Set(['row', ...columnsOf(ofRow), ...[...ofKinds.values()].flatMap((kind) => columnsOf(kind))]),
  ];
}

/** The fields of a noun's rows, and of the entries of its list by their kind; the kind is empty where it makes no difference. */
function describedOf(noun: FileNoun) {
  const { schema, list } = NOUN_ROWS[noun];
  const ofKinds = new Map(list?.kinds.map((kind) => [kind, list.schemaOf(kind)!.describe()]));
  const ofEntry = (kind: unknown) => ofKinds.get('') ?? ofKinds.get(String(kind));
  return { ofRow: schema.describe(), ofKinds, ofEntry };
}

/** The file of a noun as CSV: a line for a row, then one for each entry of its list. */
export async function* toCsv(db: Db, noun: FileNoun): AsyncGenerator<string> {
  const columns = csvColumns(noun);
  const { row: name, list } = NOUN_ROWS[noun];
  const { ofRow, ofEntry } = describedOf(noun);
  yield `${columns.join(',')}\n`;
  for await (const row of NOUN_STORES[noun].rows(db)) {
    const lines: Cells[] = [{ row: name, ...cellsOf(ofRow, row) }];
    if (list)
      for (const entry of row[list.field] as readonly NounRow[])
        lines.push({ row: list.row, ...cellsOf(ofEntry(entry.kind)!, entry) });
    yield writeCsvRows(lines, columns);
  }
}

/** Rows of a noun's CSV, unchecked, each when the next one begins. */
function* readCsv(noun: FileNoun, content: string, faults: RowFault[]): Generator<FoundRow> {
  const { row: name, list } = NOUN_ROWS[noun];
  const { ofRow, ofEntry } = describedOf(noun);
  let begun: (FoundRow & { readonly entries: unknown[]; readonly lines: number[] }) | null = null;
  for (const { cells, line } of readCsvRows(content, csvColumns(noun), ['row'], faults)) {
    const given = cells as Readonly<Record<string, string>>;
    if (given.row === name) {
      if (begun) yield begun;
      const entries: unknown[] = [];
      const lines: number[] = [];
      begun = {
        value: { ...rowOf(ofRow, given), ...(list && { [list.field]: entries }) },
        lineOf: (path) => lines[Number(/^[a-z]+\[(\d+)\]/i.exec(path)?.[1] ?? NaN)] ?? line,
        entries,
        lines,
      };
    } else if (list && given.row === list.row && begun) {
      const entry = ofEntry(given.kind);
      begun.entries.push(entry ? rowOf(entry, given) : { kind: given.kind });
      begun.lines.push(line);
    } else
      faults.push({
        line,
        path: 'row',
        message:
          list && given.row === list.row
            ? `a ${list.row} needs its ${name} above it`
            : `must be ${[name, ...(list ? [list.row] : [])].join(' or ')}`,
      });
  }
  if (begun) yield begun;
}

interface ReadRow {
  readonly row: NounRow;
  readonly lineOf: FoundRow['lineOf'];
}

/** Checked rows of a file, and what is wrong with it by line, up to the most that are told. Taps have their turn meanwhile. */
async function readRows(
  noun: FileNoun,
  upload: Uint8Array,
): Promise<{ rows: ReadRow[]; faults: RowFault[] }> {
  const text = textOf(upload);
  const faults: RowFault[] = [];
  const found = text.trimStart().startsWith('{')
    ? rowsOfDocument(text, formOf(noun), faults)
    : readCsv(noun, text, faults);
  const rows: ReadRow[] = [];
  const { unique, fault } = NOUN_STORES[noun];
  const seen = new Set<unknown>();
  const turn = turns();
  for (const { value, lineOf } of found) {
    if (faults.length >= FAULTS_MOST) break;
    await turn();
    try {
      const row = parseNounRow(noun, value);
      for (const field of ['id', ...(unique ? [unique.field] : [])]) {
        const key = `${field} ${String(row[field])}`;
        if (seen.has(key)) faults.push({ line: lineOf(field), path: field, message: `${key} stands twice` });
        seen.add(key);
      }
      const why = fault?.(row);
      if (why) faults.push({ line: lineOf(''), path: '', message: why });
      rows.push({ row, lineOf });
    } catch (error) {
      if (!(error instanceof ValidationError)) throw error;
      faults.push(...rowFaults(error, lineOf));
    }
  }
  return { rows, faults };
}

/** What a row of a file is beside what stands. */
type Standing = 'new' | 'changed' | 'same' | 'parted';

/**
 * A history only grows: a file that knows less of it than stands here is an older one and changes nothing, one that knows more goes on from
 * here, and one that tells it otherwise is refused.
 */
function standingOf(noun: FileNoun, row: NounRow, before: NounRow | undefined): Standing {
  if (!before) return 'new';
  if (isDeepStrictEqual(row, before)) return 'same';
  const list = NOUN_ROWS[noun].list;
  if (!list || noun === 'kit') return 'changed';
  const [given, known] = [row, before].map((of) => of[list.field] as readonly unknown[]) as [
    unknown[],
    unknown[],
  ];
  const both = Math.min(given.length, known.length);
  if (!isDeepStrictEqual(given.slice(0, both), known.slice(0, both))) return 'parted';
  return given.length < known.length ? 'same' : 'changed';
}

type LinedWrite = NounWrite & { readonly line: number };

interface Compared {
  readonly report: ImportReport;
  readonly writes: readonly LinedWrite[];
}

/** What a file would change. */
async function compare(
  db: Db | Tx,
  noun: FileNoun,
  { rows, faults: read }: { readonly rows: readonly ReadRow[]; readonly faults: readonly RowFault[] },
): Promise<Compared> {
  const store = NOUN_STORES[noun];
  const faults = [...read];
  const known = new Map<string, NounRow>();
  const { unique } = store;
  const taken = new Map<unknown, string>();
  const turn = turns();
  for (let from = 0; from < rows.length; from += ROWS_AT_ONCE) {
    const part = rows.slice(from, from + ROWS_AT_ONCE).map(({ row }) => row);
    for await (const row of store.rows(
      db,
      part.map(({ id }) => id as string),
    ))
      known.set(row.id as string, row);
    if (unique)
      for (const [value, holder] of await unique.holders(
        db,
        part.map((row) => row[unique.field]),
      ))
        taken.set(value, holder);
    // Answers of the embedded database come without a turn in between.
    await turn();
  }
  const there = new Map<Referenced, ReadonlySet<string>>();
  const added: string[] = [];
  const changed: { name: string; parts: string[] }[] = [];
  const writes: LinedWrite[] = [];
  const agreed = createHash('sha256');
  for (const { row, lineOf } of rows) {
    if (faults.length >= FAULTS_MOST) break;
    await turn();
    const before = known.get(row.id as string);
    const standing = standingOf(noun, row, before);
    const list = NOUN_ROWS[noun].list?.field ?? '';
    if (standing === 'parted')
      faults.push({
        line: lineOf(list),
        path: list,
        message: 'are told otherwise here: nothing of them is replaced',
      });
    const holder = unique && taken.get(row[unique.field]);
    if (holder && holder !== row.id)
      faults.push({
        line: lineOf(unique.field),
        path: unique.field,
        message: `${String(row[unique.field])} is taken by ${holder}`,
      });
    for (const [path, table, id] of store.names(row)) {
      if (id === null || id === undefined) continue;
      if (!there.has(table)) there.set(table, await idsOf(db, table));
      if (!there.get(table)!.has(id as string))
        faults.push({ line: lineOf(path), path, message: `there is no ${id as string} in ${WHERE[table]}` });
    }
    if (standing === 'new') added.push(store.nameOf(row));
    if (standing === 'changed') {
      const parts = Object.keys(row).filter((key) => !isDeepStrictEqual(row[key], before![key]));
      changed.push({ name: store.nameOf(row), parts });
    }
    if (standing === 'new' || standing === 'changed') {
      agreed.update(JSON.stringify([standing, before ?? null]));
      writes.push({ row, before: before ?? null, line: lineOf('') });
    }
  }
  faults.sort((a, b) => a.line - b.line);
  return {
    report: {
      added,
      changed,
      same: rows.length - writes.length,
      faults: faults.slice(0, FAULTS_MOST),
      basis: agreed.digest().readUIntBE(0, 6),
      applied: false,
    },
    writes,
  };
}

const ROWS_AT_ONCE = 500;
const WHERE: Readonly<Record<Referenced, string>> = {
  crew: 'the crew',
  models: 'the atlas',
  vans: 'the vans',
  vehicles: 'the vehicles',
  calls: 'the calls',
};

async function idsOf(db: Db | Tx, table: Referenced): Promise<ReadonlySet<string>> {
  const { id } = REFERENCED[table];
  const rows = await db.select({ id }).from(REFERENCED[table]);
  return new Set(rows.map((row) => row.id));
}

/** What importing this file would change, without changing anything. */
export async function previewNoun(db: Db, noun: FileNoun, upload: Uint8Array): Promise<ImportReport> {
  return (await compare(db, noun, await readRows(noun, upload))).report;
}

/**
 * Imports a file, all of it or nothing.
 *
 * @param basis of the preview that was agreed to
 * @throws HttpProblem 422 when any row is at fault, 409 when what stands changed since the preview
 */
export async function importNoun(
  { db }: Database,
  noun: FileNoun,
  upload: Uint8Array,
  by: string,
  basis: number,
): Promise<ImportReport> {
  const read = await readRows(noun, upload);
  return db.transaction(async (tx) => {
    await requireCrew(tx, by);
    const { report, writes } = await compare(tx, noun, read);
    if (report.faults.length > 0) throw atFault(report.faults);
    if (report.basis !== basis)
      throw new HttpProblem(409, 'What stands here changed since the preview. Look at the preview again.');
    const turn = turns();
    for (let from = 0; from < writes.length; from += ROWS_AT_ONCE) {
      const some = writes.slice(from, from + ROWS_AT_ONCE);
      try {
        await NOUN_STORES[noun].write(tx, some);
      } catch (error) {
        throw doesNotBelong(error, some);
      }
      await turn();
    }
    return { ...report, applied: true };
  });
}

/** The database keeps two of one id apart, whatever table they are in (SQLSTATE class 23), and tells which id it was. */
function doesNotBelong(error: unknown, writes: readonly LinedWrite[]): unknown {
  const cause = error instanceof Error && error.cause instanceof Error ? error.cause : error;
  const { code, detail } = (cause ?? {}) as { readonly code?: unknown; readonly detail?: unknown };
  if (!String(code).startsWith('23')) return error;
  const id = /=\((.+?)\)/.exec(String(detail))?.[1];
  const { line } = writes.find(({ row }) => id && JSON.stringify(row).includes(`"${id}"`)) ?? writes[0]!;
  return atFault([{ line, path: '', message: 'an id in it belongs to something else here' }]);
}
