import { bankFarads, batteryBar, type BatteryBar, type BatteryRating, REST_VOLTS } from '../battery/index.js';
import { requireInRange } from '../quantities/index.js';
import { OVER_DISCHARGED_SHARE } from './lend.js';

/** A healthy battery in parallel with a flat one through a lamp or resistor. It lifts the flat one over a charger's sense voltage. */
export interface Revival {
  /** Rest volts before, and of the healthy battery. */
  readonly fromVolts: number;
  readonly towardVolts: number;
  /** Time in which two thirds of the difference are made up, min. */
  readonly tauMinutes: number;
  /** At the moment of joining. */
  readonly contactAmps: number;
  readonly peakWatts: number;
  /** Until the flat battery rests above the sense voltage; null when it cannot. */
  readonly minutes: number | null;
  /** Burnt in the lamp or resistor on the way, J. */
  readonly joules: number;
  /** Why it must not be tried, when it must not. */
  readonly refused: BatteryBar | 'lithium' | null;
}

/**
 * How a battery below a charger's sense voltage is lifted over it. Between 0 V and its flat line it behaves as a large capacitor: the
 * charge that it must take back over the volts that it must rise. A capacitor bank is one from nothing to full.
 *
 * @param ohms lamp or resistor with leads
 * @param coldestC the coldest it has been, degC
 * @throws RangeError for figures that are not physical
 */
export function revive(
  rating: BatteryRating,
  restVolts: number,
  healthyVolts: number,
  senseVolts: number,
  ohms: number,
  coldestC: number,
): Revival {
  requireInRange('resistance', ohms, { min: 0.05, max: 100, unit: 'ohm' });
  requireInRange('healthy battery', healthyVolts, { min: 10, max: 15, unit: 'V' });
  requireInRange('rest volts', restVolts, { min: -15, max: 15, unit: 'V' });
  const difference = healthyVolts - restVolts;
  const flatVolts = REST_VOLTS[rating.chemistry][0]![1];
  const farads = bankFarads(rating) ?? (OVER_DISCHARGED_SHARE * rating.capacityAh * 3600) / flatVolts;
  const left = healthyVolts - senseVolts;
  const isThere = restVolts >= senseVolts;
  const minutes = isThere ? 0 : left > 0 ? (ohms * farads * Math.log(difference / left)) / 60 : null;
  return {
    ...{ fromVolts: restVolts, towardVolts: healthyVolts, tauMinutes: (ohms * farads) / 60 },
    contactAmps: difference / ohms,
    peakWatts: difference ** 2 / ohms,
    minutes,
    joules: isThere || left <= 0 ? 0 : (farads / 2) * (difference ** 2 - left ** 2),
    refused: rating.chemistry === 'lfp' ? 'lithium' : batteryBar(rating.chemistry, restVolts, coldestC),
  };
}
