import type { BatteryRating } from '../battery/index.js';
import { CHARGE_FACTOR, chargeHours } from './charge-time.js';

/**
 * Charge that a start takes out of a battery, Ah.
 *
 * @example startCostAh(200, 3) // => 0.17
 */
export function startCostAh(amps: number, seconds: number): number {
  return (amps * seconds) / 3600;
}

/** The charge that a drive puts back. */
export interface DriveCharge {
  /** To put back what the start itself took. */
  readonly startMinutes: number;
  /** To reach the target; null when no drive of five days does. */
  readonly targetMinutes: number | null;
  /** A drive of a workable length does not do it: use a charger. */
  readonly needsCharger: boolean;
}

/** The longest drive worth advising instead of a charger, minutes. */
export const LONGEST_DRIVE_MIN = 60;

/**
 * Minutes of driving to put back what a start took, and to bring a flat battery up to a target.
 *
 * @param spareAmps what the alternator has left beyond lamps, blower and heated screen
 * @param startAh charge of the start, from `startCostAh`
 * @throws RangeError for a current that is not above zero or a target below the charge
 */
export function driveMinutes(
  rating: BatteryRating,
  soc: number,
  targetSoc: number,
  spareAmps: number,
  startAh: number,
  tempC: number,
): DriveCharge {
  const hours = chargeHours(rating, soc, targetSoc, spareAmps, tempC);
  const back = Math.min(1, soc + startAh / rating.capacityAh);
  const startHours = chargeHours(rating, soc, back, spareAmps, tempC);
  const targetMinutes = hours === null ? null : hours * 60;
  return {
    startMinutes:
      startHours === null ? (startAh * CHARGE_FACTOR[rating.chemistry] * 60) / spareAmps : startHours * 60,
    targetMinutes,
    needsCharger: targetMinutes === null || targetMinutes > LONGEST_DRIVE_MIN,
  };
}
