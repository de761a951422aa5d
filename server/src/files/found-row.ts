import type { RowFault, ValidationError } from '@voltrek/contracts';
import { HttpProblem } from '../http/problem.js';

/** One row of a file, unchecked, and where its parts stand. */
export interface FoundRow {
  readonly value: unknown;
  readonly lineOf: (path: string) => number;
}

/** A file with this many faults is read no further: more of them tell nothing new, and reading holds up everybody else. */
export const FAULTS_MOST = 50;

/** The largest import: an export of five thousand models is about half of it. */
export const IMPORT_BYTES_MAX = 64 * 1024 * 1024;
/** How long reading may go on before somebody else has a turn, milliseconds: a tap is not felt to wait for it. */
const TURN_MS = 10;

/** The text of an upload. @throws HttpProblem 415 when it is not UTF-8 text */
export function textOf(upload: Uint8Array): string {
  try {
    const text = new TextDecoder('utf-8', { fatal: true }).decode(upload);
    if (!text.includes('\0')) return text;
  } catch {
    // Told below, like a zero byte.
  }
  throw new HttpProblem(415, 'The file is not UTF-8 text. Save it as UTF-8 and send it again.');
}

/** Ask between two pieces of work: when they have gone on for a while, somebody else has a turn. */
export function turns(): () => Promise<void> {
  let since = performance.now();
  return async () => {
    if (performance.now() - since < TURN_MS) return;
    await new Promise((done) => setImmediate(done));
    since = performance.now();
  };
}

/** What is wrong with a row, by the line of each part. */
export function rowFaults(error: ValidationError, lineOf: FoundRow['lineOf']): RowFault[] {
  const inner = error.inner.length > 0 ? error.inner : [error];
  return inner.map(({ path = '', message }) => ({ line: lineOf(path), path, message }));
}

/** Nothing of a file is taken while a row of it is at fault. */
export const atFault = (faults: readonly RowFault[]): HttpProblem =>
  new HttpProblem(422, 'Rows are at fault. Nothing was changed.', {
    fields: faults.map(({ line, path, message }) => ({ path: `line ${line} ${path}`.trim(), message })),
  });
