import { type BatteryRating, isLeadAcid, socFromCells } from '../battery/index.js';
import { type Range, requireInRange } from '../quantities/index.js';
import type { Found, CheckId, Tool } from './checks.js';
import { againstCrankLimit, crankLimitVolts } from './reading.js';
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

export const MEASURE_RANGES = {
  drop: { min: -1, max: 16, unit: 'V' },
  ccaAmps: { min: 10, max: 2500, unit: 'A' },
  milliamps: { min: 0, max: 60_000, unit: 'mA' },
} as const satisfies Record<string, Range>;

/** The values that a figure must be seen against. */
export interface MeasureContext {
  readonly rating: BatteryRating;
  readonly systemVolts: 12 | 24;
  readonly tempC: number;
  /** Of the string, at rest; null when not read. */
  readonly restVolts: number | null;
}

/**
 * Returns the finding of a check in a figure as it was read; null where something it is measured against is missing.
 *
 * @param figures one, or one a cell
 */
export function findingOf(
  { check }: Pick<MeasureKind, 'check'>,
  figures: readonly number[],
  { rating, systemVolts, tempC, restVolts }: MeasureContext,
): Found | null {
  const [value = NaN] = figures;
  switch (check) {
    case 'key-on':
      return restVolts === null ? null : rounded(restVolts - value);
    case 'recovery':
    case 'charging':
    case 'charging-loaded':
      return rounded((value * 12) / systemVolts);
    case 'crank':
      return rounded(againstCrankLimit(value, tempC, systemVolts));
    case 'conductance':
      return rounded(value / rating.ccaAmps);
    case 'load-test':
      // One battery by itself.
      return rounded(value - crankLimitVolts(tempC, 12));
    case 'drain':
      return value / 1000;
    case 'specific-gravity': {
      const { badCell, soc } = socFromCells(figures, tempC);
      return badCell !== null ? 'one-cell-low' : soc > EVEN_HIGH_SOC ? 'even-high' : 'even-low';
    }
    default:
      return value;
  }
}

const OF_STRING = { min: 0, max: 36, unit: 'V' } as const;
const OF_BATTERY = { min: -16, max: 18, unit: 'V' } as const;
const LOST = { min: -1, max: 32, unit: 'V' } as const;
/** The range of the instrument of each check: the unit in which a figure is given. Checks that no instrument shows have no row. */
export const SHOWN_RANGES: Partial<Record<CheckId, Range>> = {
  rest: OF_BATTERY,
  'string-balance': { min: 0, max: 18, unit: 'V' },
  'key-on': OF_STRING,
  crank: OF_STRING,
  recovery: OF_STRING,
  charging: OF_STRING,
  'charging-loaded': OF_STRING,
  converter: { min: 0, max: 20, unit: 'V' },
  ripple: { min: 0, max: 16, unit: 'V' },
  'joint-plus': LOST,
  'joint-minus': LOST,
  'starter-stud': LOST,
  conductance: MEASURE_RANGES.ccaAmps,
  'load-test': { min: 0, max: 16, unit: 'V' },
  drain: MEASURE_RANGES.milliamps,
};

/**
 * Returns the finding of a check in the figure that its instrument shows: volts of the whole string at the posts, volts of the weakest
 * battery at rest, volts lost over a joint, amps of a tester, milliamps of a clamp.
 *
 * @throws RangeError outside what the instrument shows, for a check that shows no figure, and for one that lacks what it is held against
 * @example foundFromMeter('crank', 8.4, context) // how far 8.4 V lies from the limit in this cold
 */
export function foundFromMeter(check: CheckId, shown: number, context: MeasureContext): Found {
  const range = SHOWN_RANGES[check];
  if (!range) throw new RangeError(`${check} is found as one of its words, not as a figure`);
  requireInRange(check, shown, range);
  const found = findingOf({ check }, [shown], context);
  if (found === null) throw new RangeError(`${check} is held against rest volts: give rest as well`);
  return found;
}

const EVEN_HIGH_SOC = 0.6;
const rounded = (value: number): number => Math.round(value * 1000) / 1000;
