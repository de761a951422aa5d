import {
  interpolate,
  inverseOf,
  type Knots,
  type Range,
  requireInRange,
  parameter,
} from '../quantities/index.js';
import type { SocReading } from './rest-volts.js';

/** Specific gravity of the acid at 27 degC by state of charge: the trade's usual table for flooded batteries. */
export const GRAVITY_BY_SOC: Knots = [
  [0, 1.12],
  [0.25, 1.155],
  [0.5, 1.19],
  [0.75, 1.225],
  [1, 1.265],
];
/** Temperature the table is stated at, degC. */
export const GRAVITY_REFERENCE_C = 27;
/** Warm acid is thinner: what a reading is raised by per degC above the table's temperature (0.004 per 6 degC). */
export const GRAVITY_PER_DEGC = parameter(0.004 / 6, {
  id: 'gravity.perDegC',
  name: 'specific gravity per degree',
  low: 0.0006,
  high: 0.00075,
  unit: '1/degC',
  reason: '0.004 per 6 degC: warm acid is thinner.',
});
/** How far a hydrometer and the acid's layering may mislead, either way. */
export const GRAVITY_SPREAD = parameter(0.005, {
  id: 'gravity.spread',
  name: 'spread of a hydrometer reading',
  low: 0.003,
  high: 0.01,
  unit: '',
  reason: 'Layered acid and a wet float.',
});
/** Cells further apart than this: one of them is bad. */
export const GRAVITY_BAD_SPREAD = 0.05;

export const GRAVITY_RANGE = { min: 1, max: 1.4, unit: '' } as const satisfies Range;

/**
 * State of charge of one flooded cell from its specific gravity, with its band. @throws RangeError for no gravity of acid
 *
 * @example socFromGravity(1.2, 25).soc // => 0.56
 */
export function socFromGravity(gravity: number, tempC: number): SocReading {
  requireInRange('specific gravity', gravity, GRAVITY_RANGE);
  const at27 = gravity + GRAVITY_PER_DEGC * (tempC - GRAVITY_REFERENCE_C);
  const inverse = inverseOf(GRAVITY_BY_SOC);
  return {
    soc: interpolate(inverse, at27),
    low: interpolate(inverse, at27 - GRAVITY_SPREAD),
    high: interpolate(inverse, at27 + GRAVITY_SPREAD),
    belowFlat: at27 < GRAVITY_BY_SOC[0]![1],
  };
}

/**
 * The reading a hydrometer shows at this charge and temperature: the way back.
 *
 * @example gravityAt(1, 25) // => 1.266
 */
export function gravityAt(soc: number, tempC: number): number {
  return interpolate(GRAVITY_BY_SOC, soc) - GRAVITY_PER_DEGC * (tempC - GRAVITY_REFERENCE_C);
}

/** Six cells read one by one. */
export interface GravityReading extends SocReading {
  readonly spread: number;
  /** Index of the cell that stands out, when the spread says one is bad; otherwise null. */
  readonly badCell: number | null;
}

/**
 * Charge of a battery from its cells: the mean, and whether one cell stands out. @throws RangeError without a cell
 *
 * @example socFromCells([1.265, 1.265, 1.12, 1.265, 1.265, 1.265], 27).spread // => 0.145
 */
export function socFromCells(gravities: readonly number[], tempC: number): GravityReading {
  if (gravities.length === 0) throw new RangeError('give at least one cell');
  const mean = gravities.reduce((sum, g) => sum + g, 0) / gravities.length;
  const lowest = Math.min(...gravities);
  const spread = Math.max(...gravities) - lowest;
  return {
    ...socFromGravity(mean, tempC),
    spread,
    badCell: spread > GRAVITY_BAD_SPREAD ? gravities.indexOf(lowest) : null,
  };
}
