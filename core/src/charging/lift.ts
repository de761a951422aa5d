import type { Revival } from './revive.js';

/** Hand work of a lift over a charger's sense voltage, in its order. */
export const LIFT_STEPS = ['prove-polarity', 'look-at-case', 'join-lamp', 'part-lamp'] as const;
export type LiftStep = (typeof LIFT_STEPS)[number];

/** A look at a lift under way. */
export interface LiftReading {
  /** At the posts of the flat battery, the lamp still on. */
  readonly volts: number;
  readonly isWarm: boolean;
}

/** The story that the volts of a lift tell. `over`: its charger takes it. `stays`: cells are shorted. `early`: neither can be told yet. */
export type LiftState = 'over' | 'rises' | 'early' | 'stays' | 'warm';

/** The least rise to expect before volts that stay tell anything, V: five steps of a meter at posts that are not clean. */
export const LIFT_TELLS_VOLTS = 0.3;
/** Less than this share of the expected rise is none: the dullest deep discharge makes half of it. */
export const LIFT_STAYS_SHARE = 0.25;

/**
 * Returns what a look at a lift tells. Use it to say go on, take it off, or put it on the charger.
 *
 * @param lift as worked out before the lamp was joined
 * @param minutes since then
 * @example judgeLift({ fromVolts: 2.1, towardVolts: 12.6, tauMinutes: 40 }, 8, 10, { volts: 2.2, isWarm: false }) // => 'stays'
 */
export function judgeLift(
  { fromVolts, towardVolts, tauMinutes }: Pick<Revival, 'fromVolts' | 'towardVolts' | 'tauMinutes'>,
  senseVolts: number,
  minutes: number,
  { volts, isWarm }: LiftReading,
): LiftState {
  if (isWarm) return 'warm';
  if (volts >= senseVolts) return 'over';
  const expectedRise = (towardVolts - fromVolts) * (1 - Math.exp(-minutes / tauMinutes));
  if (expectedRise < LIFT_TELLS_VOLTS) return 'early';
  return volts - fromVolts < LIFT_STAYS_SHARE * expectedRise ? 'stays' : 'rises';
}
