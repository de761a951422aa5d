import {
  batteryOpenVolts,
  type BatteryRating,
  type BatteryState,
  REST_VOLTS,
  restVoltsAt,
  socFromRestVolts,
} from '../battery/index.js';
import {
  asFound,
  cranksOf,
  type Crowd,
  type DiagnosisEvidence,
  type DiagnosisProfile,
  type HiddenMachine,
  lookOf,
  restVoltsOf,
  validEvidence,
  weigh,
} from '../diagnosis/index.js';
import { normal, type Random } from '../quantities/index.js';

/** Calls to a machine that starts by itself, against calls to one that does not: it seldom calls anybody. */
const CALLS_THOUGH_IT_STARTS = 0.15;
/** Rest volts of a machine of the crowd this near to what was read speak for it, V. Each is brought to the reading afterwards. */
const KERNEL_VOLTS = 0.25;
/** Spread of a rest reading about the truth, V: surface charge, the meter, temperature. */
const REST_SPREAD_VOLTS = 0.05;
/** Of rest readings so many tell nothing of the battery: a digit, the wrong post, another machine. */
const SLIP_SHARE = 0.04;
/** Density of such a reading against one that is right: it may lie anywhere in some volts. */
const SLIP_DENSITY = 0.1;

/**
 * Draws machines in proportion to what the findings say of them. The crowd weighs a figure by the range that it falls in. A plan asks more
 * of rest volts. So each machine is weighed by its distance from them, and then brought there.
 *
 * @param evidence of the job, as `weigh` takes it
 * @param count how many; the same machine may come more than once
 * @returns in no order: any part of the list stands for the whole
 */
export function likelyMachines(
  crowd: Crowd,
  evidence: readonly DiagnosisEvidence[],
  count: number,
  random: Random,
): HiddenMachine[] {
  const { profile } = crowd;
  const read = restRead(crowd, evidence);
  const shares = weigh(crowd, evidence);
  const found = asFound(crowd).machines;
  crowd.machines.forEach((hidden, i) => {
    if (lookOf(found[i]!, profile, false) === 'starts') shares[i]! *= CALLS_THOUGH_IT_STARTS;
    if (read.length > 0) shares[i]! *= nearness(restVoltsOf(hidden, profile), read);
  });
  return drawnByShare(shares, count, random).map((at) => {
    const hidden = crowd.machines[at]!;
    return read.length > 0 ? broughtTo(hidden, profile, read, random) : hidden;
  });
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
  hidden: HiddenMachine,
  profile: DiagnosisProfile,
  read: readonly RestRead[],
  random: Random,
): HiddenMachine {
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
  return { ...hidden, batteries, ...cranksOf({ ...hidden, batteries }, profile) };
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
