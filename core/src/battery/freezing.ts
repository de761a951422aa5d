import { interpolate, type Knots } from '../quantities/index.js';
import { type Chemistry, isLeadAcid } from './chemistry.js';

/** Freezing point of the electrolyte by state of charge, degC. AGM and gel by the same table. */
const FREEZE_C_BY_SOC: Knots = [
  [0, -11],
  [0.25, -16],
  [0.5, -24],
  [0.75, -37],
  [1, -59],
];

/** Freezing point by rest volts once over-discharged: near water when nearly all the acid is spent. */
const FREEZE_C_BELOW_FLAT: Knots = [
  [8, -1],
  [11.8, -11],
];

/**
 * Temperature at which a battery of this charge freezes, degC.
 *
 * @param restVolts give it when known: below the flat line it says how over-discharged the battery is
 * @returns null for LFP, which has no acid to freeze
 * @example freezePointC('flooded', 0.5) // => -24
 */
export function freezePointC(chemistry: Chemistry, soc: number, restVolts?: number): number | null {
  if (!isLeadAcid(chemistry)) return null;
  const byCharge = interpolate(FREEZE_C_BY_SOC, soc);
  if (restVolts === undefined || soc > 0) return byCharge;
  return Math.max(byCharge, interpolate(FREEZE_C_BELOW_FLAT, restVolts));
}

/** Acid may be ice this far above its freezing point by the table: a reading, the air and the night are not known better, degC. */
const FREEZE_MARGIN_C = 2;
/** Above this nothing freezes, however spent the acid, degC. */
const ICE_MOST_C = -0.5;

/**
 * True when a battery that has stood at `ambientC` must be treated as frozen until warmed. Uses the low end of the charge band.
 *
 * @example mustTreatAsFrozen('flooded', 0.1, -15) // => true
 */
export function mustTreatAsFrozen(
  chemistry: Chemistry,
  lowSoc: number,
  ambientC: number,
  restVolts?: number,
): boolean {
  const point = freezePointC(chemistry, lowSoc, restVolts);
  return point !== null && ambientC <= Math.min(ICE_MOST_C, point + FREEZE_MARGIN_C);
}
