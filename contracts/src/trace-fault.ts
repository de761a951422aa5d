export const TRACE_FAULTS = [
  'empty',
  'one-column',
  'no-time-column',
  'no-volts-column',
  'not-a-number',
  'unsorted',
  'too-few',
  'too-many',
] as const;
export type TraceFault = (typeof TRACE_FAULTS)[number];

export const TIME_UNITS_OF_FILES = ['s', 'ms', 'us', 'clock'] as const;
/** The unit of the time column of a file; clock: times of day. */
export type TimeUnit = (typeof TIME_UNITS_OF_FILES)[number];

const WORDS: Readonly<Record<TraceFault, string>> = {
  empty: 'the file has no rows.',
  'one-column': 'there is only one column. Time and volts are needed.',
  'no-time-column': 'no column is headed as time.',
  'no-volts-column': 'no column is headed as volts.',
  'not-a-number': 'a figure is missing or is no number.',
  unsorted: 'time goes backwards.',
  'too-few': 'there are too few rows to hold a crank.',
  'too-many': 'there are more than two million rows.',
};

/** Why a trace file cannot be read, and in which line; nothing of it is taken. */
export class TraceFileError extends Error {
  constructor(
    readonly fault: TraceFault,
    readonly line: number | null = null,
  ) {
    super(line === null ? WORDS[fault] : `Line ${line}: ${WORDS[fault]}`);
    this.name = 'TraceFileError';
  }
}
