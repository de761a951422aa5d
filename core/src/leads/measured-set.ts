import { parameter } from '../quantities/index.js';
import { type LeadSet, leadSetOhms } from './lead-set.js';

/** Volts at both ends of a lead set in one moment, and the amps that flowed through it. */
export interface LeadReading {
  /** Between the two clamps at the source's end, V. */
  readonly sourceVolts: number;
  /** Between the two clamps at the casualty's end, V. */
  readonly casualtyVolts: number;
  /** Through either lead, A. */
  readonly amps: number;
}

/** A lead set against a new one of its kind: 1 is as new, 1.3 has lost 30 %. */
export interface MeasuredFactor {
  readonly factor: number;
  /** Standard deviation of it. */
  readonly spread: number;
}

/** One use of a set that measured it. */
export interface LeadUse extends MeasuredFactor {
  readonly jobId: string;
  /** ISO 8601. */
  readonly at: string;
}

/** Two meters, or one moved from end to end, differ by so much, V. */
export const END_VOLTS_DEVIATION = parameter(0.03, {
  id: 'lead.endVolts',
  name: 'doubt of the volts at one end of the leads',
  low: 0.01,
  high: 0.1,
  unit: 'V',
  reason: 'One meter moved from end to end while the amps change a little.',
});
/** A clamp meter reads so far off, as a share. */
export const CLAMP_METER_SHARE = 0.03;
/** Fewer amps lose too few volts to tell anything, A. */
export const LEAST_LEAD_AMPS = 10;
/** From one use to the next the contact of four clamps differs, as a share of the whole. */
export const BETWEEN_USES_SHARE = parameter(0.1, {
  id: 'lead.betweenUses',
  name: 'contact of the clamps from use to use',
  low: 0.05,
  high: 0.3,
  unit: 'of the whole',
  reason: 'Jaws never bite the same metal twice.',
});
/** The prior of a set that nobody has measured: as new, within this. Wide, so that one good measurement outweighs it. */
const UNMEASURED_SPREAD = 1;
/** A set that measures so much worse than new is marked. */
export const LOST_FACTOR = parameter(1.3, {
  id: 'lead.lost',
  name: 'a lead set is marked from',
  low: 1.2,
  high: 1.5,
  unit: 'times new',
  reason: 'Thirty per cent more loss is felt at the starter, and clamps are as a rule the cause.',
});
/** Uses that count: a set wears, and is cleaned. */
export const USES_KEPT = 6;

/**
 * Returns the measurement of a set in one moment: the volts lost between its ends over the amps, against the loss of a new set of its kind.
 *
 * @param tempC of the leads
 * @returns null where the amps are too few, or nothing was lost, to tell anything
 * @example measuredFactor({ sourceVolts: 12.9, casualtyVolts: 11.7, amps: 200 }, set, 20) // 1.2 V at 200 A are 6 mohm
 */
export function measuredFactor(
  { sourceVolts, casualtyVolts, amps }: LeadReading,
  set: LeadSet,
  tempC: number,
): MeasuredFactor | null {
  const lost = sourceVolts - casualtyVolts;
  if (amps < LEAST_LEAD_AMPS || lost <= 0) return null;
  const asNew = leadSetOhms({ ...set, ohmsFactor: 1 }, tempC);
  const ohms = lost / amps;
  const spread = Math.hypot((Math.SQRT2 * END_VOLTS_DEVIATION) / amps, ohms * CLAMP_METER_SHARE);
  return { factor: ohms / asNew, spread: spread / asNew };
}

/**
 * A set as its uses have measured it: each weighed by its doubt, beside what is known of any set.
 *
 * @param uses oldest first; the last few count
 * @returns null where none has measured it
 */
export function factorOver(uses: readonly MeasuredFactor[]): MeasuredFactor | null {
  const counted = uses.slice(-USES_KEPT);
  if (counted.length === 0) return null;
  const seen = [
    { factor: 1, weight: 1 / UNMEASURED_SPREAD ** 2 },
    ...counted.map(({ factor, spread }) => ({
      factor,
      weight: 1 / (spread ** 2 + (BETWEEN_USES_SHARE * factor) ** 2),
    })),
  ];
  const whole = seen.reduce((sum, { weight }) => sum + weight, 0);
  return {
    factor: seen.reduce((sum, { factor, weight }) => sum + factor * weight, 0) / whole,
    spread: 1 / Math.sqrt(whole),
  };
}

/**
 * A set has surely lost so much that it is to be looked at: even the better end of its doubt is worse than allowed.
 *
 * @example hasLost({ factor: 1.5, spread: 0.1 }) // => true
 */
export const hasLost = ({ factor, spread }: MeasuredFactor): boolean => factor - spread >= LOST_FACTOR;
