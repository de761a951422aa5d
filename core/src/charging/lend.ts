import { parameter } from '../quantities/index.js';
import {
  bankFarads,
  batteryOhms,
  batteryOpenVolts,
  type BatteryRating,
  type BatteryState,
  type Chemistry,
  REST_VOLTS,
} from '../battery/index.js';
import { prepareDc, type Rescue, rescueCircuit } from '../circuit/index.js';
import { acceptanceAmps, CHARGE_FACTOR } from './charge-time.js';

/**
 * A quick charge gathers at the face of the plates, where a crank takes it from first: what went in within minutes counts this many
 * times over for the crank that follows. Surface charge, put to use.
 */
export const SURFACE_FACTOR = parameter(3, {
  id: 'charge.surface',
  name: 'worth of a quick charge for the next crank',
  low: 1,
  high: 5,
  unit: 'times',
  reason: 'It gathers at the face of the plates, where a crank takes it first.',
});
/** The most that surface charge can make a battery seem fuller, as a share of capacity. */
export const SURFACE_MOST = parameter(0.15, {
  id: 'charge.surfaceMost',
  name: 'most that surface charge can seem',
  low: 0.05,
  high: 0.25,
  unit: 'of full',
  reason: 'The face of the plates holds only so much.',
});
/** Charge that an over-discharged battery must take back from 0 V to the flat line, as a share of capacity. */
export const OVER_DISCHARGED_SHARE = parameter(0.05, {
  id: 'charge.overDischarged',
  name: 'charge owed from 0 V to the flat line',
  low: 0.02,
  high: 0.1,
  unit: 'of full',
  reason: 'An over-discharged battery must take this back before its charge counts.',
});
/** Charge in a minute of the dullest and the keenest of twenty batteries, against the usual one. */
export const CHARGE_WORTH = {
  low: parameter(0.6, {
    id: 'charge.worth',
    name: 'what a minute brings the dullest battery',
    low: 0.4,
    high: 0.8,
    unit: 'of usual',
    reason:
      'Acceptance and surface charge differ from battery to battery; the keenest takes half as much again.',
  }),
  high: 1.5,
} as const;
const STEP_MINUTES = 0.5;
/** Heat of one degree in a battery, for each Ah of it, J; any is taken for lead-acid: 0.3 kg of lead, acid and case an Ah, at 0.9 kJ/kg. */
export const HEAT_J_PER_K_AH = parameter(270, {
  id: 'charge.heat',
  name: 'what warms a battery by a degree, for each Ah',
  low: 220,
  high: 320,
  unit: 'J/K/Ah',
  reason: 'Some 0.3 kg of lead, acid and case an Ah, at 0.9 kJ/kg.',
});

/** A battery under charge. */
export interface ChargedBattery {
  readonly rating: BatteryRating;
  readonly state: BatteryState;
}

/**
 * The casualty's batteries after each minute joined to a source, before any crank: the circuit drives the current, and what a battery can
 * take at its charge and temperature limits it.
 *
 * @param rescue clamps on, source on, no load
 * @param worth what a minute brings this battery against the usual one: what it accepts, and what surface charge is worth to it
 * @returns one list of states a minute, from minute 0 to `minutes`
 */
export function chargeJoined(
  rescue: Rescue,
  batteries: readonly ChargedBattery[],
  minutes: number,
  worth = 1,
): (readonly BatteryState[])[] {
  const path: (readonly BatteryState[])[] = [batteries.map((b) => b.state)];
  let step = 0;
  for (const { states } of stepsJoined(rescue, batteries, minutes, worth))
    if (Number.isInteger(++step * STEP_MINUTES)) path.push(states);
  return path;
}

/**
 * Returns the charge that a source gives while it is joined and nothing cranks, Ah at the casualty's posts: what a battery can take
 * limits it, and batteries of a string share one current.
 *
 * @param rescue clamps on, source on, no load
 */
export function lentAh(rescue: Rescue, batteries: readonly ChargedBattery[], minutes: number): number {
  let ah = 0;
  for (const { takenAmps } of stepsJoined(rescue, batteries, minutes, 1))
    ah += (Math.max(...takenAmps) * STEP_MINUTES) / 60;
  return ah;
}

/** The casualty's batteries once they were joined to a source for a while. */
export interface AfterJoined {
  readonly states: readonly BatteryState[];
  /**
   * Degrees by which each has warmed: what the circuit drives through it, stored or not, heats its own resistance, and within minutes
   * nothing of it leaves. A bank has no plates to warm.
   */
  readonly warmedK: readonly number[];
}

/**
 * Returns the state after so many minutes joined to a source: the charge that `chargeJoined` ends with, and the heat.
 *
 * @param rescue clamps on, source on, no load
 */
export function afterJoined(
  rescue: Rescue,
  batteries: readonly ChargedBattery[],
  minutes: number,
): AfterJoined {
  const joules = batteries.map(() => 0);
  let after = batteries.map((b) => b.state);
  for (const { states, offeredAmps, ohms } of stepsJoined(rescue, batteries, minutes, 1)) {
    after = states;
    offeredAmps.forEach((amps, i) => (joules[i]! += amps ** 2 * ohms[i]! * STEP_MINUTES * 60));
  }
  const warmedK = batteries.map(({ rating }, i) =>
    rating.chemistry === 'capacitor' ? 0 : joules[i]! / (HEAT_J_PER_K_AH * rating.capacityAh),
  );
  return { states: after, warmedK };
}

/** Half a minute of it. */
interface JoinedStep {
  readonly states: BatteryState[];
  readonly takenAmps: readonly number[];
  /** The current that the circuit drives into each, stored or not. */
  readonly offeredAmps: readonly number[];
  /** Inside each as it began. */
  readonly ohms: readonly number[];
}

/** The batteries and what each takes, half a minute at a time, from the end of the first. */
function* stepsJoined(
  rescue: Rescue,
  batteries: readonly ChargedBattery[],
  minutes: number,
  worth: number,
): Generator<JoinedStep> {
  const first = batteries.map((b) => b.state);
  const gainedAh = batteries.map(() => 0);
  let states = first;
  const dc = prepareDc(rescueCircuit({ ...rescue, load: { kind: 'none' } }));
  for (let step = 1; step <= minutes / STEP_MINUTES; step++) {
    const ohms = batteries.map(({ rating }, i) => batteryOhms(rating, states[i]!));
    const circuit = rescueCircuit({
      ...rescue,
      load: { kind: 'none' },
      casualty: batteries.map(({ rating }, i) => ({
        openVolts: batteryOpenVolts(rating, states[i]!),
        // The fall across a bank's own rise within the step, so that it never passes what it is joined to.
        ohms: ohms[i]! + (STEP_MINUTES * 60) / (bankFarads(rating) ?? Infinity),
      })),
    });
    const offeredAmps = batteries.map((_, i) => {
      const at = circuit.elements.findIndex((e) => e.name === `casualty.battery${i}`);
      return -dc.ampsAt(circuit.elements, at);
    });
    const takenAmps = batteries.map(({ rating }, i) => {
      const { soc, tempC } = states[i]!;
      return Math.max(0, Math.min(offeredAmps[i]!, worth * acceptanceAmps(rating, soc, tempC)));
    });
    states = batteries.map(({ rating }, i) => {
      gainedAh[i]! += (takenAmps[i]! * STEP_MINUTES) / 60 / CHARGE_FACTOR[rating.chemistry];
      return withCharge(rating, first[i]!, gainedAh[i]!, worth);
    });
    yield { states, takenAmps, offeredAmps, ohms };
  }
}

/** A battery's state for the crank once it has taken in charge: up to the flat line first, then above it, surface charge included. */
function withCharge(
  rating: BatteryRating,
  start: BatteryState,
  gainedAh: number,
  worth: number,
): BatteryState {
  const share = gainedAh / rating.capacityAh;
  // A bank stores all that goes into it: no plates, no face, nothing owed.
  if (rating.chemistry === 'capacitor') return { ...start, soc: Math.min(1, start.soc + share) };
  const { overDischargedVolts, ...rest } = start;
  const owed = overDischargedVolts === undefined ? 0 : owedShare(rating.chemistry, overDischargedVolts);
  if (share < owed) return withGain(rating.chemistry, start, share);
  const seeming = Math.min(
    (share - owed) * Math.max(1, worth * SURFACE_FACTOR),
    share - owed + worth * SURFACE_MOST,
  );
  return { ...rest, soc: Math.min(1, start.soc + seeming) };
}

/**
 * Charge of a battery against flat, of capacity: below zero where it is over-discharged.
 *
 * @example storedShare('flooded', { soc: 0.2, tempC: 20, ageing: 1 }) // => 0.2
 */
export function storedShare(chemistry: Chemistry, { soc, overDischargedVolts }: BatteryState): number {
  return overDischargedVolts === undefined ? soc : -owedShare(chemistry, overDischargedVolts);
}

/** Charge that a battery of these rest volts owes before it is flat, of capacity. */
const owedShare = (chemistry: Chemistry, volts: number): number =>
  OVER_DISCHARGED_SHARE * (1 - volts / REST_VOLTS[chemistry][0]![1]);

/**
 * Returns a battery's state once it has taken in so much.
 *
 * @param gained of capacity
 * @example withGain('flooded', { soc: 0.2, tempC: 20, ageing: 1 }, 0.1).soc // => 0.3
 */
export function withGain(chemistry: Chemistry, state: BatteryState, gained: number): BatteryState {
  if (gained <= 0) return state;
  const { overDischargedVolts, ...rest } = state;
  if (overDischargedVolts === undefined) return { ...state, soc: Math.min(1, state.soc + gained) };
  const owed = owedShare(chemistry, overDischargedVolts);
  if (gained >= owed) return { ...rest, soc: Math.min(1, state.soc + gained - owed) };
  const flatVolts = REST_VOLTS[chemistry][0]![1];
  const volts = flatVolts - (flatVolts - overDischargedVolts) * (1 - gained / owed);
  return { ...rest, soc: state.soc, overDischargedVolts: volts };
}
