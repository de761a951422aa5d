import { interpolate, inverseOf, type Knots, parameter } from '../quantities/index.js';
import {
  type Chemistry,
  isLeadAcid,
  REST_REFERENCE_C,
  REST_VOLTS,
  REST_VOLTS_PER_DEGC,
} from './chemistry.js';

/** How far a rested reading strays from the curve between makes and ages of battery, volts either way. */
export const CURVE_SPREAD_VOLTS = parameter(0.04, {
  id: 'rest.spread',
  name: 'spread of a rest reading, lead-acid',
  low: 0.02,
  high: 0.08,
  unit: 'V',
  reason: 'Makes and ages differ around the curve.',
});
/** LFP rests higher after charge than after discharge: volts either way, wide against its flat middle. */
export const LFP_SPREAD_VOLTS = parameter(0.05, {
  id: 'rest.spreadLfp',
  name: 'spread of a rest reading, LFP',
  low: 0.03,
  high: 0.1,
  unit: 'V',
  reason: 'It rests higher after charge than after discharge.',
});

function temperatureTerm(chemistry: Chemistry, tempC: number): number {
  return isLeadAcid(chemistry) ? REST_VOLTS_PER_DEGC * (tempC - REST_REFERENCE_C) : 0;
}

/**
 * Rested open-circuit volts of a 12 V battery at state of charge `soc` (0 to 1) and `tempC`.
 *
 * @example restVoltsAt('flooded', 0.5, 25) // => 12.25
 */
export function restVoltsAt(chemistry: Chemistry, soc: number, tempC: number): number {
  return interpolate(REST_VOLTS[chemistry], soc) + temperatureTerm(chemistry, tempC);
}

/**
 * The whole curve of rest volts by state of charge at `tempC`.
 *
 * @example restVoltsByCharge('flooded', 25).find(([soc]) => soc === 0.5)[1] // => 12.25
 */
export function restVoltsByCharge(chemistry: Chemistry, tempC: number): Knots {
  const shift = temperatureTerm(chemistry, tempC);
  return REST_VOLTS[chemistry].map(([soc, volts]) => [soc, volts + shift] as const);
}

/** A state of charge read from rest volts, with the band it may truly lie in. Fractions of full. */
export interface SocReading {
  readonly soc: number;
  readonly low: number;
  readonly high: number;
  /** The reading lies under the curve's foot: deeply discharged, or a cell is dead. */
  readonly belowFlat: boolean;
}

/**
 * State of charge from the rest volts of one 12 V battery.
 *
 * @param restVolts terminal volts with the surface charge gone
 * @param tempC temperature of the acid, degC
 * @example socFromRestVolts('flooded', 12.2, 25).soc // => 0.44
 */
export function socFromRestVolts(chemistry: Chemistry, restVolts: number, tempC: number): SocReading {
  const at25 = restVolts - temperatureTerm(chemistry, tempC);
  const inverse = inverseOf(REST_VOLTS[chemistry]);
  const spread = isLeadAcid(chemistry) ? CURVE_SPREAD_VOLTS : LFP_SPREAD_VOLTS;
  const flatVolts = REST_VOLTS[chemistry][0]![1];
  return {
    soc: interpolate(inverse, at25),
    low: interpolate(inverse, at25 - spread),
    high: interpolate(inverse, at25 + spread),
    belowFlat: at25 < flatVolts,
  };
}
