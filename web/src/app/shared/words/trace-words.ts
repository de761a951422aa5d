import type { TraceFault } from '@voltrek/contracts';
import { messagesOf } from './messages-of';

const FAULTS: Readonly<Record<TraceFault, string>> = messagesOf('traceFault');
const T = messagesOf('tracePart');

/** Returns why a file of a trace was not taken, with its line. */
export const traceRefusal = (
  name: string,
  { fault, line }: { readonly fault: TraceFault; readonly line: number | null },
): string => {
  const why = FAULTS[fault];
  return line === null ? T.isNotTaken({ name, why }) : T.isNotTakenAt({ name, line, why });
};
