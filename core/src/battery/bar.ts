import { cellsOf } from './battery.js';
import { type Chemistry, isLeadAcid } from './chemistry.js';
import { mustTreatAsFrozen } from './freezing.js';
import { socFromRestVolts } from './rest-volts.js';

/** A battery that reads this far below zero per cell has been driven backwards, V: less may be a meter that is off by a digit. */
export const REVERSED_PER_CELL_VOLTS = -0.05;

/** The states that forbid any current through a battery, from outside or from its own starter. */
export const BATTERY_BARS = ['reversed', 'frozen'] as const;
export type BatteryBar = (typeof BATTERY_BARS)[number];

/**
 * The coldest that a battery has been, degC: now, or as it was noted of the time since its machine last ran.
 *
 * @example coldestOf(-2, -9) // => -9
 */
export const coldestOf = (tempC: number, noted?: number | null): number => Math.min(tempC, noted ?? tempC);

/**
 * Why no current may be put through a battery: the one place that decides it, for plan, hook-up, crank, charge, revival and verdict.
 *
 * @param restVolts of one 12 V battery, below zero where the meter says so; null where not read: then nothing is known against it
 * @param coldestC the coldest it has been, as far as is known, degC
 * @example batteryBar('flooded', 9, -6) // => 'frozen'
 */
export function batteryBar(
  chemistry: Chemistry,
  restVolts: number | null,
  coldestC: number,
): BatteryBar | null {
  if (restVolts === null) return null;
  if (restVolts < REVERSED_PER_CELL_VOLTS * cellsOf(chemistry)) return 'reversed';
  if (!isLeadAcid(chemistry)) return null;
  const { low } = socFromRestVolts(chemistry, restVolts, coldestC);
  return mustTreatAsFrozen(chemistry, low, coldestC, restVolts) ? 'frozen' : null;
}
