import type { FaultCode } from '@voltrek/contracts/words';
import { createHash } from 'node:crypto';
import { isDeepStrictEqual } from 'node:util';
import {
  faultAt,
  type FaultParams,
  type FileResource,
  type ImportReport,
  type RowFault,
  ValidationError,
} from '@voltrek/contracts';
import { RESOURCE_ROWS, type ResourceRow, parseResourceRow } from '@voltrek/contracts/resource-files';
import { requireCrew } from '../crew/repository.js';
import type { Database, Db, Tx } from '../db/database.js';
import { causeOf, codeOf } from '../db/errors.js';
import { HttpProblem } from '../http/problem.js';
import { type Cells, cellsOf, columnsOf, rowOf } from './cells.js';
import { readCsvRows, writeCsvRows } from './csv-rows.js';
import { type DocumentForm, rowsOfDocument, writeDocument } from './document.js';
import { atFault, FAULTS_MOST, type FoundRow, rowFaults, turns } from './found-row.js';
import { RESOURCE_STORES, REFERENCED, type Referenced } from './resources.js';
import { batchesOf, Spool } from './spool.js';
import { beginsAsJson, type TextWindow } from './text-window.js';

/** How the file of a resource calls itself. */
export const formOf = (resource: FileResource): DocumentForm => ({
  format: `voltrek-${resource}`,
  version: 1,
  list: 'rows',
});

/** The file of a resource as JSON, a row a line, in pieces as they are read. */
export const toJson = (db: Db, resource: FileResource): AsyncGenerator<string> =>
  writeDocument(formOf(resource), RESOURCE_STORES[resource].rows(db));

/** The columns of a resource's CSV: which row it is, then the fields of it and of its list. */
export function csvColumns(resource: FileResource): string[] {
  const { ofRow, ofKinds } = describedOf(resource);
  return [
    ...new Set(['row', ...columnsOf(ofRow), ...[...ofKinds.values()].flatMap((kind) => columnsOf(kind))]),
  ];
}

/** The fields of a resource's rows, and of the entries of its list by their kind; the kind is empty where it makes no difference. */
function describedOf(resource: FileResource) {
  const { schema, list } = RESOURCE_ROWS[resource];
  const ofKinds = new Map(list?.kinds.map((kind) => [kind, list.schemaOf(kind)!.describe()]));
  const ofEntry = (kind: unknown) => ofKinds.get('') ?? ofKinds.get(String(kind));
  return { ofRow: schema.describe(), ofKinds, ofEntry };
}

/** The file of a resource as CSV: a line for a row, then one for each entry of its list. */
export async function* toCsv(db: Db, resource: FileResource): AsyncGenerator<string> {
  const columns = csvColumns(resource);
  const { row: name, list } = RESOURCE_ROWS[resource];
  const { ofRow, ofEntry } = describedOf(resource);
  yield `${columns.join(',')}\n`;
  for await (const row of RESOURCE_STORES[resource].rows(db)) {
    const lines: Cells[] = [{ row: name, ...cellsOf(ofRow, row) }];
    if (list)
      for (const entry of row[list.field] as readonly ResourceRow[])
        lines.push({ row: list.row, ...cellsOf(ofEntry(entry.kind)!, entry) });
    yield writeCsvRows(lines, columns);
  }
}

/** Rows of a resource's CSV, unchecked, each when the next one begins. */
async function* readCsv(
  resource: FileResource,
  window: TextWindow,
  faults: RowFault[],
): AsyncGenerator<FoundRow> {
  const { row: name, list } = RESOURCE_ROWS[resource];
  const { ofRow, ofEntry } = describedOf(resource);
  let begun: (FoundRow & { readonly entries: unknown[]; readonly lines: number[] }) | null = null;
  for await (const { cells, line } of readCsvRows(window, csvColumns(resource), ['row'], faults)) {
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
        ...(list && given.row === list.row
          ? faultAt('row', 'needsAbove', { part: list.row, whole: name })
          : faultAt('row', 'oneOf', { values: [name, ...(list ? [list.row] : [])].join(', ') })),
      });
  }
  if (begun) yield begun;
}

interface ReadRow {
  readonly row: ResourceRow;
  readonly lineOf: FoundRow['lineOf'];
}

/** Checked rows of a file, one by one as it is read, up to the most faults that are listed. Taps have their turn meanwhile. */
async function* readRows(
  resource: FileResource,
  window: TextWindow,
  faults: RowFault[],
): AsyncGenerator<ReadRow> {
  const found = (await beginsAsJson(window))
    ? rowsOfDocument(window, formOf(resource), faults)
    : readCsv(resource, window, faults);
  const { unique, fault } = RESOURCE_STORES[resource];
  const seen = new Set<unknown>();
  const turn = turns();
  for await (const { value, lineOf } of found) {
    if (faults.length >= FAULTS_MOST) return;
    await turn();
    try {
      const row = parseResourceRow(resource, value);
      for (const field of ['id', ...(unique ? [unique.field] : [])]) {
        const key = `${field} ${String(row[field])}`;
        if (seen.has(key)) faults.push({ line: lineOf(field), ...faultAt(field, 'twice', { key }) });
        seen.add(key);
      }
      const why = fault?.(row);
      if (why) faults.push({ line: lineOf(''), ...why });
      yield { row, lineOf };
    } catch (error) {
      if (!(error instanceof ValidationError)) throw error;
      faults.push(...rowFaults(error, lineOf));
    }
  }
}

/** The state of a row of a file beside the rows that stand. */
type RowState = 'new' | 'changed' | 'same' | 'parted';

/**
 * A history only grows: an older file changes nothing, a newer one continues from here, and one that contradicts this is refused.
 */
function stateOf(resource: FileResource, row: ResourceRow, before: ResourceRow | null): RowState {
  if (!before) return 'new';
  if (isDeepStrictEqual(row, before)) return 'same';
  const list = RESOURCE_ROWS[resource].list;
  if (!list || resource === 'kit') return 'changed';
  const [given, known] = [row, before].map((of) => of[list.field] as readonly unknown[]) as [
    unknown[],
    unknown[],
  ];
  const both = Math.min(given.length, known.length);
  if (!isDeepStrictEqual(given.slice(0, both), known.slice(0, both))) return 'parted';
  return given.length < known.length ? 'same' : 'changed';
}

/** A row that a file would change, by the line it stands in. */
interface ChangedRow {
  readonly row: ResourceRow;
  readonly line: number;
}

/** Returns the rows that stand in the places of these. */
async function currentRows(
  db: Db | Tx,
  resource: FileResource,
  rows: readonly ResourceRow[],
): Promise<Map<string, ResourceRow>> {
  const known = new Map<string, ResourceRow>();
  const ids = rows.map(({ id }) => id as string);
  for await (const row of RESOURCE_STORES[resource].rows(db, ids)) known.set(row.id as string, row);
  return known;
}

/** A number for what is changed and what stood there before: another one when that is another. */
function agreement() {
  const hash = createHash('sha256');
  return {
    add: (before: ResourceRow | null): void => void hash.update(JSON.stringify(before)),
    basis: (): number => hash.digest().readUIntBE(0, 6),
  };
}

/**
 * Returns the changes of a file. Taps have their turn meanwhile.
 *
 * @param take is handed the rows that are new or differ, some at a time
 */
async function compare(
  db: Db,
  resource: FileResource,
  window: TextWindow,
  take: (rows: readonly ChangedRow[]) => Promise<void>,
): Promise<ImportReport> {
  const store = RESOURCE_STORES[resource];
  const { unique } = store;
  const list = RESOURCE_ROWS[resource].list?.field ?? '';
  const faults: RowFault[] = [];
  const there = new Map<Referenced, ReadonlySet<string>>();
  const added: string[] = [];
  const changed: { name: string; parts: string[] }[] = [];
  const agreed = agreement();
  let same = 0;
  const turn = turns();
  for await (const some of batchesOf(readRows(resource, window, faults), ROWS_AT_ONCE)) {
    if (faults.length >= FAULTS_MOST) break;
    const rows = some.map(({ row }) => row);
    const known = await currentRows(db, resource, rows);
    const taken = unique
      ? await unique.holders(
          db,
          rows.map((row) => row[unique.field]),
        )
      : new Map<unknown, string>();
    const changes: ChangedRow[] = [];
    for (const { row, lineOf } of some) {
      // Answers of the embedded database come without a turn in between.
      await turn();
      const before = known.get(row.id as string) ?? null;
      const stands = stateOf(resource, row, before);
      const addFault = (path: string, code: FaultCode, params: FaultParams = {}): void => {
        faults.push({ line: lineOf(path), ...faultAt(path, code, params) });
      };
      if (stands === 'parted') addFault(list, 'differsHere');
      const holder = unique && taken.get(row[unique.field]);
      if (holder && holder !== row.id)
        addFault(unique.field, 'taken', { value: String(row[unique.field]), holder });
      for (const [path, table, id] of store.names(row)) {
        if (id === null || id === undefined) continue;
        if (!there.has(table)) there.set(table, await idsOf(db, table));
        if (!there.get(table)!.has(id as string)) addFault(path, 'noSuch', { id: id as string, list: table });
      }
      if (stands === 'same') same++;
      if (stands === 'new') added.push(store.nameOf(row));
      if (stands === 'changed') {
        const parts = Object.keys(row).filter((key) => !isDeepStrictEqual(row[key], before![key]));
        changed.push({ name: store.nameOf(row), parts });
      }
      if (stands !== 'new' && stands !== 'changed') continue;
      agreed.add(before);
      changes.push({ row, line: lineOf('') });
    }
    if (faults.length === 0) await take(changes);
  }
  faults.sort((a, b) => a.line - b.line);
  return {
    added,
    changed,
    same,
    faults: faults.slice(0, FAULTS_MOST),
    basis: agreed.basis(),
    applied: false,
  };
}

const ROWS_AT_ONCE = 500;
async function idsOf(db: Db | Tx, table: Referenced): Promise<ReadonlySet<string>> {
  const { id } = REFERENCED[table];
  const rows = await db.select({ id }).from(REFERENCED[table]);
  return new Set(rows.map((row) => row.id));
}

/** Returns the changes that importing this file would make, without making them. */
export const previewResource = (db: Db, resource: FileResource, window: TextWindow): Promise<ImportReport> =>
  compare(db, resource, window, () => Promise.resolve());

/**
 * Imports a file, all of it or nothing. It is read, checked and compared piece by piece, and what it changes laid aside on the disk; the
 * transaction, which holds up everybody, only writes that, where it still stands as it was compared.
 *
 * @param basis of the preview that was agreed to
 * @throws HttpProblem 422 when any row is at fault, 409 when what stands changed since the preview
 */
export async function importResource(
  { db, write }: Database,
  resource: FileResource,
  window: TextWindow,
  by: string,
  basis: number,
): Promise<ImportReport> {
  await requireCrew(db, by);
  const spool = await Spool.open<ChangedRow>();
  try {
    const report = await compare(db, resource, window, (rows) => spool.add(rows));
    if (report.faults.length > 0) throw atFault(report.faults);
    if (report.basis !== basis) throw changedSince();
    const batches = () => batchesOf(spool.rows(), ROWS_AT_ONCE);
    await write(async (tx) => {
      const currentOfAll = (some: readonly ChangedRow[]): Promise<Map<string, ResourceRow>> =>
        currentRows(
          tx,
          resource,
          some.map(({ row }) => row),
        );
      const agreed = agreement();
      // All of it before the first is written: rows may have a person in common.
      for await (const some of batches()) {
        const known = await currentOfAll(some);
        for (const { row } of some) agreed.add(known.get(row.id as string) ?? null);
      }
      if (agreed.basis() !== basis) throw changedSince();
      for await (const some of batches()) {
        const known = await currentOfAll(some);
        try {
          await RESOURCE_STORES[resource].write(
            tx,
            some.map(({ row }) => ({ row, before: known.get(row.id as string) ?? null })),
          );
        } catch (error) {
          throw doesNotBelong(error, some);
        }
      }
    });
    return { ...report, applied: true };
  } finally {
    await spool.remove();
  }
}

const changedSince = (): HttpProblem => new HttpProblem(409, 'previewIsOld');

/** The database refuses a second row of one id in any table (SQLSTATE class 23), and names the id. */
function doesNotBelong(error: unknown, writes: readonly ChangedRow[]): unknown {
  if (!codeOf(error).startsWith('23')) return error;
  const { detail } = causeOf(error) as { readonly detail?: unknown };
  const id = /=\((.+?)\)/.exec(String(detail))?.[1];
  const { line } = writes.find(({ row }) => id && JSON.stringify(row).includes(`"${id}"`)) ?? writes[0]!;
  return atFault([{ line, ...faultAt('', 'belongsElsewhere') }]);
}
