import {
  batteryBar,
  type Chemistry,
  freezePointC,
  restVoltsAt,
  socFromRestVolts,
  type SocReading,
} from '../battery/index.js';
import { CHARGE_VOLTS } from '../charging/index.js';
import { interpolate } from '../quantities/index.js';
import { CRANK_MINIMUM_BY_TEMPERATURE, type HouseRules } from '../rules/index.js';

/** How a reading should be felt: fine, worth watching, bad, or a reason to stop. */
export type Tone = 'good' | 'watch' | 'bad' | 'stop';

export type RestMeaningCode =
  | 'charged'
  | 'part-charged'
  | 'low'
  | 'flat'
  | 'dead-cell-or-deep'
  | 'maybe-reversed'
  | 'reversed'
  | 'frozen'
  | 'surface-charge'
  | 'bank-spent'
  | 'bank-over';

export interface RestMeaning {
  readonly code: RestMeaningCode;
  readonly tone: Tone;
  readonly charge: SocReading;
  /** Null for a battery that cannot freeze. */
  readonly freezeC: number | null;
}

/** Above its full curve by this much, a reading is surface charge and proves nothing, volts. */
export const SURFACE_CHARGE_VOLTS = 0.12;
/** Charge that counts as charged where no rest voltage is agreed on, and below which a battery counts as low. */
const CHARGED_SOC = 0.85;
const LOW_SOC = 0.5;

/**
 * Judges the rest volts of one 12 V battery. The worst meaning wins.
 *
 * @param coldestC the coldest it has been since it last ran, degC
 * @example restMeaning('agm', 12.8, 20, DEFAULT_RULES).code // => 'charged'
 */
export function restMeaning(
  chemistry: Chemistry,
  restVolts: number,
  tempC: number,
  rules: HouseRules,
  coldestC: number = tempC,
): RestMeaning {
  const charge = socFromRestVolts(chemistry, restVolts, tempC);
  const freezeC = freezePointC(chemistry, charge.low, restVolts);
  const say = (code: RestMeaningCode, tone: Tone): RestMeaning => ({ code, tone, charge, freezeC });
  const bar = batteryBar(chemistry, restVolts, coldestC);
  if (bar) return say(bar, 'stop');
  // A bank has no flat line: it cranks down to the cut-off, and its cells have a limit.
  if (chemistry === 'capacitor') {
    if (restVolts > CHARGE_VOLTS.capacitor.most) return say('bank-over', 'stop');
    if (restVolts < rules.capacitorMinVolts) return say('bank-spent', 'bad');
    return charge.soc >= CHARGED_SOC ? say('charged', 'good') : say('part-charged', 'watch');
  }
  if (restVolts < rules.reversedVolts) return say('maybe-reversed', 'bad');
  if (restVolts < rules.deadCellVolts) return say('dead-cell-or-deep', 'bad');
  if (charge.belowFlat) return say('flat', 'bad');
  if (charge.soc < LOW_SOC) return say('low', 'watch');
  if (restVolts > restVoltsAt(chemistry, 1, tempC) + SURFACE_CHARGE_VOLTS)
    return say('surface-charge', 'watch');
  const isCharged = chemistry === 'flooded' ? restVolts >= rules.fullVolts : charge.soc >= CHARGED_SOC;
  return isCharged ? say('charged', 'good') : say('part-charged', 'good');
}

/**
 * The least volts a sound battery may fall to while cranking, for the whole string, at `tempC`.
 *
 * @example crankLimitVolts(-18, 12) // => 8.50
 */
export function crankLimitVolts(tempC: number, systemVolts: 12 | 24): number {
  return (interpolate(CRANK_MINIMUM_BY_TEMPERATURE, tempC) * systemVolts) / 12;
}

/**
 * The distance of a string's least volts under a crank from a sound one's limit now, V per 12 V.
 *
 * @example againstCrankLimit(8.4, -18, 12) // => -0.10
 */
export function againstCrankLimit(minimumVolts: number, tempC: number, systemVolts: 12 | 24): number {
  return (minimumVolts * 12) / systemVolts - crankLimitVolts(tempC, 12);
}

export type CrankMeaningCode = 'holds' | 'early-warning' | 'under-limit' | 'collapses';
export interface CrankMeaning {
  readonly code: CrankMeaningCode;
  readonly tone: Tone;
  readonly limitVolts: number;
  /** False while the battery is too low to be condemned on this figure. */
  readonly mayCondemn: boolean;
}

/**
 * Judges a crank minimum.
 *
 * @param restSoc charge when the crank began, null when not known: then it may not condemn
 * @example crankMeaning(8.1, 20, 12, 0.9, DEFAULT_RULES).limitVolts // => 9.58
 */
export function crankMeaning(
  minimumVolts: number,
  tempC: number,
  systemVolts: 12 | 24,
  restSoc: number | null,
  rules: HouseRules,
): CrankMeaning {
  const per12 = (minimumVolts * 12) / systemVolts;
  const limitVolts =
    rules.crankMinimum === 'strict'
      ? (rules.crankMinimumStrictVolts * systemVolts) / 12
      : crankLimitVolts(tempC, systemVolts);
  const mayCondemn = restSoc !== null && restSoc >= rules.judgeMinSoc;
  const say = (code: CrankMeaningCode, tone: Tone): CrankMeaning => ({ code, tone, limitVolts, mayCondemn });
  if (per12 < rules.crankMinimumBadVolts) return say('collapses', 'bad');
  if (minimumVolts < limitVolts) return say('under-limit', 'bad');
  return per12 < rules.crankMinimumStrictVolts ? say('early-warning', 'watch') : say('holds', 'good');
}

export type ChargingMeaningCode =
  | 'charging'
  | 'high-but-normal'
  | 'weak'
  | 'not-charging'
  | 'above-band'
  | 'over-voltage';
export interface ChargingMeaning {
  readonly code: ChargingMeaningCode;
  readonly tone: Tone;
  readonly bandVolts: readonly [number, number];
}

/** Under this nothing charges; from here to the band a flat battery may hold an idling alternator down, V per 12 V. */
export const CHARGES_FROM_VOLTS = 13;

/** Below this a battery is charged higher by intent, degC. */
const COLD_CHARGING_C = 5;

/** Judges a charging voltage, engine running (or a converter at work). */
export function chargingMeaning(
  chargingVolts: number,
  chemistry: Chemistry,
  tempC: number,
  systemVolts: 12 | 24,
  rules: HouseRules,
): ChargingMeaning {
  const batteries = systemVolts / 12;
  const per12 = chargingVolts / batteries;
  const high =
    chemistry === 'agm' || tempC < COLD_CHARGING_C ? rules.chargingMaxVoltsAgmOrCold : rules.chargingMaxVolts;
  const bandVolts = [rules.chargingMinVolts * batteries, high * batteries] as const;
  const say = (code: ChargingMeaningCode, tone: Tone): ChargingMeaning => ({ code, tone, bandVolts });
  if (per12 > rules.chargingStopVolts) return say('over-voltage', 'stop');
  if (per12 > high) return say('above-band', 'bad');
  if (per12 < CHARGES_FROM_VOLTS) return say('not-charging', 'bad');
  if (per12 < rules.chargingMinVolts) return say('weak', 'watch');
  const warmFlooded = chemistry === 'flooded' && tempC >= COLD_CHARGING_C;
  return warmFlooded && per12 > rules.chargingNoteVolts
    ? say('high-but-normal', 'good')
    : say('charging', 'good');
}
