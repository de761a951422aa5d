import { USABLE_SHARE } from '../charging/index.js';
import { requireInRange } from '../quantities/index.js';
import { usableJoules } from './bank.js';

/** Weight and room that a store takes. */
export interface StoreSize {
  readonly kg: number;
  readonly litres: number;
}

/** The energy of a store of charge, and by weight and room. */
export interface StoredEnergy {
  readonly wattHours: number;
  readonly perKg: number;
  readonly perLitre: number;
}

const SIZES = {
  kg: { min: 0.001, max: 1000, unit: 'kg' },
  litres: { min: 0.001, max: 1000, unit: 'l' },
} as const;
const JOULES_A_WATT_HOUR = 3600;
const NOMINAL_VOLTS = 12;

function spread(wattHours: number, { kg, litres }: StoreSize): StoredEnergy {
  requireInRange('weight', kg, SIZES.kg);
  requireInRange('room', litres, SIZES.litres);
  return { wattHours, perKg: wattHours / kg, perLitre: wattHours / litres };
}

/** Returns the energy of a bank between two voltages. @throws RangeError for a size that is not physical */
export const bankEnergy = (
  farads: number,
  fromVolts: number,
  toVolts: number,
  size: StoreSize,
): StoredEnergy => spread(usableJoules(farads, fromVolts, toVolts) / JOULES_A_WATT_HOUR, size);

/** Returns the energy of a 12 V battery before a start is in doubt: half its capacity. @throws RangeError for a size that is not physical */
export const batteryEnergy = (capacityAh: number, size: StoreSize): StoredEnergy =>
  spread(USABLE_SHARE * capacityAh * NOMINAL_VOLTS, size);

/**
 * Seconds that a store holds a load of so many watts: a converter behind it takes the same power at any volts.
 *
 * @throws RangeError for a load that is not above zero
 * @example holdsLoadSeconds({ wattHours: 1 }, 60) // => 60
 */
export function holdsLoadSeconds({ wattHours }: StoredEnergy, watts: number): number {
  if (!(watts > 0)) throw new RangeError('the load must be above zero');
  return (wattHours * JOULES_A_WATT_HOUR) / watts;
}
