import type { Recording } from '@voltrek/core/trace';
import Papa from 'papaparse';

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

/** Why a trace file cannot be read, and in which line; nothing of it is taken. */
export class TraceFileError extends Error {
  constructor(
    readonly fault: TraceFault,
    readonly line: number | null = null,
  ) {
    super(line === null ? TRACE_FAULT_WORDS[fault] : `Line ${line}: ${TRACE_FAULT_WORDS[fault]}`);
    this.name = 'TraceFileError';
  }
}

export const TRACE_FAULT_WORDS: Record<TraceFault, string> = {
  empty: 'the file holds no rows.',
  'one-column': 'there is only one column. Time and volts are needed.',
  'no-time-column': 'no column is headed as time.',
  'no-volts-column': 'no column is headed as volts.',
  'not-a-number': 'a figure is missing or is no number.',
  unsorted: 'time goes backwards.',
  'too-few': 'there are too few rows to hold a crank.',
  'too-many': 'there are more than two million rows.',
};

/** A trace as it was read from a file. */
export interface TraceFile {
  readonly recording: Recording;
  readonly timeUnit: 's' | 'ms';
  /** Told by the header, or worked out from the steps between rows. */
  readonly timeUnitFrom: 'header' | 'steps';
  /** The last line was cut off and is left out. */
  readonly cutOff: boolean;
}

const ROWS_MOST = 2_000_000;
const ROWS_LEAST = 20;
const CHUNK_BYTES = 1 << 20;
/** No logger that shows a crank is slower than this between rows, s: a larger step is milliseconds. */
const SLOWEST_S = 0.25;

const TIME_HEAD = /^\s*(time|t|seconds?|secs?|s|ms|msecs?|millis(econds)?)\b|^\s*(time|t)[_ (/[]/i;
const VOLTS_HEAD = /^\s*(volts?|voltage|v|mv|u|battery|posts?)\b|^\s*(volts?|voltage|u|v)[_ (/[]/i;
const AMPS_HEAD = /^\s*(amps?|amperes?|current|a|i)\b|^\s*(amps?|current|i)[_ (/[]/i;
const MILLI_SECONDS = /ms|milli/i;
const MILLI_VOLTS = /mv|millivolt/i;

/** Where each figure stands in a row, and what it counts in. */
interface Columns {
  readonly time: number;
  readonly volts: number;
  readonly amps: number | null;
  readonly timeUnit: 's' | 'ms' | null;
  readonly voltsScale: number;
}

/**
 * Reads a logger's CSV: time and volts, amps if they are there; with a header or without; comma, semicolon or tab between, decimal
 * comma or point; seconds or milliseconds.
 *
 * @param onProgress share of the text that has been read
 * @throws TraceFileError with the reason and the line
 */
export function readTraceFile(
  text: string,
  onProgress: (share: number) => void = () => undefined,
): TraceFile {
  const body = text.replace(/^\uFEFF/, '');
  const lines = firstLines(body);
  if (lines.length === 0) throw new TraceFileError('empty');
  const delimiter = delimiterOf(lines);
  const numberOf = numberReader(delimiter, lines);
  const rows = new Rows(numberOf);
  let read = 0;
  // Piece by piece, so that a long file never stands in memory as rows of text.
  for (let from = 0; from < body.length; ) {
    const cut = body.indexOf('\n', Math.min(body.length, from + CHUNK_BYTES));
    const to = cut < 0 ? body.length : cut + 1;
    const isLast = to >= body.length;
    const { data } = Papa.parse<string[]>(body.slice(from, to), { delimiter });
    read = rows.take(data, read, isLast && !body.endsWith('\n'));
    from = to;
    onProgress(from / body.length);
  }
  return rows.finish();
}

function firstLines(text: string): string[] {
  return text
    .slice(0, 8192)
    .split(/\r?\n/)
    .filter((line) => line.trim() !== '')
    .slice(0, 20);
}

function delimiterOf(lines: readonly string[]): string {
  const inAll = (mark: string): boolean =>
    lines
      .slice(0, -1)
      .concat(lines[0]!)
      .every((line) => line.includes(mark));
  return [';', '\t'].find(inAll) ?? ',';
}

/** Reads one figure: with a decimal comma where fields show one, which a comma between them rules out. */
function numberReader(delimiter: string, lines: readonly string[]): (text: string) => number {
  const hasComma = delimiter !== ',' && lines.some((line) => /\d,\d/.test(line));
  return (text) => {
    const plain = text.trim();
    return plain === '' ? NaN : Number(hasComma ? plain.replace(',', '.') : plain);
  };
}

/** Rows gathered into lists that grow. */
class Rows {
  private columns: Columns | null = null;
  private count = 0;
  private cutOff = false;
  private time = new Float64Array(1024);
  private volts = new Float64Array(1024);
  private amps = new Float64Array(1024);

  constructor(private readonly numberOf: (text: string) => number) {}

  /** Takes a piece; returns how many lines have been read so far. */
  take(data: readonly string[][], linesBefore: number, endsOpen: boolean): number {
    let line = linesBefore;
    data.forEach((row, i) => {
      line++;
      if (row.length === 1 && row[0]!.trim() === '') return;
      if (this.columns === null) {
        const isHead = this.isHead(row);
        this.columns = this.columnsFrom(row, line, isHead);
        if (isHead) return;
      }
      this.takeRow(this.columns, row, line, endsOpen && i === data.length - 1);
    });
    // A piece that ends with a line break yields one empty row more.
    return line - (data.at(-1)?.length === 1 && data.at(-1)![0] === '' ? 1 : 0);
  }

  private isHead(row: readonly string[]): boolean {
    return row.some((cell) => cell.trim() !== '' && Number.isNaN(this.numberOf(cell)));
  }

  private columnsFrom(row: readonly string[], line: number, isHead: boolean): Columns {
    if (row.length < 2) throw new TraceFileError('one-column', line);
    if (!isHead) return { time: 0, volts: 1, amps: row.length > 2 ? 2 : null, timeUnit: null, voltsScale: 1 };
    const time = row.findIndex((cell) => TIME_HEAD.test(cell));
    if (time < 0) throw new TraceFileError('no-time-column', line);
    const volts = row.findIndex((cell, i) => i !== time && VOLTS_HEAD.test(cell));
    if (volts < 0) throw new TraceFileError('no-volts-column', line);
    const amps = row.findIndex((cell, i) => i !== time && i !== volts && AMPS_HEAD.test(cell));
    const head = row[time]!;
    const timeUnit = MILLI_SECONDS.test(head) ? 'ms' : /\bs\b|sec/i.test(head) ? 's' : null;
    return {
      time,
      volts,
      amps: amps < 0 ? null : amps,
      timeUnit,
      voltsScale: MILLI_VOLTS.test(row[volts]!) ? 0.001 : 1,
    };
  }

  private takeRow(columns: Columns, row: readonly string[], line: number, mayBeCut: boolean): void {
    const figure = (at: number): number => this.numberOf(row[at] ?? '');
    const time = figure(columns.time);
    const volts = figure(columns.volts) * columns.voltsScale;
    const amps = columns.amps === null ? 0 : figure(columns.amps);
    const isWhole = Number.isFinite(time) && Number.isFinite(volts) && Number.isFinite(amps);
    const isBackwards = this.count > 0 && time <= this.time[this.count - 1]!;
    if (mayBeCut && (!isWhole || isBackwards)) {
      this.cutOff = true;
      return;
    }
    if (!isWhole) throw new TraceFileError('not-a-number', line);
    if (isBackwards) throw new TraceFileError('unsorted', line);
    if (this.count >= ROWS_MOST) throw new TraceFileError('too-many', line);
    if (this.count === this.time.length) this.grow();
    this.time[this.count] = time;
    this.volts[this.count] = volts;
    this.amps[this.count] = amps;
    this.count++;
  }

  private grow(): void {
    const longer = (list: Float64Array): Float64Array<ArrayBuffer> => {
      const next = new Float64Array(list.length * 2);
      next.set(list);
      return next;
    };
    this.time = longer(this.time);
    this.volts = longer(this.volts);
    this.amps = longer(this.amps);
  }

  finish(): TraceFile {
    if (this.count === 0) throw new TraceFileError('empty');
    if (this.count < ROWS_LEAST) throw new TraceFileError('too-few');
    const columns = this.columns!;
    const time = this.time.slice(0, this.count);
    const step = (time[this.count - 1]! - time[0]!) / (this.count - 1);
    const timeUnit = columns.timeUnit ?? (step > SLOWEST_S ? 'ms' : 's');
    return {
      recording: {
        seconds: timeUnit === 'ms' ? time.map((t) => t / 1000) : time,
        volts: this.volts.slice(0, this.count),
        amps: columns.amps === null ? null : this.amps.slice(0, this.count),
      },
      timeUnit,
      timeUnitFrom: columns.timeUnit ? 'header' : 'steps',
      cutOff: this.cutOff,
    };
  }
}

/** A recording as such a file: seconds, volts and, where there are any, amps. */
export function traceFileOf({ seconds, volts, amps }: Recording): string {
  const head = amps ? 'time_s,volts,amps' : 'time_s,volts';
  const rows = Array.from(seconds, (t, i) =>
    [t.toFixed(4), volts[i]!.toFixed(3), ...(amps ? [amps[i]!.toFixed(1)] : [])].join(','),
  );
  return [head, ...rows, ''].join('\n');
}
