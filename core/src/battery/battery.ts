import { interpolate, type Knots, type Range, requireInRange, parameter } from '../quantities/index.js';
import { convertCca, type CcaStandard } from './cca.js';
import { BANK_FULL_VOLTS, type Chemistry } from './chemistry.js';
import { restVoltsAt, restVoltsByCharge } from './rest-volts.js';

/** The rating printed on a battery: one 12 V battery. */
export interface BatteryRating {
  readonly chemistry: Chemistry;
  /** 20 h capacity. */
  readonly capacityAh: number;
  readonly ccaAmps: number;
  readonly ccaStandard: CcaStandard;
}

/** The state a battery is in. */
export interface BatteryState {
  /** Fraction of full, 0 to 1. */
  readonly soc: number;
  readonly tempC: number;
  /** Resistance against new: 1 = new, 2 = twice. */
  readonly ageing: number;
  /** Rest volts when below the flat line (over-discharged or a dead cell); otherwise left out. */
  readonly overDischargedVolts?: number;
  /** Shorted cells of the six (or of the four of LFP): each gives nothing. Left out: none. */
  readonly deadCells?: number;
  /** Charged the wrong way round: its volts point backwards. */
  readonly reversed?: boolean;
}

/**
 * Cells in series of a 12 V battery.
 *
 * @example cellsOf('flooded') // => 6
 */
export function cellsOf(chemistry: Chemistry): number {
  return chemistry === 'lfp' ? 4 : 6;
}

export const BATTERY_RANGES = {
  /** The least is a capacitor bank's of some 25 F. */
  capacityAh: { min: 0.1, max: 400, unit: 'Ah' },
  ccaAmps: { min: 20, max: 2500, unit: 'A' },
  soc: { min: 0, max: 1, unit: '' },
  ageing: { min: 1, max: 20, unit: 'times new' },
  deadCells: { min: 0, max: 6, unit: 'cells' },
} as const satisfies Record<string, Range>;

/** End volts and temperature of the cold-cranking test that anchors the resistance. */
export const CCA_END_VOLTS = parameter(7.2, {
  id: 'cca.endVolts',
  name: 'end volts of the cold-cranking test',
  low: 7.2,
  high: 7.5,
  unit: 'V',
  reason: 'The current that pulls a full battery to this fixes its resistance.',
});
export const CCA_TEMP_C = parameter(-18, {
  id: 'cca.tempC',
  name: 'temperature of the cold-cranking test',
  low: -18,
  high: -18,
  unit: 'degC',
  reason: 'Of the SAE test.',
});
/** Resistance at 25 degC against -18 degC for lead-acid. */
export const WARM_RESISTANCE_RATIO = parameter(0.55, {
  id: 'battery.warm',
  name: 'resistance at 25 degC against -18 degC',
  low: 0.45,
  high: 0.65,
  unit: '',
  reason: 'Acid conducts better warm.',
});
const WARM_TEMP_C = 25;

/** Resistance against full by state of charge: the plates starve of acid in the last tenth. */
export const RESISTANCE_BY_SOC: Knots = [
  [0, 11],
  [0.03, 7.4],
  [0.1, 3.2],
  [0.25, 1.7],
  [0.5, 1.25],
  [0.75, 1.08],
  [1, 1],
];

/** A capacitor bank resists alike at any charge. */
const RESISTANCE_OF_BANK: Knots = [
  [0, 1],
  [1, 1],
];

/** Resistance against full by state of charge. */
export const resistanceByCharge = (chemistry: Chemistry): Knots =>
  chemistry === 'capacitor' ? RESISTANCE_OF_BANK : RESISTANCE_BY_SOC;

/** Over-discharged acid is nearly water: resistance climbs further as the rest volts fall below flat. */
const RESISTANCE_BELOW_FLAT: Knots = [
  [2, 6],
  [8, 3],
  [11.8, 1],
];

/**
 * Internal resistance of one 12 V battery, ohms: anchored on its cold-cranking amps (7.2 V from a full battery at -18 degC). Temperature,
 * charge and age scale it.
 *
 * @throws RangeError for a rating or state that is not physical
 * @example batteryOhms({ chemistry: 'flooded', capacityAh: 60, ccaAmps: 540, ccaStandard: 'EN' }, { soc: 1, tempC: 20, ageing: 1 }) // => 0.0057
 */
export function batteryOhms(rating: BatteryRating, state: BatteryState): number {
  requireInRange('CCA', rating.ccaAmps, BATTERY_RANGES.ccaAmps);
  requireInRange('state of charge', state.soc, BATTERY_RANGES.soc);
  requireInRange('ageing', state.ageing, BATTERY_RANGES.ageing);
  const saeAmps = convertCca(rating.ccaAmps, rating.ccaStandard, 'SAE');
  const coldOhms = (restVoltsAt(rating.chemistry, 1, CCA_TEMP_C) - CCA_END_VOLTS) / saeAmps;
  const warmth = (state.tempC - CCA_TEMP_C) / (WARM_TEMP_C - CCA_TEMP_C);
  const temperature = WARM_RESISTANCE_RATIO ** warmth;
  const starved =
    state.overDischargedVolts === undefined
      ? 1
      : interpolate(RESISTANCE_BELOW_FLAT, state.overDischargedVolts);
  return (
    coldOhms *
    temperature *
    interpolate(resistanceByCharge(rating.chemistry), state.soc) *
    state.ageing *
    starved
  );
}

/**
 * Open-circuit volts of one 12 V battery in its state. Below zero for a reversed one.
 *
 * @example batteryOpenVolts({ chemistry: 'flooded', capacityAh: 60, ccaAmps: 540, ccaStandard: 'EN' }, { soc: 1, tempC: 25, ageing: 1 }) // => 12.70
 */
export function batteryOpenVolts({ chemistry }: BatteryRating, state: BatteryState): number {
  const upright = state.overDischargedVolts ?? restVoltsAt(chemistry, state.soc, state.tempC);
  return upright * shareOfCells(chemistry, state);
}

/** Open-circuit volts of this battery by state of charge, with its over-discharge, dead cells and reversal as they are. */
export function openVoltsByCharge(rating: BatteryRating, state: BatteryState): Knots {
  const { overDischargedVolts } = state;
  const share = shareOfCells(rating.chemistry, state);
  const curve: Knots =
    overDischargedVolts === undefined
      ? restVoltsByCharge(rating.chemistry, state.tempC)
      : [[0, overDischargedVolts]];
  return curve.map(([soc, volts]) => [soc, volts * share] as const);
}

/** Share of its cells that still give volts; below zero for a reversed one. */
function shareOfCells(
  chemistry: Chemistry,
  { deadCells = 0, reversed = false }: Pick<BatteryState, 'deadCells' | 'reversed'>,
): number {
  requireInRange('dead cells', deadCells, BATTERY_RANGES.deadCells);
  const cells = cellsOf(chemistry);
  return (Math.max(0, cells - deadCells) / cells) * (reversed ? -1 : 1);
}

/**
 * How a battery's resistance comes in: part at once, part as the plates polarise over about a second. The whole is what the
 * cold-cranking figure anchors.
 */
export const POLARISATION = {
  share: parameter(0.35, {
    id: 'battery.polarisedShare',
    name: 'share of resistance that comes in with time',
    low: 0.2,
    high: 0.5,
    unit: '',
    reason: 'Acid at the plates thins within the first second.',
  }),
  seconds: parameter(1, {
    id: 'battery.polarisedSeconds',
    name: 'time in which it comes in',
    low: 0.5,
    high: 3,
    unit: 's',
    reason: 'Settles within a crank.',
  }),
} as const;

/** Share of its whole resistance that comes in with time: a capacitor bank has no plates that polarise. */
export const polarisedShare = (chemistry: Chemistry): number =>
  chemistry === 'capacitor' ? 0 : POLARISATION.share;

/**
 * Farads of a capacitor bank in a battery's place, from its capacity between nothing and full; null for every other battery.
 *
 * @example bankFarads({ chemistry: 'flooded', capacityAh: 60, ccaAmps: 540, ccaStandard: 'EN' }) // => null
 */
export function bankFarads({ chemistry, capacityAh }: BatteryRating): number | null {
  return chemistry === 'capacitor' ? (capacityAh * 3600) / BANK_FULL_VOLTS : null;
}

/**
 * Share of a battery's whole resistance that it shows on the average over the first second of a crank: the second in which an engine fires.
 */
export const FIRING_SECOND_SHARE =
  1 - POLARISATION.share * POLARISATION.seconds * (1 - Math.exp(-1 / POLARISATION.seconds));

parameter(RESISTANCE_BY_SOC[0]![1], {
  id: 'battery.flat',
  name: 'resistance of a flat battery against full',
  low: 4,
  high: 12,
  unit: 'times',
  reason: 'Starved plates: steep in the last tenth.',
});

/** Resistance growth assumed of a casualty's battery: a few winters old. */
export const ASSUMED_AGEING = parameter(1.3, {
  id: 'ageing',
  name: 'resistance growth assumed of a casualty',
  low: 1,
  high: 3,
  unit: 'times new',
  reason: 'A few winters old; most batteries in service lie between new and twice new.',
});
