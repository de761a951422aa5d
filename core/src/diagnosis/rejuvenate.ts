import { normal, type Random, seededRandom } from '../quantities/index.js';
import {
  asOf,
  bitsOf,
  chanceOn,
  type Crowd,
  crowdAfter,
  type DiagnosisEvidence,
  findingWeight,
  normalise,
  weigh,
} from './belief.js';
import { type Cause, CAUSES } from './causes.js';
import { drawHidden } from './draw-hidden.js';
import type { HiddenMachine } from './hidden.js';
import { type Change, repaired } from './repairs.js';

/** With fewer machines that carry the weight, new ones are drawn near them. */
const LEAST_EFFECTIVE = 500;
/** Machines drawn anew for the whole of the weight, and at least of each cause that counts. */
const DRAWN_ANEW = 1200;
const DRAWN_ANEW_EACH = 40;
/** A cause below this share keeps the machines that it has. */
const CAUSE_COUNTS_FROM = 0.005;
/** Each machine is moved so often: copies of one machine then are machines of their own. */
const MOVES = 2;
/** In one move so many of the numbers that a machine was drawn from change: half of them by a little, half to any. */
const CHANGED_SHARE = 0.2;
const LITTLE = 0.08;
const SEED = 11;

/**
 * Returns the effective number of a crowd: so many machines of equal weight would tell as much.
 *
 * @example effectiveNumber(new Float64Array([0.5, 0.5, 0])) // => 2
 */
export function effectiveNumber(shares: Float64Array): number {
  let squares = 0;
  for (const share of shares) squares += share * share;
  return 1 / squares;
}

/** A crowd as found by so many findings of a job. A later finding goes on from it. */
interface Step {
  readonly key: string;
  readonly found: Crowd;
}
/** Crowds that were drawn near the findings of a job: kept by a screen that asks at every tap. */
export type CrowdSteps = Step[];

/**
 * Returns the crowd that the findings of a job are weighed against. Where few machines carry the weight, new ones are drawn near them, each
 * by its own likelihood. A long job then has as many to tell from as a short one. The same findings give the same crowd.
 *
 * @param drawn as found, before any repair
 * @param steps of the last call, which is changed; a fresh list makes no difference but time
 * @param scale of the numbers of machines, for a crowd of fewer draws
 * @returns the crowd after the repairs, with its shares before any evidence
 */
export function crowdNear(
  drawn: Crowd,
  repairs: readonly Change[],
  evidence: readonly DiagnosisEvidence[],
  steps: CrowdSteps = [],
  scale = 1,
): Crowd {
  let found = drawn;
  let mended = mendedOf(found, repairs);
  for (let count = 1; count <= evidence.length; count++) {
    const so = evidence.slice(0, count);
    const key = keyOf(so, repairs);
    if (steps[count - 1]?.key !== key) {
      steps.length = count - 1;
      const isEnough = effectiveNumber(weigh(mended, so)) >= LEAST_EFFECTIVE * scale;
      const random = seededRandom(SEED + count);
      steps.push({ key, found: isEnough ? found : rejuvenated(found, mended, so, scale, random) });
    }
    const next = steps[count - 1]!.found;
    if (next === found) continue;
    // Its answers are asked no more, and they are many.
    if (found !== drawn) found.known.clear();
    found = next;
    mended = mendedOf(found, repairs);
  }
  return mended;
}

/** The last crowd after repairs of each crowd as found: it holds the answers that were asked of it. */
const lastMended = new WeakMap<Crowd, { readonly key: string; readonly mended: Crowd }>();

function mendedOf(found: Crowd, repairs: readonly Change[]): Crowd {
  if (repairs.length === 0) return found;
  const key = JSON.stringify(repairs);
  const last = lastMended.get(found);
  if (last?.key === key) return last.mended;
  const mended = crowdAfter(found, repairs);
  lastMended.set(found, { key, mended });
  return mended;
}

/** Findings and the repairs that came before the last of them: later ones change nothing of what was found. */
const keyOf = (evidence: readonly DiagnosisEvidence[], repairs: readonly Change[]): string =>
  JSON.stringify([evidence, repairs.slice(0, Math.max(...evidence.map(({ repaired: n = 0 }) => n)))]);

/** A machine on its way: the numbers it was drawn from, and how likely it is by the findings and before them. */
interface Moving {
  readonly numbers: readonly number[];
  readonly hidden: HiddenMachine;
  readonly likelihood: number;
  readonly lean: number;
}

function rejuvenated(
  found: Crowd,
  mended: Crowd,
  evidence: readonly DiagnosisEvidence[],
  scale: number,
  random: Random,
): Crowd {
  const likelihoodOf = likelihood(mended, evidence);
  const after = weigh(mended, evidence);
  const heaviest = after.indexOf(Math.max(...after));
  // The chance of the evidence: a share before it, times its likelihood, comes to so many shares after it.
  const chance = (found.shares[heaviest]! * likelihoodOf(found.machines[heaviest]!)) / after[heaviest]!;
  const machines: HiddenMachine[] = [];
  const drawnFrom: (readonly number[])[] = [];
  const shares: number[] = [];
  for (const [cause, places] of placesByCause(found)) {
    const mass = places.reduce((sum, place) => sum + after[place]!, 0);
    if (mass < CAUSE_COUNTS_FROM) {
      machines.push(...places.map((place) => found.machines[place]!));
      drawnFrom.push(...places.map((place) => found.drawnFrom[place]!));
      shares.push(...places.map((place) => found.shares[place]!));
      continue;
    }
    const count = Math.ceil(scale * (DRAWN_ANEW_EACH + DRAWN_ANEW * mass));
    for (const place of drawnEvenly(places, after, mass, count, random)) {
      const hidden = found.machines[place]!;
      let one: Moving = {
        numbers: found.drawnFrom[place]!,
        hidden,
        likelihood: likelihoodOf(hidden),
        lean: found.lean(hidden),
      };
      for (let n = 0; n < MOVES; n++) one = moved(one, cause, found, likelihoodOf, random);
      machines.push(one.hidden);
      drawnFrom.push(one.numbers);
      shares.push((mass * chance) / (count * one.likelihood));
    }
  }
  return {
    ...found,
    machines,
    drawnFrom,
    causeAt: Uint8Array.from(machines, ({ cause }) => CAUSES.indexOf(cause)),
    holdsAt: Uint32Array.from(machines, ({ holds }) => bitsOf(holds)),
    shares: normalise(Float64Array.from(shares)),
    usual: found.usual ?? found,
    known: new Map(),
  };
}

/**
 * One step of Metropolis and Hastings in the numbers that a machine is drawn from. Those are all equally likely. So a machine is taken by its
 * likelihood alone.
 */
function moved(
  one: Moving,
  cause: Cause,
  { profile, lean }: Crowd,
  likelihoodOf: (hidden: HiddenMachine) => number,
  random: Random,
): Moving {
  const numbers = one.numbers.map((number) => {
    if (random() >= CHANGED_SHARE) return number;
    return random() < 0.5 ? random() : withinOne(normal(random, number, LITTLE));
  });
  let at = 0;
  const hidden = drawHidden(cause, profile, () => {
    if (at === numbers.length) numbers.push(random());
    return numbers[at++]!;
  });
  const next: Moving = { numbers, hidden, likelihood: likelihoodOf(hidden), lean: lean(hidden) };
  return random() * one.likelihood * one.lean < next.likelihood * next.lean ? next : one;
}

/** The part of a number behind the point: what leaves at one end comes in at the other. */
const withinOne = (x: number): number => x - Math.floor(x);

function placesByCause({ causeAt }: Crowd): ReadonlyMap<Cause, readonly number[]> {
  const places = new Map<Cause, number[]>();
  causeAt.forEach((at, place) => {
    const cause = CAUSES[at]!;
    const own = places.get(cause);
    if (own) own.push(place);
    else places.set(cause, [place]);
  });
  return places;
}

/** Places drawn by their shares, evenly spaced: each comes as often as its share asks, within one. */
function drawnEvenly(
  places: readonly number[],
  shares: Float64Array,
  whole: number,
  count: number,
  random: Random,
): number[] {
  const step = whole / count;
  let next = step * random();
  let upTo = 0;
  const drawn: number[] = [];
  for (const place of places) {
    upTo += shares[place]!;
    for (; next < upTo && drawn.length < count; next += step) drawn.push(place);
  }
  // Rounding can leave a sliver beyond the last.
  while (drawn.length < count) drawn.push(places.at(-1)!);
  return drawn;
}

/** How likely all evidence is on a machine as it was found. Each piece is weighed as the machine stood then. */
function likelihood(
  mended: Crowd,
  evidence: readonly DiagnosisEvidence[],
): (asFound: HiddenMachine) => number {
  const weight = findingWeight(evidence.length);
  const { repairs, before } = mended;
  const pieces = evidence.map((piece) => {
    const after = Math.min(piece.repaired ?? 0, repairs.length);
    return { after, chance: chanceOn(asOf(mended, after), piece) };
  });
  return (asFound) => {
    const stood = [asFound];
    repairs.forEach((repair, i) => stood.push(repaired(stood[i]!, repair, before[i]!.profile)));
    return pieces.reduce((product, { after, chance }) => product * chance(stood[after]!) ** weight, 1);
  };
}
