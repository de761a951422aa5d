import { faultsIn, type RowFault, type ValidationError } from '@voltrek/contracts';
import { HttpProblem } from '../http/problem.js';

/** One row of a file, unchecked, and where its parts stand. */
export interface FoundRow {
  readonly value: unknown;
  readonly lineOf: (path: string) => number;
}

/** A file with this many faults is read no further: more of them tell nothing new, and reading holds up everybody else. */
export const FAULTS_MOST = 50;

/** How long reading may go on before somebody else has a turn, milliseconds: a tap is not felt to wait for it. */
const TURN_MS = 10;

/** Ask between two pieces of work: when they have gone on for a while, somebody else has a turn. */
export function turns(): () => Promise<void> {
  let since = performance.now();
  return async () => {
    if (performance.now() - since < TURN_MS) return;
    await new Promise((done) => setImmediate(done));
    since = performance.now();
  };
}

/** The faults of a row, by the line of each part. */
export function rowFaults(error: ValidationError, lineOf: FoundRow['lineOf']): RowFault[] {
  return faultsIn(error).map((fault) => ({ line: lineOf(fault.path), ...fault }));
}

/** Nothing of a file is taken while a row of it is at fault. */
export const atFault = (faults: readonly RowFault[]): HttpProblem =>
  new HttpProblem(422, 'rowsAtFault', {
    fields: faults.map(({ line, ...fault }) => ({ ...fault, path: `line ${line} ${fault.path}`.trim() })),
  });
