import type { Recording } from '@voltrek/core/trace';
import Papa from 'papaparse';
import { type TimeUnit, TraceFileError } from './trace-fault.js';
import { clockSeconds, isRemark, type Layout, layoutOf } from './trace-layout.js';

/** A trace as it was read from a file. */
export interface TraceFile {
  readonly recording: Recording;
  readonly timeUnit: TimeUnit;
  /** Read from the header, or worked out from the steps between rows. */
  readonly timeUnitFrom: 'header' | 'steps';
  /** The last line was cut off and is left out. */
  readonly cutOff: boolean;
}

const ROWS_MOST = 2_000_000;
const ROWS_LEAST = 20;
const CHUNK_BYTES = 1 << 20;
/** No logger that shows a crank is slower than this between rows, s: a larger step is milliseconds. */
const SLOWEST_S = 0.25;

/** The unit of the times, s. */
const SECONDS_OF: Record<TimeUnit, number> = { s: 1, ms: 1e-3, us: 1e-6, clock: 1 };
const DAY_S = 86_400;

/**
 * Reads a logger's table: time and volts, amps if they are there; with heads or without, units beside or under them, titles and remarks
 * above; comma, semicolon, tab or bar between; decimal comma or point, marks between thousands; seconds, their thousandths or millionths, or
 * times of day.
 *
 * @param onProgress share of the text that has been read
 * @throws TraceFileError with the reason and the line
 */
export function readTraceFile(
  text: string,
  onProgress: (share: number) => void = () => undefined,
): TraceFile {
  const body = text.replace(/^\uFEFF/, '');
  const layout = layoutOf(body);
  const { delimiter } = layout;
  const rows = new Rows(layout);
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

/** Rows gathered into lists that grow. */
class Rows {
  private count = 0;
  private cutOff = false;
  private time = new Float64Array(1024);
  private volts = new Float64Array(1024);
  private amps = new Float64Array(1024);

  constructor(private readonly layout: Layout) {}

  /** Takes a piece; returns how many lines have been read so far. */
  take(data: readonly string[][], linesBefore: number, endsOpen: boolean): number {
    let line = linesBefore;
    data.forEach((row, i) => {
      line++;
      const isEmpty = row.length === 1 && row[0]!.trim() === '';
      if (isEmpty || line <= this.layout.headLines || isRemark(row)) return;
      this.takeRow(row, line, endsOpen && i === data.length - 1);
    });
    // A piece that ends with a line break yields one empty row more.
    return line - (data.at(-1)?.length === 1 && data.at(-1)![0] === '' ? 1 : 0);
  }

  private takeRow(row: readonly string[], line: number, mayBeCut: boolean): void {
    const { columns, numberOf } = this.layout;
    const figure = (at: number): number => numberOf(row[at] ?? '');
    const time =
      columns.timeUnit === 'clock' ? this.clockTime(row[columns.time] ?? '') : figure(columns.time);
    const volts = figure(columns.volts) * columns.voltsScale;
    const amps = columns.amps === null ? 0 : figure(columns.amps) * columns.ampsScale;
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

  /** Times of day go on past midnight. */
  private clockTime(text: string): number {
    const time = clockSeconds(text);
    const before = this.count > 0 ? this.time[this.count - 1]! : time;
    const days = Math.floor(before / DAY_S) * DAY_S;
    const isNextDay = before - (days + time) > DAY_S / 2;
    return time + days + (isNextDay ? DAY_S : 0);
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
    const { columns } = this.layout;
    const time = this.time.slice(0, this.count);
    const step = (time[this.count - 1]! - time[0]!) / (this.count - 1);
    // A time of day means nothing to a crank: it counts from the first row.
    const from = columns.timeUnit === 'clock' ? time[0]! : 0;
    const timeUnit = columns.timeUnit ?? (step > SLOWEST_S ? 'ms' : 's');
    return {
      recording: {
        seconds: time.map((t) => (t - from) * SECONDS_OF[timeUnit]),
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
