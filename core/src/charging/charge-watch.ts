import { parameter } from '../quantities/index.js';
import type { BatteryRating } from '../battery/index.js';
import { CHARGE_FACTOR, chargeHours } from './charge-time.js';
import { CHARGE_VOLTS } from './charger.js';

/** A reading of a charge that is under way. */
export interface ChargeReading {
  readonly volts: number;
  readonly amps: number;
  /** The case is warmer than the hand likes. */
  readonly isWarm: boolean;
}

/** The state of a charge when it began, and how long it has gone on. */
export interface ChargeSoFar {
  readonly rating: BatteryRating;
  /** Charge before it, 0 to 1. */
  readonly fromSoc: number;
  readonly toSoc: number;
  readonly tempC: number;
  readonly minutes: number;
  /** Current that the charger was set to, A. */
  readonly setAmps: number;
}

export const CHARGE_STATES = [
  'hot',
  'over-volts',
  'full-at-once',
  'full',
  'takes-nothing',
  'tapering',
  'charging',
] as const;
export type ChargeState = (typeof CHARGE_STATES)[number];

export interface ChargeJudged {
  readonly state: ChargeState;
  /** Hours still to go; null where that is not asked. */
  readonly hoursLeft: number | null;
}

/** Above the end of its charge volts a battery boils, V. */
const OVER_VOLTS = 0.3;
/** A battery that takes less than this share of its capacity per hour, held at its end volts, is full. */
const END_SHARE_PER_H = parameter(0.02, {
  id: 'charge.endShare',
  name: 'amps at which a battery is full',
  low: 0.01,
  high: 0.03,
  unit: 'of capacity per hour',
  reason: 'Held at its end volts, what is left goes into gas and heat.',
});
/** A capacitor bank at its volts takes no more than leakage, and a meter cannot tell that from nothing, A. */
const BANK_END_AMPS = 0.3;
/** From below half its charge a sound battery is not full within this, min: less is a battery that can hold nothing. */
const AT_ONCE_MIN = parameter(15, {
  id: 'charge.atOnce',
  name: 'full too soon, from flat',
  low: 5,
  high: 30,
  unit: 'min',
  reason: 'A flat battery that is full in minutes has lost its capacity.',
});
const HALF_SOC = 0.5;
/** A charger holds a battery once it is within this of its charge volts, V. */
const HELD_WITHIN_VOLTS = 0.2;
/** Under this share of the current that was set, the current of a held battery falls. */
const FALLING_SHARE = 0.9;
/** Held this far under its charge volts and taking next to nothing, it is not joined, V. */
const NOT_HELD_VOLTS = 1;

/**
 * Judges a reading of a charge under way, the dangerous first: warm, above its volts, full far too soon, full, nothing taken. The hours
 * left are told while the charger still gives the current that was set: after that they cannot be known from one reading.
 */
export function judgeCharge(
  { rating, fromSoc, toSoc, tempC, minutes, setAmps }: ChargeSoFar,
  { volts, amps, isWarm }: ChargeReading,
): ChargeJudged {
  const is = (state: ChargeState, hoursLeft: number | null = null): ChargeJudged => ({ state, hoursLeft });
  const { least, most } = CHARGE_VOLTS[rating.chemistry];
  if (isWarm) return is('hot');
  if (volts > most + OVER_VOLTS) return is('over-volts');
  const isBank = rating.chemistry === 'capacitor';
  if (amps < (isBank ? BANK_END_AMPS : END_SHARE_PER_H * rating.capacityAh)) {
    if (volts < least - NOT_HELD_VOLTS) return is('takes-nothing');
    if (isBank) return is('full', 0);
    return is(fromSoc < HALF_SOC && minutes <= AT_ONCE_MIN ? 'full-at-once' : 'full', 0);
  }
  // From here on the battery decides, and its current says nothing of the hours.
  if (volts >= least - HELD_WITHIN_VOLTS && amps < FALLING_SHARE * setAmps) return is('tapering');
  const givenAh = (amps * minutes) / 60 / CHARGE_FACTOR[rating.chemistry];
  const nowSoc = Math.min(toSoc, fromSoc + givenAh / rating.capacityAh);
  return is('charging', chargeHours(rating, nowSoc, toSoc, amps, tempC));
}
