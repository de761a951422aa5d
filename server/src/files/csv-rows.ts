import type { RowFault } from '@voltrek/contracts';
import Papa from 'papaparse';
import { FAULTS_MOST } from './found-row.js';

/** A line of a CSV: its cells as text, by the name of their column. */
export interface CsvRow<C extends string> {
  readonly line: number;
  readonly cells: Partial<Record<C, string>>;
}

/**
 * Text that a spreadsheet would take for a formula goes out with a mark before it, and so does text that begins with the mark itself, so
 * that the way in can take one mark off and no text is changed.
 */
const NEEDS_MARK = /^['=+\-@\t\r]/;
const unmarked = (cell: string): string => (cell.startsWith("'") ? cell.slice(1) : cell);

/** Lines of comma-separated values, each ended, with the line of names before them where `header` says so. */
export function writeCsvRows<C extends string>(
  rows: readonly Partial<Record<C, string | number | boolean>>[],
  columns: readonly C[],
  header: boolean,
): string {
  const text = Papa.unparse(rows as object[], {
    columns: [...columns],
    header,
    newline: '\n',
    escapeFormulae: NEEDS_MARK,
  });
  return text === '' ? '' : `${text}\n`;
}

/**
 * The lines of a CSV behind its line of names. A file that is cut off, a column that is missing or not known, a formula: each is told by line;
 * after the most faults that are told, the file is read no further.
 */
export function readCsvRows<C extends string>(
  content: string,
  columns: readonly C[],
  required: readonly C[],
  faults: RowFault[],
): CsvRow<C>[] {
  const rows: CsvRow<C>[] = [];
  let from = 0;
  let line = 1;
  const head: { names: string[] | null } = { names: null };
  Papa.parse<string[]>(content, {
    step: ({ data, errors, meta }, parser) => {
      if (faults.length >= FAULTS_MOST) {
        parser.abort();
        return;
      }
      const at = line;
      line += content.slice(from, meta.cursor).split('\n').length - 1;
      from = meta.cursor;
      // A file of one column has no delimiter to find; its missing columns are told below.
      for (const error of errors.filter((e) => e.code !== 'UndetectableDelimiter'))
        faults.push({ line: at, path: '', message: `the file is cut off or garbled here: ${error.message}` });
      if (data.every((cell) => cell.trim() === '')) return;
      if (!head.names) {
        const header = data.map((name) => name.trim());
        head.names = header;
        const missing = required.filter((name) => !header.includes(name));
        const unknown = header.filter((name) => !columns.some((c) => c === name));
        if (missing.length > 0)
          faults.push({ line: at, path: '', message: `columns missing: ${missing.join(', ')}` });
        if (unknown.length > 0)
          faults.push({ line: at, path: '', message: `columns not known: ${unknown.join(', ')}` });
        return;
      }
      const header = head.names;
      if (data.length !== header.length) {
        faults.push({ line: at, path: '', message: `${data.length} cells where ${header.length} are due` });
        return;
      }
      const formula = data.findIndex((cell) => /^[=+@\t\r]/.test(cell));
      if (formula >= 0) {
        faults.push({ line: at, path: header[formula]!, message: 'looks like a spreadsheet formula' });
        return;
      }
      const cells = Object.fromEntries(header.map((name, i) => [name, unmarked(data[i]!)]));
      rows.push({ line: at, cells: cells as CsvRow<C>['cells'] });
    },
  });
  if (head.names && faults.length < FAULTS_MOST && !content.endsWith('\n'))
    faults.push({ line, path: '', message: 'the last line does not end: the file may be cut off' });
  if (!head.names && faults.length === 0) faults.push({ line: 1, path: '', message: 'the file is empty' });
  return faults.some((f) => f.message.startsWith('columns')) ? [] : rows;
}
