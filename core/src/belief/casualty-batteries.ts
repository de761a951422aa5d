import { parameter } from '../quantities/index.js';
import {
  ASSUMED_AGEING,
  batteryBar,
  type BatteryBar,
  type BatteryRating,
  type BatteryState,
  socFromRestVolts,
} from '../battery/index.js';
import { CHARGE_WORTH, chargeJoined, storedShare } from '../charging/index.js';
import { type BadJoints, modelBattery, type ModelBattery, type Rescue } from '../circuit/index.js';
import type { Machine } from '../machine/index.js';

/** Charge taken in, of capacity, with what surface charge is worth for the next crank. */
export interface Gained {
  readonly low: number;
  readonly likely: number;
  readonly high: number;
}

/** The state of one battery: its rating, and its charge within a band. */
export interface BatteryBelief {
  readonly rating: BatteryRating;
  readonly soc: number;
  readonly socLow: number;
  readonly socHigh: number;
  /** Resistance growth, where it is known better than assumed. */
  readonly ageing?: number;
  /** Rest volts when below the flat line, below zero where they point backwards; otherwise left out. */
  readonly overDischargedVolts?: number;
  /** The state that forbids any current through it; left out where nothing is known against it. */
  readonly bar?: BatteryBar;
  /** It was fitted on this job, or is a spare: the findings of the machine tell nothing of it. */
  readonly isFitted?: boolean;
  /** Its charge was given by hand: no finding speaks against that. */
  readonly isGiven?: boolean;
  /** Charge that it has taken in since it was read, as a share of its capacity: what the dullest, the usual and the keenest took. */
  readonly gained?: Gained;
}

/** The casualty's batteries as the plan takes them: measured where a reading is there, assumed where not. */
export interface CasualtyBatteries {
  readonly models: readonly ModelBattery[];
  readonly socs: readonly number[];
  readonly beliefs: readonly BatteryBelief[];
  /** At least one battery has been read. */
  readonly measured: boolean;
  readonly allMeasured: boolean;
  /** Index of the battery with the least charge. */
  readonly weakest: number;
  /** Every battery but the weakest can carry its half of a crank. */
  readonly othersSound: boolean;
  readonly totalVolts: number;
  /** Its own joints, where one was found bad. */
  readonly joints?: BadJoints;
}

/** Charge assumed of a battery nobody has measured on a machine that will not start. */
export const ASSUMED_SOC = parameter(0.1, {
  id: 'soc',
  name: 'charge assumed of an unread battery',
  low: 0,
  high: 0.5,
  unit: 'of full',
  reason: 'A machine that will not start has little left; a reading replaces this.',
});
/** Band of that assumption: it may be quite flat or half full. */
const ASSUMED_BAND = { low: 0, high: 0.5 } as const;
/** A battery that was fitted new and has not been read: charged at the maker's, then some weeks on a shelf. */
const NEW_BATTERY = { soc: 0.9, socLow: 0.7, socHigh: 1, ageing: 1 } as const;
/** Charge at which the other battery of a string can carry its half of a crank. */
const SOUND_SOC = 0.5;

/**
 * Batteries of the machine in the state that the readings show.
 *
 * @param restVolts rest volts of each battery from the chassis side up; null where not read
 * @param coldestC the coldest they have been since it last ran, degC
 * @param isNew those that were fitted on this job; left out: none
 */
export function casualtyBatteries(
  machine: Machine,
  restVolts: readonly (number | null)[],
  tempC: number,
  coldestC: number = tempC,
  isNew: readonly boolean[] = [],
): CasualtyBatteries {
  const beliefs = machine.batteries.map(({ rating }, i) =>
    isNew[i] && (restVolts[i] ?? null) === null
      ? { rating, ...NEW_BATTERY, isFitted: true }
      : { ...beliefFrom(rating, restVolts[i] ?? null, tempC, coldestC), ...(isNew[i] && { isFitted: true }) },
  );
  const read = machine.batteries.map((_, i) => (restVolts[i] ?? null) !== null);
  return batteriesFrom(beliefs, tempC, { measured: read.some(Boolean), allMeasured: read.every(Boolean) });
}

function beliefFrom(
  rating: BatteryRating,
  volts: number | null,
  tempC: number,
  coldestC: number,
): BatteryBelief {
  if (volts === null)
    return { rating, soc: ASSUMED_SOC, socLow: ASSUMED_BAND.low, socHigh: ASSUMED_BAND.high };
  const { soc, low, high, belowFlat } = socFromRestVolts(rating.chemistry, volts, tempC);
  const bar = batteryBar(rating.chemistry, volts, coldestC);
  return {
    rating,
    soc,
    socLow: low,
    socHigh: high,
    ...(belowFlat && { overDischargedVolts: volts }),
    ...(bar && { bar }),
  };
}

/** Batteries as the plan takes them, from what is believed of each. */
function batteriesFrom(
  beliefs: readonly BatteryBelief[],
  tempC: number,
  { measured, allMeasured }: Pick<CasualtyBatteries, 'measured' | 'allMeasured'>,
): CasualtyBatteries {
  const models = beliefs.map((belief) => modelOf(belief, tempC));
  const socs = beliefs.map((b) => b.soc);
  const volts = models.map((m) => m.openVolts);
  const weakest = volts.indexOf(Math.min(...volts));
  return {
    models,
    socs,
    beliefs,
    measured,
    allMeasured,
    weakest,
    othersSound: socs.every((soc, i) => i === weakest || soc >= SOUND_SOC),
    totalVolts: volts.reduce((sum, v) => sum + v, 0),
  };
}

/** A battery that is believed so, as the circuit sees it. */
export function modelOf(belief: BatteryBelief, tempC: number): ModelBattery {
  return modelBattery(belief.rating, stateOf(belief, tempC));
}

/** The most likely state of a battery that is believed so. */
export function stateOf(belief: BatteryBelief, tempC: number): BatteryState {
  const { soc, overDischargedVolts, ageing = ASSUMED_AGEING } = belief;
  return { soc, tempC, ageing, ...(overDischargedVolts !== undefined && { overDischargedVolts }) };
}

/**
 * Returns the belief of the batteries after some minutes joined to a source, minute by minute: the rescue's circuit charges the likely
 * charge and both ends of its band. A dull battery stands at the low end, a keen one at the high.
 *
 * @param rescue clamps on, source on
 * @returns one list of beliefs a minute, from minute 0
 */
export function beliefsWhileJoined(
  rescue: Rescue,
  beliefs: readonly BatteryBelief[],
  minutes: number,
): (readonly BatteryBelief[])[] {
  const pathOf = (socOf: (b: BatteryBelief) => number, worth = 1): (readonly BatteryState[])[] =>
    chargeJoined(
      rescue,
      beliefs.map((b) => ({ rating: b.rating, state: { ...stateOf(b, rescue.tempC), soc: socOf(b) } })),
      minutes,
      worth,
    );
  const likely = pathOf((b) => b.soc);
  const low = pathOf((b) => b.socLow, CHARGE_WORTH.low);
  const high = pathOf((b) => b.socHigh, CHARGE_WORTH.high);
  return likely.map((states, minute) =>
    beliefs.map((belief, i): BatteryBelief => {
      const { overDischargedVolts: _deep, bar: _bar, ...rest } = belief;
      const { soc, overDischargedVolts } = states[i]!;
      const { chemistry } = belief.rating;
      const gainedBy = (path: typeof likely): number =>
        storedShare(chemistry, path[minute]![i]!) - storedShare(chemistry, path[0]![i]!);
      const before = belief.gained ?? NOTHING_GAINED;
      return {
        ...rest,
        soc,
        socLow: low[minute]![i]!.soc,
        socHigh: high[minute]![i]!.soc,
        ...(overDischargedVolts !== undefined && { overDischargedVolts }),
        gained: {
          low: before.low + gainedBy(low),
          likely: before.likely + gainedBy(likely),
          high: before.high + gainedBy(high),
        },
      };
    }),
  );
}

const NOTHING_GAINED: Gained = { low: 0, likely: 0, high: 0 };
