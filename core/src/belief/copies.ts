import {
  batteryOpenVolts,
  type BatteryRating,
  type BatteryState,
  REST_VOLTS,
  restVoltsAt,
  socFromRestVolts,
} from '../battery/index.js';
import {
  asOf,
  type Crowd,
  type DiagnosisEvidence,
  type DiagnosisProfile,
  heldBy,
  heldSets,
  type HiddenMachine,
  normalise,
  restVoltsOf,
  validEvidence,
  weigh,
} from '../diagnosis/index.js';
import type { Engine } from '../engine/index.js';
import { normal, type Random } from '../quantities/index.js';
import { effectiveNumber, type HiddenParts, type Population, type PossibleMachine } from './population.js';
import { type Findings, tryLikelihood, type TryMade } from './tries.js';
import { drawUnknowns } from './unknowns.js';

/** Rest volts of a machine of the crowd this near to what was read speak for it, V. Each is brought to the reading afterwards. */
const KERNEL_VOLTS = 0.25;
/** Spread of a rest reading about the truth, V: surface charge, the meter, temperature. */
const REST_SPREAD_VOLTS = 0.05;
/** Of rest readings so many tell nothing of the battery: a digit, the wrong post, another machine. */
const SLIP_SHARE = 0.04;
/** Density of such a reading against one that is right: it may lie anywhere in some volts. */
const SLIP_DENSITY = 0.1;

/** Copies of the machines of a crowd: the heavier a machine, the more of them. Each has its own unknowns. */
export interface Copies {
  readonly machines: readonly PossibleMachine[];
  /** Place of each in the crowd. */
  readonly places: readonly number[];
  /** After everything that the job says. They add up to one. */
  readonly weights: Float64Array;
  /** How likely each try was on each machine of the crowd, by the time of the try. */
  readonly tried: ReadonlyMap<string, Float64Array>;
}

/** Copies of a whole crowd beside one of each machine that counts. */
const COPIES = 2500;
/** Machines that carry less than this share are not copied. */
const COUNTS_FROM = 2e-5;
/** With fewer effective copies left after a try all are copied anew, more of the machines that it speaks for. */
const ENOUGH = 600;

/**
 * Copies the machines of a crowd: the more the findings and the tries say for one, the more copies it gets. Each copy is weighed by every
 * try in its own circuit. The crowd weighs a figure by the range that it falls in. A crank asks more of rest volts. So each machine is
 * weighed by its distance from them, and each copy is brought there.
 *
 * @param crowd of the profile, after the repairs
 */
export function copiesOf(crowd: Crowd, findings: Findings, random: Random): Copies {
  const { evidence, tries } = findings;
  const isHeard = ({ tried = [] }: DiagnosisEvidence): boolean =>
    tried.some((at) => tries.some((made) => made.at === at));
  const read = restRead(crowd, evidence);
  const shares = sharesAtRest(
    crowd,
    evidence.filter((piece) => !isHeard(piece)),
    read,
  );
  const made = (counts: Float64Array): Copies => {
    const copies = copiesBy(counts, shares, { crowd, read }, random);
    const { engine } = findings.profile;
    return engine ? tries.reduce((last, one) => afterTry(crowd, last, one, engine), copies) : copies;
  };
  const first = made(shares);
  if (effectiveNumber(first.weights) >= ENOUGH) return first;
  // Half by what the tries say, half as before: no machine that they speak for by chance alone is left with one heavy copy.
  return made(sharesOf(first, shares.length).map((share, i) => (share + shares[i]!) / 2));
}

/** Copies machines by these shares. What one weighs is divided among its copies, so their number changes no odds. */
function copiesBy(
  counts: Float64Array,
  shares: Float64Array,
  { crowd, read }: { readonly crowd: Crowd; readonly read: readonly RestRead[] },
  random: Random,
): Copies {
  const machines: PossibleMachine[] = [];
  const places: number[] = [];
  const weights: number[] = [];
  shares.forEach((share, place) => {
    if (share < COUNTS_FROM) return;
    const count = 1 + Math.floor(COPIES * counts[place]! + random());
    const hidden = crowd.machines[place]!;
    for (let n = 0; n < count; n++) {
      machines.push({
        hidden: read.length > 0 ? broughtTo(hidden, crowd.profile, read, random) : hidden,
        draw: drawUnknowns(random),
      });
      places.push(place);
      weights.push(share / count);
    }
  });
  return { ...{ machines, places, weights: normalise(Float64Array.from(weights)) }, tried: new Map() };
}

/** The weight of each machine of a crowd, summed over its copies. */
function sharesOf({ places, weights }: Pick<Copies, 'places' | 'weights'>, machines: number): Float64Array {
  const sums = new Float64Array(machines);
  weights.forEach((weight, n) => (sums[places[n]!]! += weight));
  return sums;
}

/** The copies once a try is heard: the later of two tries is weighed by what the earlier one left. */
function afterTry(crowd: Crowd, copies: Copies, made: TryMade, engine: Engine): Copies {
  const { machines, places, weights } = copies;
  const likelihood = tryLikelihood(made, engine);
  const then = asOf(crowd, made.repaired);
  const after = weights.map((weight, n) => {
    const place = places[n]!;
    return weight * likelihood(asItStood(machines[n]!, then.machines[place]!, crowd.machines[place]!));
  });
  const whole = after.reduce((sum, weight) => sum + weight, 0);
  const all = sharesOf(copies, crowd.machines.length);
  const met = sharesOf({ places, weights: after }, crowd.machines.length);
  // A machine without a copy counts as much as before.
  const by = met.map((sum, place) => (all[place]! > 0 ? sum / all[place]! : whole));
  return {
    ...copies,
    weights: whole > 0 ? normalise(after) : weights,
    tried: new Map([...copies.tried, [made.at, by]]),
  };
}

/** A copy before the repairs that came after a try: with its own batteries. */
const asItStood = (machine: PossibleMachine, then: HiddenMachine, now: HiddenMachine): PossibleMachine =>
  then === now ? machine : { ...machine, hidden: { ...then, batteries: machine.hidden!.batteries } };

/**
 * Draws the population of a job from its copies.
 *
 * @returns in no order: any part of the list stands for the whole
 */
export const populationOf = ({ machines, weights }: Copies, count: number, random: Random): Population => ({
  machines: drawnByShare(weights, count, random).map((at) => machines[at]!),
  effectiveNumber: Math.min(count, effectiveNumber(weights)),
});

/** Returns the crowd that has heard the tries of a job. Diagnosis and verdict then read the same tries as the plan. */
export const crowdAfterTries = (crowd: Crowd, { tried }: Pick<Copies, 'tried'>): Crowd => ({
  ...crowd,
  tried,
});

/**
 * Returns the shares of a crowd by the findings. Machines of the same faults share by the distance of their rest volts from those read. So
 * rest volts within their range tell which machine it is, and never which fault. That answer stays with the diagnosis.
 */
function sharesAtRest(
  crowd: Crowd,
  evidence: readonly DiagnosisEvidence[],
  read: readonly RestRead[],
): Float64Array {
  const shares = weigh(crowd, evidence);
  if (read.length === 0) return shares;
  const near = shares.map(
    (share, i) => share * nearness(restVoltsOf(crowd.machines[i]!, crowd.profile), read),
  );
  const { setAt } = heldSets(crowd);
  const [whole, left] = [heldBy(crowd, shares).sums, heldBy(crowd, near).sums];
  return near.map((share, i) => (left[setAt[i]!]! > 0 ? (share * whole[setAt[i]!]!) / left[setAt[i]!]! : 0));
}

/** Rest volts that were read: of one battery of a string, or of the weakest. */
interface RestRead {
  readonly battery: number | null;
  readonly volts: number;
}

function restRead({ repairs }: Crowd, evidence: readonly DiagnosisEvidence[]): RestRead[] {
  return validEvidence(evidence, repairs).flatMap(({ check, found, battery = null }) =>
    check === 'rest' && typeof found === 'number' ? [{ battery, volts: found }] : [],
  );
}

const indexOf = ({ battery }: RestRead, own: readonly number[]): number =>
  battery ?? own.indexOf(Math.min(...own));

/** How near a machine's rest volts are to those read: near one where they agree. */
function nearness(own: readonly number[], read: readonly RestRead[]): number {
  return read.reduce((product, one) => {
    const off = (own[indexOf(one, own)]! - one.volts) / KERNEL_VOLTS;
    return product * ((1 - SLIP_SHARE) * Math.exp(-(off ** 2) / 2) + SLIP_SHARE * SLIP_DENSITY);
  }, 1);
}

/** The same machine with its batteries as they were read. One that is far from the reading was misread, and stays. */
function broughtTo(
  hidden: HiddenParts,
  profile: DiagnosisProfile,
  read: readonly RestRead[],
  random: Random,
): HiddenParts {
  const own = restVoltsOf(hidden, profile);
  const volts = own.map((now, i): number | null => {
    const one = read.find((r) => indexOf(r, own) === i);
    if (!one || Math.abs(now - one.volts) > 3 * KERNEL_VOLTS) return null;
    return normal(random, one.volts, REST_SPREAD_VOLTS);
  });
  if (volts.every((v) => v === null)) return hidden;
  const batteries = hidden.batteries.map((state, i) =>
    volts[i] == null ? state : resting(profile.rating, state, volts[i]),
  );
  return { ...hidden, batteries };
}

/** The battery at the charge at which it rests at these volts, its cells and its posts as they are. */
function resting(rating: BatteryRating, state: BatteryState, volts: number): BatteryState {
  const { chemistry } = rating;
  const { overDischargedVolts: _deep, ...upright } = state;
  // Cells that are dead give nothing, and a reversed battery points backwards: the others share what is read.
  const share = batteryOpenVolts(rating, { ...upright, soc: 1 }) / restVoltsAt(chemistry, 1, state.tempC);
  const whole = volts / share;
  const flat = restVoltsAt(chemistry, 0, state.tempC);
  if (whole >= flat) return { ...upright, soc: socFromRestVolts(chemistry, whole, state.tempC).soc };
  return {
    ...upright,
    soc: 0,
    overDischargedVolts: Math.max(LEAST_DEEP_VOLTS, Math.min(whole, REST_VOLTS[chemistry][0]![1])),
  };
}
/** No battery that still holds anything rests lower, V. */
const LEAST_DEEP_VOLTS = 0.3;

/** Places drawn by share, evenly spaced and then mixed: each comes as often as its share asks, within one. */
function drawnByShare(shares: Float64Array, count: number, random: Random): number[] {
  let whole = 0;
  for (const share of shares) whole += share;
  const step = whole / count;
  let upTo = 0;
  let next = step * random();
  const drawn: number[] = [];
  for (let at = 0; at < shares.length && drawn.length < count; at++) {
    upTo += shares[at]!;
    for (; next < upTo && drawn.length < count; next += step) drawn.push(at);
  }
  for (let i = drawn.length - 1; i > 0; i--) {
    const j = Math.floor(random() * (i + 1));
    [drawn[i], drawn[j]] = [drawn[j]!, drawn[i]!];
  }
  return drawn;
}
