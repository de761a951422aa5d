import { underWord } from '@voltrek/core/quantities';
import Papa from 'papaparse';
import { type TimeUnit, TraceFileError } from './trace-fault.js';

/** The column of each figure in a row, and its unit. */
export interface Columns {
  readonly time: number;
  readonly volts: number;
  readonly amps: number | null;
  /** Null where nothing tells. */
  readonly timeUnit: TimeUnit | null;
  readonly voltsScale: number;
  readonly ampsScale: number;
}

/** How a file is laid out: what stands between its figures, how they are written, where they begin, and which is which. */
export interface Layout {
  readonly delimiter: string;
  readonly numberOf: (text: string) => number;
  /** Lines before the first row of figures. */
  readonly headLines: number;
  readonly columns: Columns;
}

/** The start of a file that is looked at. */
const LOOKED_AT_CHARS = 32_768;
const LOOKED_AT_LINES = 120;
/** The signs that begin a line that is a remark. */
const REMARK = /^\s*(#|\/\/|%|--)/;
const DELIMITERS = [';', '\t', '|', ','] as const;

const TIME_HEAD =
  /^(time|t|elapsed|seconds?|secs?|s|m?secs?|ms|millis\w*|micros\w*|timestamp|clock|zeit\w*|temps|tiempo|tempo|tijd|tid|czas|aika)\b|^(time|t)_|[_ ](time|zeit)\b/;
const VOLTS_HEAD =
  /^(volts?|voltage|v|mv|u|battery|posts?|spannung\w*|tension\w*|tensi[oó]n|tensione|tens[aã]o|spenning|sp[aä]nn\w*|napi[eę]cie|j[aä]nnite)\b|^(volts?|voltage|u|v)_/;
const AMPS_HEAD =
  /^(amps?|amperes?|current|a|ma|i|strom\w*|courant|intensit[eé]|corriente|corrente|str[oö]m\w*|pr[aą]d|virta)\b|^(amps?|current|i)_/;

/** The unit of a column, by the unit beside its name or under it. */
const TIME_UNITS: Readonly<Record<string, TimeUnit>> = {
  s: 's',
  sec: 's',
  secs: 's',
  second: 's',
  seconds: 's',
  ms: 'ms',
  msec: 'ms',
  msecs: 'ms',
  millis: 'ms',
  milliseconds: 'ms',
  us: 'us',
  µs: 'us',
  μs: 'us',
  usec: 'us',
  micros: 'us',
  microseconds: 'us',
};
const VOLTS_UNITS: Readonly<Record<string, number>> = {
  v: 1,
  volt: 1,
  volts: 1,
  mv: 0.001,
  millivolt: 0.001,
  millivolts: 0.001,
};
const AMPS_UNITS: Readonly<Record<string, number>> = {
  a: 1,
  amp: 1,
  amps: 1,
  ampere: 1,
  amperes: 1,
  ma: 0.001,
  milliamps: 0.001,
  ka: 1000,
};
const isIn = (units: Readonly<Record<string, unknown>>, unit: string | null): boolean =>
  unit !== null && Object.hasOwn(units, unit);
const isUnit = (word: string): boolean =>
  [TIME_UNITS, VOLTS_UNITS, AMPS_UNITS].some((units) => isIn(units, word));

/** A time of day, after a date or by itself: hours, minutes and seconds with their decimals. */
const CLOCK = /(?:^|[T ])(\d{1,2}):(\d{2}):(\d{2}(?:[.,]\d+)?)\s*(?:Z|[+-]\d{2}:?\d{2})?$/;
const DATE = /^\d{1,4}[-./]\d{1,2}[-./]\d{1,4}$/;

/** Seconds of the day; NaN for what is no time of day. */
export function clockSeconds(text: string): number {
  const found = CLOCK.exec(text.trim());
  if (!found) return NaN;
  const [, hours, minutes, seconds] = found;
  return Number(hours) * 3600 + Number(minutes) * 60 + Number(seconds!.replace(',', '.'));
}

/** How this file is laid out. @throws TraceFileError when it holds no such columns */
export function layoutOf(body: string): Layout {
  const lines = body.slice(0, LOOKED_AT_CHARS).split(/\r?\n/).slice(0, LOOKED_AT_LINES);
  const told = lines.filter((line) => line.trim() !== '' && !REMARK.test(line));
  if (told.length === 0) throw new TraceFileError('empty');
  const delimiter = delimiterOf(told);
  const numberOf = numberReader(delimiter, told);
  const cells = lines.map((line) => Papa.parse<string[]>(line.trim(), { delimiter }).data[0] ?? []);
  const first = cells.findIndex((row, i) => !REMARK.test(lines[i]!) && isFigures(row, numberOf));
  const head = cells
    .slice(0, first < 0 ? cells.length : first)
    .map((row, i) => ({ line: i + 1, cells: row.map(withoutRemark) }))
    .filter((row) => row.cells.some((cell) => cell !== ''));
  const columns = columnsFrom(head, first < 0 ? null : cells[first]!, numberOf);
  if (first < 0) throw new TraceFileError('empty');
  return { delimiter, numberOf, headLines: first, columns };
}

/** Takes the rest of a line that is a remark: some loggers head their columns in one. */
const withoutRemark = (cell: string): string => cell.replace(REMARK, '').trim();

/** A row of figures: two of them at least, or a time of day and one. */
function isFigures(row: readonly string[], numberOf: (text: string) => number): boolean {
  return row.filter((cell) => !Number.isNaN(numberOf(cell)) || CLOCK.test(cell.trim())).length >= 2;
}

/** Returns the mark between the figures: the mark that most lines hold equally often. */
function delimiterOf(lines: readonly string[]): string {
  const tail = lines.slice(-Math.max(1, Math.ceil(lines.length / 2)));
  // The last line may be cut off.
  const looked = tail.length > 1 ? tail.slice(0, -1) : tail;
  return DELIMITERS.find((mark) => looked.every((line) => line.includes(mark))) ?? ',';
}

/** Marks between thousands: a space, a thin or fixed one, an apostrophe. */
const THOUSANDS = /(?<=\d)[ \u00a0\u202f'’](?=\d{3})/g;

/**
 * Reads one figure. A comma is its decimal mark where figures show one, unless commas stand between the figures; the other mark then stands
 * between thousands.
 */
function numberReader(delimiter: string, lines: readonly string[]): (text: string) => number {
  const isQuoted = lines.some((line) => /"-?\d+,\d+"/.test(line));
  const hasComma = (delimiter !== ',' || isQuoted) && lines.some((line) => /\d,\d/.test(line));
  // Both marks in one figure: the last of them is the decimal one.
  const isPointLast = lines.some((line) => /\d,\d{3}\.\d/.test(line));
  const decimalComma = hasComma && !isPointLast;
  const isMarked = lines.some((line) => line.search(THOUSANDS) >= 0);
  return (text) => {
    const plain = isMarked ? text.trim().replace(THOUSANDS, '') : text.trim();
    if (plain === '') return NaN;
    if (decimalComma) return Number(plain.replace(/\./g, '').replace(',', '.'));
    return Number(hasComma ? plain.replace(/,/g, '') : plain);
  };
}

interface HeadRow {
  readonly line: number;
  readonly cells: readonly string[];
}

/** A column by what it is called and what it counts in, both in small letters. */
interface Head {
  readonly name: string;
  readonly unit: string | null;
}

/** Names and units of the columns from the rows above the figures: the names nearest to them, and a row of units under those. */
function headsFrom(head: readonly HeadRow[]): { heads: Head[]; line: number } {
  const last = head.at(-1)!;
  const bare = (cell: string): string =>
    cell
      .toLowerCase()
      .replace(/[()[\]]/g, '')
      .trim();
  const areUnits = last.cells.every((cell) => cell === '' || isUnit(bare(cell)));
  const above = head.at(-2);
  const named = areUnits && above?.cells.length === last.cells.length ? above : last;
  const units = named === last ? [] : last.cells.map(bare);
  const heads = named.cells.map((cell, i): Head => {
    const small = cell.toLowerCase();
    const beside = /[([/_ ]\s*([a-zµμ]+)\s*[)\]]?\s*$/.exec(small)?.[1];
    const own = isUnit(bare(cell)) ? bare(cell) : undefined;
    const unit = units[i] !== undefined && units[i] !== '' ? units[i] : (beside ?? own);
    return { name: small.trim(), unit: unit !== undefined && isUnit(unit) ? unit : null };
  });
  return { heads, line: named.line };
}

function columnsFrom(
  head: readonly HeadRow[],
  first: readonly string[] | null,
  numberOf: (text: string) => number,
): Columns {
  const clockAt = first?.findIndex((cell) => CLOCK.test(cell.trim())) ?? -1;
  if (head.length === 0) return unnamed(first!, clockAt, numberOf);
  const { heads, line } = headsFrom(head);
  if (heads.length < 2) {
    // A title above figures that have no heads.
    if (first && first.length > 1) return unnamed(first, clockAt, numberOf);
    throw new TraceFileError('one-column', line);
  }
  const find = (test: (head: Head) => boolean, ...taken: number[]): number =>
    heads.findIndex((h, i) => !taken.includes(i) && test(h));
  const named = find(({ name }) => TIME_HEAD.test(name));
  const time = clockAt >= 0 ? clockAt : named >= 0 ? named : find(({ unit }) => isIn(TIME_UNITS, unit));
  if (time < 0) throw new TraceFileError('no-time-column', line);
  const byName = find(
    ({ name, unit }) => VOLTS_HEAD.test(name) && (unit === null || isIn(VOLTS_UNITS, unit)),
    time,
  );
  const volts = byName >= 0 ? byName : find(({ unit }) => isIn(VOLTS_UNITS, unit), time);
  if (volts < 0) throw new TraceFileError('no-volts-column', line);
  const byAmpsName = find(
    ({ name, unit }) => AMPS_HEAD.test(name) && (unit === null || isIn(AMPS_UNITS, unit)),
    time,
    volts,
  );
  const amps = byAmpsName >= 0 ? byAmpsName : find(({ unit }) => isIn(AMPS_UNITS, unit), time, volts);
  const unitOf = (at: number): string => heads[at]?.unit ?? '';
  return {
    time,
    volts,
    amps: amps < 0 ? null : amps,
    timeUnit: clockAt >= 0 ? 'clock' : (underWord(TIME_UNITS, unitOf(time)) ?? null),
    voltsScale: underWord(VOLTS_UNITS, unitOf(volts)) ?? 1,
    ampsScale: underWord(AMPS_UNITS, unitOf(amps)) ?? 1,
  };
}

/** Figures without heads: time, volts, and amps if there is a third; a date is passed over. */
function unnamed(row: readonly string[], clockAt: number, numberOf: (text: string) => number): Columns {
  const figures = row.flatMap((cell, i) =>
    i === clockAt || DATE.test(cell.trim()) || Number.isNaN(numberOf(cell)) ? [] : [i],
  );
  const [time = 0, volts = 1, amps] = clockAt >= 0 ? [clockAt, ...figures] : figures;
  const timeUnit = clockAt >= 0 ? 'clock' : null;
  return { time, volts, amps: amps ?? null, timeUnit, voltsScale: 1, ampsScale: 1 };
}

/** True for a line of the figures that is a remark, as some loggers end with one. */
export const isRemark = (row: readonly string[]): boolean => REMARK.test(row[0] ?? '');
