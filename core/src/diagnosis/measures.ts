import { type BatteryRating, isLeadAcid } from '../battery/index.js';
import { type Range, requireInRange, voltsRange } from '../quantities/index.js';
import {
  type Found,
  type CheckId,
  checkOf,
  MEASURE_RANGES,
  type MeasureContext,
  type Tool,
} from './checks/index.js';
import type { ReadingKind } from './vocabulary.js';

export const MEASURE_GROUPS = ['posts', 'joints', 'battery', 'parked'] as const;
/** The points of the probes. */
export type MeasureGroup = (typeof MEASURE_GROUPS)[number];

/** How a measurement is entered: one figure, a figure a cell, or one of two outcomes. */
export type MeasureEntry = 'volts' | 'drop' | 'ccaAmps' | 'milliamps' | 'cells' | 'outcome';

/** Something that can be measured on a job. */
export interface MeasureKind {
  readonly id: string;
  readonly check: CheckId;
  /** Kept as a reading of volts; null: as a finding of its own. */
  readonly reading: ReadingKind | null;
  readonly group: MeasureGroup;
  readonly entry: MeasureEntry;
  readonly needs: Tool | null;
}

const reading = (kind: ReadingKind, check: CheckId): MeasureKind => ({
  id: kind,
  check,
  reading: kind,
  group: 'posts',
  entry: 'volts',
  needs: 'meter',
});
const figure = (
  check: CheckId,
  group: MeasureGroup,
  entry: MeasureEntry,
  needs: Tool | null,
): MeasureKind => ({ id: check, check, reading: null, group, entry, needs });

const MEASURES: readonly MeasureKind[] = [
  reading('rest', 'rest'),
  figure('key-on', 'posts', 'volts', 'meter'),
  reading('crank-minimum', 'crank'),
  figure('recovery', 'posts', 'volts', 'meter'),
  reading('charging-idle', 'charging'),
  reading('charging-loaded', 'charging-loaded'),
  figure('joint-plus', 'joints', 'drop', 'meter'),
  figure('joint-minus', 'joints', 'drop', 'meter'),
  figure('starter-stud', 'joints', 'drop', 'meter'),
  figure('conductance', 'battery', 'ccaAmps', 'tester'),
  figure('load-test', 'battery', 'volts', 'load-tester'),
  figure('specific-gravity', 'battery', 'cells', 'hydrometer'),
  figure('acceptance', 'battery', 'outcome', 'charger'),
  figure('drain', 'parked', 'milliamps', 'clamp-meter'),
];

/**
 * Returns the volts that a kind of reading can show at a machine: one battery cannot read like a string.
 *
 * @example readingRange('rest', 24).max === readingRange('rest', 12).max // => true
 */
export function readingRange(kind: ReadingKind, systemVolts: 12 | 24): Range {
  const isCharging = kind === 'charging-idle' || kind === 'charging-loaded';
  return voltsRange(kind === 'rest' ? 1 : systemVolts / 12, isCharging);
}

/**
 * Returns the range of a measurement at a machine. Use it to refuse a figure, and to read digits that were typed without a point.
 *
 * @example measureRange(measuresFor({ chemistry: 'agm' }, true)[0], 24).max // => 16
 */
export function measureRange({ id, entry, reading: kind }: MeasureKind, systemVolts: 12 | 24): Range {
  if (entry === 'drop' || entry === 'ccaAmps' || entry === 'milliamps') return MEASURE_RANGES[entry];
  return kind ? readingRange(kind, systemVolts) : voltsRange(id === 'load-test' ? 1 : systemVolts / 12);
}

/** Checks of a machine that cranks. */
const CRANKS_ONLY: readonly string[] = ['crank-minimum', 'recovery', 'starter-stud'];

/** Returns the checks that can be measured on this machine. The van may lack the instrument: it may be borrowed. */
export function measuresFor(rating: BatteryRating, cranks: boolean): MeasureKind[] {
  return MEASURES.filter(
    ({ id }) =>
      (cranks || !CRANKS_ONLY.includes(id)) &&
      (id !== 'specific-gravity' || rating.chemistry === 'flooded') &&
      (id !== 'acceptance' || isLeadAcid(rating.chemistry)),
  );
}

/**
 * Returns the finding of a check in a figure as it was read; null where something it is measured against is missing.
 *
 * @param figures one, or one a cell
 */
export function findingOf(
  { check }: Pick<MeasureKind, 'check'>,
  figures: readonly number[],
  context: MeasureContext,
): Found | null {
  const { foundFrom } = checkOf(check);
  return foundFrom ? foundFrom(figures, context) : (figures[0] ?? NaN);
}

/**
 * Returns the finding of a check in the figure that its instrument shows: volts of the string, volts of the weakest battery at rest, or
 * volts lost over a joint. A tester gives amps, a clamp milliamps.
 *
 * @throws RangeError outside the instrument's range, without a figure, and without the reference that it needs
 * @example foundFromMeter('crank', 8.4, context) // how far 8.4 V lies from the limit in this cold
 */
export function foundFromMeter(check: CheckId, shown: number, context: MeasureContext): Found {
  const range = checkOf(check).shown;
  if (!range) throw new RangeError(`${check} is found as one of its words, not as a figure`);
  requireInRange(check, shown, range);
  const found = findingOf({ check }, [shown], context);
  if (found === null) throw new RangeError(`${check} is held against rest volts: give rest as well`);
  return found;
}
