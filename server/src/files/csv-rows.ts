import { faultAt, type FaultParams, type RowFault } from '@voltrek/contracts';
import type { FaultCode } from '@voltrek/contracts/words';
import Papa from 'papaparse';
import { FAULTS_MOST } from './found-row.js';
import type { TextWindow } from './text-window.js';

/** A line of a CSV: its cells as text, by the name of their column. */
export interface CsvRow<C extends string> {
  readonly line: number;
  readonly cells: Partial<Record<C, string>>;
}

/**
 * A text that a spreadsheet would take for a formula goes out with a mark before it. So does a text that begins with the mark. The way in
 * takes one mark off, so no text changes.
 */
const NEEDS_MARK = /^['=+\-@\t\r]/;
const unmarked = (cell: string): string => (cell.startsWith("'") ? cell.slice(1) : cell);

/** Lines of comma-separated values, each ended, without the line of names that a file begins with. */
export function writeCsvRows<C extends string>(
  rows: readonly Partial<Record<C, string | number | boolean>>[],
  columns: readonly C[],
): string {
  const text = Papa.unparse(rows as object[], {
    columns: [...columns],
    header: false,
    newline: '\n',
    escapeFormulae: NEEDS_MARK,
  });
  return text === '' ? '' : `${text}\n`;
}

/** Lines that are split into cells before somebody else may have a turn. */
const LINES_AT_ONCE = 200;

/**
 * The lines of a CSV behind its line of names, one by one as it is read. A file that is cut off, a column that is missing or not known, a
 * formula: each carries its line; after the most faults, the file is read no further.
 *
 * @param faults what is wrong with lines is added to these
 */
export async function* readCsvRows<C extends string>(
  window: TextWindow,
  columns: readonly C[],
  required: readonly C[],
  faults: RowFault[],
): AsyncGenerator<CsvRow<C>> {
  const addFault = (line: number, path: string, code: FaultCode, params: FaultParams = {}): void => {
    faults.push({ line, ...faultAt(path, code, params) });
  };
  let header: string[] | null = null;
  let line = 1;
  for await (const { cells, lines, isGarbled } of recordsOf(window)) {
    if (faults.length >= FAULTS_MOST) return;
    const at = line;
    line += lines;
    if (isGarbled) addFault(at, '', 'quotes');
    if (cells.every((cell) => cell.trim() === '')) continue;
    if (!header) {
      const names = cells.map((name) => name.trim());
      const missing = required.filter((name) => !names.includes(name));
      const unknown = names.filter((name) => !columns.some((c) => c === name));
      if (missing.length > 0) addFault(at, '', 'columnsMissing', { columns: missing.join(', ') });
      if (unknown.length > 0) addFault(at, '', 'columnsUnknown', { columns: unknown.join(', ') });
      if (missing.length > 0 || unknown.length > 0) return;
      header = names;
      continue;
    }
    const formula = cells.findIndex((cell) => /^[=+@\t\r]/.test(cell));
    if (cells.length !== header.length) addFault(at, '', 'cells', { has: cells.length, due: header.length });
    else if (formula >= 0) addFault(at, header[formula]!, 'formula');
    else {
      const row = Object.fromEntries(header.map((name, i) => [name, unmarked(cells[i]!)]));
      yield { line: at, cells: row as CsvRow<C>['cells'] };
    }
  }
  if (header && !window.endsWith('\n')) addFault(line, '', 'noLastLine');
  if (!header && faults.length === 0) addFault(1, '', 'empty');
}

interface CsvRecord {
  readonly cells: readonly string[];
  /** Line ends in it, those within quotes too. */
  readonly lines: number;
  readonly isGarbled: boolean;
}

/** Records of a file, some at a time: what stands behind them has not been looked at yet. */
async function* recordsOf(window: TextWindow): AsyncGenerator<CsvRecord> {
  while (!window.isLast && !window.text.includes('\n')) await window.more(0);
  // The line of names tells it best: rows that are at fault would make it guess another.
  const { delimiter } = Papa.parse(window.text.slice(0, window.text.search(/\n|$/)), { preview: 1 }).meta;
  for (let from = 0; ; ) {
    const { records, end } = someRecords(window.text.slice(from), delimiter, !window.isLast);
    yield* records;
    from += end;
    if (end > 0) continue;
    if (window.isLast) return;
    await window.more(from);
    from = 0;
  }
}

/** @param mayGoOn the last record that is whole may be half of one: it is left for the next time */
function someRecords(
  text: string,
  delimiter: string,
  mayGoOn: boolean,
): { readonly records: readonly CsvRecord[]; readonly end: number } {
  const records: CsvRecord[] = [];
  let end = 0;
  Papa.parse<string[]>(text, {
    delimiter,
    preview: LINES_AT_ONCE,
    // Without quotes the quick way would split all that is left each time.
    fastMode: false,
    step: ({ data, errors, meta }) => {
      if (mayGoOn && meta.cursor >= text.length) return;
      records.push({
        cells: data,
        lines: text.slice(end, meta.cursor).split('\n').length - 1,
        isGarbled: errors.length > 0,
      });
      end = meta.cursor;
    },
  });
  return { records, end };
}
