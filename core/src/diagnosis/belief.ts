import { type Random, seededRandom } from '../quantities/index.js';
import { type Cause, CAUSES, type DiagnosisProfile, priorsFor } from './causes.js';
import { drawHidden } from './draw-hidden.js';
import { isPossibleNow, type Moment, TRIES } from './possible.js';
import { type HiddenMachine, lookOf, oneBattery } from './hidden.js';
import { type Change, changes, repaired } from './repairs.js';
import {
  type Found,
  type Check,
  type CheckId,
  checkOf,
  spreadOf,
  type Tool,
  checksFor,
} from './checks/index.js';

/** A piece of evidence: which check, and what it found. */
export interface DiagnosisEvidence {
  readonly check: CheckId;
  readonly found: Found;
  /** The battery of a string that was read by itself, from the chassis side; left out: the machine, or its weakest battery. */
  readonly battery?: number;
  /** Volts at the posts as they were read, of 12 V. A finding that is kept as a distance needs them. */
  readonly postVolts?: number;
  /** How far apart the specific gravities of the cells were read, where they were. */
  readonly cellSpread?: number;
  /** How many of the job's repairs had been made when it was found; left out: none. */
  readonly repaired?: number;
  /** The tries that it tells of, by their times. Where a crowd has heard them in their circuits, they count so and not by the table. */
  readonly tried?: readonly string[];
}

/**
 * Machines drawn for each cause: enough that some are left that fit a dozen findings, few enough to be asked at every tap. With two fifths
 * as many, the first two held the fault in 92.9 % of the cases of docs/diagnosis.md. With these, in 94.7 %; it costs a second before the
 * first answer, not a tap.
 */
export const DRAWS_PER_CAUSE = 300;
/** What comes in most shapes, alone and beside others, is drawn more often; what is one part that does nothing, less. */
const DRAWN_MORE: Partial<Record<Cause, number>> = {
  worn: 3,
  discharged: 2,
  'left-on': 2,
  sulphated: 3,
  drain: 1.5,
  charging: 1.5,
  'string-weak': 3,
  'joint-positive': 1.5,
  'joint-negative': 1.5,
  'joint-loose': 1.5,
  cable: 1.5,
  starter: 2,
  reversed: 0.5,
  'main-fuse': 0.5,
  interlock: 0.5,
  immobiliser: 0.5,
  fuel: 0.5,
  'guard-open': 0.5,
  'not-taught': 0.5,
  none: 0.5,
};
/**
 * Share of findings that tell nothing of the machine: mistyped, read at the clamp, misheard, or of a fault that no table holds. What is
 * said or seen is more often wrong than what a meter shows, and falls on any answer alike.
 */
const BLIND_SHARE = { look: 0.06, figure: 0.05 } as const;
/**
 * A wrong figure lies near the true one (a digit, a moment too early) or shows another machine's value (a neighbour's post): in halves.
 * So a figure that hardly any machine shows is still believed.
 */
const NEAR_SHARE = 0.5;
/** A figure that is off by a slip lies within so many times the usual spread. */
const NEAR_SPREADS = 4;
/** Nothing is ever ruled out altogether. */
const LEAST_CHANCE = 0.0005;

/**
 * What each finding counts for among so many, as a power of its chance. A few stand each for itself; many overlap, since one tired hand,
 * bad meter or odd machine spoils several at once. At their full worth they claimed nine in ten where eight were right; so weighed, what is
 * claimed is met in a world drawn apart (docs/diagnosis.md).
 */
const findingWeight = (findings: number): number =>
  Math.max(LEAST_WEIGHT, 1 - OVERLAP_EACH * Math.max(0, findings - APART_MOST));
/** So many findings of one job say different things; each further one takes this much from all, down to the least. */
const APART_MOST = 6;
const OVERLAP_EACH = 0.025;
const LEAST_WEIGHT = 0.85;

/** Many machines with hidden faults, drawn once for a profile: what evidence is weighed against. */
export interface Crowd {
  readonly profile: DiagnosisProfile;
  readonly machines: readonly HiddenMachine[];
  /** Place in `CAUSES` of what keeps each machine from starting. */
  readonly causeAt: Uint8Array;
  /** Everything that is wrong with each, one bit a place in `CAUSES`. */
  readonly holdsAt: Uint32Array;
  /** Share of each before any evidence: the prior of its cause, spread over those drawn for it. */
  readonly shares: Float64Array;
  /**
   * Chance of each outcome of a check, or of one at one battery, machine after machine: worked out when it is first asked and kept, since
   * it never changes.
   */
  readonly known: Map<string, Float64Array>;
  /** What was mended since, in order; evidence is weighed against the machines as they stood when it was found. */
  readonly repairs: readonly Change[];
  /** The crowd before each of the repairs. */
  readonly before: readonly Crowd[];
  /** How likely each try was on each machine, in the circuit as it was joined; by the time of the try. */
  readonly tried: ReadonlyMap<string, Float64Array>;
}

/** Calls to a machine that starts by itself, against calls to one that does not: it seldom calls anybody. */
const CALLS_THOUGH_IT_STARTS = 0.15;

/** How often such a machine calls, against others of its cause. */
const callsFor = (hidden: HiddenMachine, profile: DiagnosisProfile): number =>
  hidden.cause !== 'none' && lookOf(hidden, profile, false) === 'starts' ? CALLS_THOUGH_IT_STARTS : 1;

/** Draws the crowd of a profile. The same seed gives the same crowd, so that a tap never changes the answer by luck. */
export function drawCrowd(
  profile: DiagnosisProfile,
  random: Random = seededRandom(7),
  perCause = DRAWS_PER_CAUSE,
): Crowd {
  const machines: HiddenMachine[] = [];
  const shares: number[] = [];
  for (const [cause, prior] of priorsFor(profile)) {
    const count = Math.ceil(perCause * (DRAWN_MORE[cause] ?? 1));
    const drawn = Array.from({ length: count }, () => drawHidden(cause, profile, random));
    const calls = drawn.map((hidden) => callsFor(hidden, profile));
    const all = calls.reduce((a, b) => a + b, 0);
    machines.push(...drawn);
    shares.push(...calls.map((share) => (prior * share) / all));
  }
  return {
    profile,
    machines,
    causeAt: Uint8Array.from(machines, ({ cause }) => CAUSES.indexOf(cause)),
    holdsAt: Uint32Array.from(machines, ({ holds }) => bitsOf(holds)),
    shares: normalise(Float64Array.from(shares)),
    known: new Map(),
    repairs: [],
    before: [],
    tried: new Map(),
  };
}

/**
 * The same crowd after repairs: each machine without what they took away. What it holds is what is wrong now; evidence that was found
 * before a repair still tells of the machines as they stood then.
 */
export function crowdAfter(crowd: Crowd, repairs: readonly Change[]): Crowd {
  return repairs.reduce((last: Crowd, repair): Crowd => {
    const machines = last.machines.map((hidden) => repaired(hidden, repair, last.profile));
    return {
      ...last,
      profile: repair.kind === 'battery-charged' ? { ...last.profile, tempC: repair.tempC } : last.profile,
      machines,
      // What kept it from starting keeps it no longer where that was mended.
      causeAt: Uint8Array.from(machines, ({ cause, holds }) =>
        CAUSES.indexOf(holds.includes(cause) ? cause : 'none'),
      ),
      holdsAt: Uint32Array.from(machines, ({ holds }) => bitsOf(holds)),
      known: new Map(),
      repairs: [...last.repairs, repair],
      before: [...last.before, last],
    };
  }, crowd);
}

/** The crowd as it stood after so many repairs. */
export const asOf = (crowd: Crowd, repairs: number): Crowd => crowd.before[repairs] ?? crowd;

/** The crowd as it was found, before anything was mended. */
export const asFound = (crowd: Crowd): Crowd => asOf(crowd, 0);

/** One bit for each cause. */
export const bitsOf = (causes: readonly Cause[]): number =>
  causes.reduce((bits, cause) => (bits | (1 << CAUSES.indexOf(cause))) >>> 0, 0);

/** The different sets of causes that machines of a crowd hold, and which of them each machine does. */
export interface HeldSets {
  readonly sets: Uint32Array;
  readonly setAt: Uint16Array;
}
/** Worked out once for a crowd: there are a few hundred sets at the most, and every question of shares is one of sets. */
const setsKnown = new WeakMap<Uint32Array, HeldSets>();

export function heldSets({ holdsAt }: Pick<Crowd, 'holdsAt'>): HeldSets {
  const known = setsKnown.get(holdsAt);
  if (known) return known;
  const places = new Map([...new Set(holdsAt)].map((bits, at) => [bits, at]));
  const made = {
    sets: Uint32Array.from(places.keys()),
    setAt: Uint16Array.from(holdsAt, (bits) => places.get(bits)!),
  };
  setsKnown.set(holdsAt, made);
  return made;
}

/** What the machines come to that hold each set of causes: counted once, asked many times. */
export interface Held {
  readonly sets: Uint32Array;
  readonly sums: Float64Array;
}

export function heldBy(crowd: Pick<Crowd, 'holdsAt'>, shares: Float64Array): Held {
  const { sets, setAt } = heldSets(crowd);
  const sums = new Float64Array(sets.length);
  for (let i = 0; i < shares.length; i++) sums[setAt[i]!]! += shares[i]!;
  return { sets, sums };
}

/**
 * What the machines come to that have any of these causes, and none of the others: two may meet in one, so such sums need not add up to
 * one.
 */
export function shareHeld(
  { sets, sums }: Held,
  causes: readonly Cause[],
  without: readonly Cause[] = [],
): number {
  const wanted = bitsOf(causes);
  const barred = bitsOf(without);
  let sum = 0;
  for (let i = 0; i < sets.length; i++)
    if ((sets[i]! & wanted) !== 0 && (sets[i]! & barred) === 0) sum += sums[i]!;
  return sum;
}

/** The same of one question alone. */
export const shareOfAny = (
  crowd: Pick<Crowd, 'holdsAt'>,
  shares: Float64Array,
  causes: readonly Cause[],
  without: readonly Cause[] = [],
): number => shareHeld(heldBy(crowd, shares), causes, without);

function chancesOf(crowd: Crowd, check: Check, battery?: number): Float64Array {
  const key = battery === undefined ? check.id : `${check.id}#${battery}`;
  const kept = crowd.known.get(key);
  if (kept) return kept;
  const count = check.outcomes.length;
  const last = crowd.before.at(-1);
  // A machine that a repair did not touch answers as before it.
  const chances = last
    ? Float64Array.from(chancesOf(last, check, battery))
    : new Float64Array(crowd.machines.length * count);
  const blind = BLIND_SHARE[check.edges ? 'figure' : 'look'];
  const asked = (hidden: HiddenMachine): HiddenMachine =>
    battery === undefined ? hidden : oneBattery(hidden, battery);
  const usual = check.edges ? usualOf(crowd, check, key, asked) : null;
  crowd.machines.forEach((hidden, i) => {
    if (hidden === last?.machines[i]) return;
    const one = asked(hidden);
    const seen = outcomeChances(check, one, crowd.profile);
    const near = usual && outcomeChances(check, one, crowd.profile, NEAR_SPREADS);
    for (let at = 0; at < count; at++) {
      const slip = near ? NEAR_SHARE * near[at]! + (1 - NEAR_SHARE) * usual[at]! : 1 / count;
      chances[i * count + at] = (1 - blind) * seen[at]! + blind * Math.max(slip, LEAST_CHANCE);
    }
  });
  crowd.known.set(key, chances);
  return chances;
}

/** How often each outcome of a figure is shown by any machine of the crowd as it was found; worked out once. */
function usualOf(
  crowd: Crowd,
  check: Check,
  key: string,
  asked: (hidden: HiddenMachine) => HiddenMachine,
): Float64Array {
  const found = asFound(crowd);
  const kept = found.known.get(`usual ${key}`);
  if (kept) return kept;
  const usual = new Float64Array(check.outcomes.length);
  found.machines.forEach((hidden, i) => {
    const seen = outcomeChances(check, asked(hidden), found.profile);
    for (let at = 0; at < usual.length; at++) usual[at]! += found.shares[i]! * seen[at]!;
  });
  found.known.set(`usual ${key}`, usual);
  return usual;
}

/** Share of a normal spread below `x`: the logistic curve that lies within two thousandths of it. */
function below(x: number, mean: number, spread: number): number {
  return 1 / (1 + Math.exp((-1.702 * (x - mean)) / spread));
}

/**
 * Chance of each outcome of a check on one machine.
 *
 * @param spreads times the usual spread of a figure
 */
export function outcomeChances(
  check: Check,
  hidden: HiddenMachine,
  profile: DiagnosisProfile,
  spreads = 1,
): readonly number[] {
  if (check.chances) return check.chances(hidden, profile);
  const value = check.predict!(hidden, profile)!;
  const spread = spreads * spreadOf(check, hidden, profile);
  const upTo = [...check.edges!.map((edge) => below(edge, value, spread)), 1];
  return upTo.map((share, i) => share - (upTo[i - 1] ?? 0));
}

/** Place of what was found among the outcomes. @throws RangeError for an outcome the check does not have */
export function outcomeIndex(check: Check, found: Found): number {
  if (typeof found === 'number') {
    if (!check.edges || Number.isNaN(found))
      throw new RangeError(`${check.id}: ${found} is no finding of it`);
    const at = check.edges.findIndex((edge) => found < edge);
    return at < 0 ? check.edges.length : at;
  }
  const at = check.outcomes.indexOf(found);
  if (at < 0) throw new RangeError(`${check.id}: ${found} is no finding of it`);
  return at;
}

/**
 * The outcome of a check that a finding falls on.
 *
 * @throws RangeError for a finding the check cannot have
 * @example outcomeOf('look-belt', 'sound') // => 'sound'
 */
export function outcomeOf(id: CheckId, found: Found): string {
  const check = checkOf(id);
  return check.outcomes[outcomeIndex(check, found)]!;
}

/**
 * True when a check can find this at all.
 *
 * @example isFindingOf('look-belt', 12.4) // => false
 */
export function isFindingOf(id: CheckId, found: Found): boolean {
  const { edges, outcomes } = checkOf(id);
  if (typeof found === 'string') return outcomes.includes(found);
  return edges !== undefined && Math.abs(found) <= FIGURE_MOST;
}
/** No volts, amps or shares of a roadside are larger. */
const FIGURE_MOST = 100;

/**
 * Returns how likely a finding is on each machine, by its place: without a list of its own, since a verdict asks thousands of times. A
 * figure counts by the range it falls in.
 */
export function chanceAt(
  crowd: Crowd,
  { check: id, found, battery, repaired = 0, tried = [] }: DiagnosisEvidence,
): (machine: number) => number {
  const heard = tried.flatMap((at) => crowd.tried.get(at) ?? []);
  // Its lowest volts count with the try.
  if (heard.length > 0 && !TRIES.includes(id)) return () => 1;
  if (heard.length > 0) return (machine) => heard.reduce((product, by) => product * by[machine]!, 1);
  const check = checkOf(id);
  const then = asOf(crowd, repaired);
  const chances = chancesOf(then, check, battery);
  const count = check.outcomes.length;
  const at = outcomeIndex(check, found);
  return (machine) => chances[machine * count + at]!;
}

/** Multiplies the shares by how likely the finding is on each machine. */
function press(crowd: Crowd, shares: Float64Array, piece: DiagnosisEvidence, weight: number): void {
  const chance = chanceAt(crowd, piece);
  // A power is dear among thousands, and most jobs end before findings overlap.
  if (weight === 1) for (let i = 0; i < shares.length; i++) shares[i]! *= chance(i);
  else for (let i = 0; i < shares.length; i++) shares[i]! *= chance(i) ** weight;
  normalise(shares);
}

/** Shares of the crowd after the evidence. */
export function weigh(crowd: Crowd, evidence: readonly DiagnosisEvidence[]): Float64Array {
  const shares = Float64Array.from(crowd.shares);
  const weight = findingWeight(evidence.length);
  for (const piece of evidence) press(crowd, shares, piece, weight);
  return shares;
}

/** Brings shares to a whole, in their place. */
export function normalise(shares: Float64Array): Float64Array {
  let sum = 0;
  for (const share of shares) sum += share;
  for (let i = 0; i < shares.length; i++) shares[i]! /= sum;
  return shares;
}

/** Sum of the shares of what keeps the machines from starting, by its place in `CAUSES`: these add up to one. */
function byCause({ causeAt }: Crowd, shares: Float64Array): Float64Array {
  const sums = new Float64Array(CAUSES.length);
  for (let i = 0; i < shares.length; i++) sums[causeAt[i]!]! += shares[i]!;
  return sums;
}

/** Sum of the shares of all machines that have a cause, alone or beside another, by its place in `CAUSES`. */
function byHeld(crowd: Crowd, shares: Float64Array): Float64Array {
  const held = heldBy(crowd, shares);
  return Float64Array.from(CAUSES, (cause) => shareHeld(held, [cause]));
}

/** What each cause that the crowd holds comes to under these shares, likeliest first; two may be there at once. */
export function sharesByCause(crowd: Crowd, shares: Float64Array): ReadonlyMap<Cause, number> {
  return new Map(ranked(crowd, byHeld(crowd, shares)).map(({ cause, share }) => [cause, share]));
}

/** What one outcome of a check would leave. */
export interface Branch {
  /** Place among the outcomes. */
  readonly at: number;
  /** How likely it is. */
  readonly share: number;
  /** Shares of the crowd after it. */
  readonly after: Float64Array;
}

/** The outcomes that a check may have under these shares. */
export function splitBy(crowd: Crowd, shares: Float64Array, check: Check, battery?: number): Branch[] {
  const chances = chancesOf(crowd, check, battery);
  const count = check.outcomes.length;
  return check.outcomes.map((_, at): Branch => {
    const after = new Float64Array(shares.length);
    let share = 0;
    for (let i = 0; i < shares.length; i++) share += after[i] = shares[i]! * chances[i * count + at]!;
    normalise(after);
    return { at, share, after };
  });
}

/** Causes that the crowd holds at all, with their shares, likeliest first. */
function ranked(crowd: Crowd, sums: Float64Array): { cause: Cause; share: number }[] {
  // Ice is a state that follows from charge and cold, not a cause beside others: it is judged by itself.
  const held = heldSets(crowd).sets.reduce((all, bits) => all | bits, 0) & ~bitsOf(['frozen']);
  return CAUSES.flatMap((cause, i) => ((held & (1 << i)) !== 0 ? [{ cause, share: sums[i]! }] : [])).sort(
    (a, b) => b.share - a.share,
  );
}

/** What one piece of evidence did to a cause: above one it raised it, below it lowered it. */
export interface Push extends DiagnosisEvidence {
  readonly factor: number;
}

export interface Suspicion {
  readonly cause: Cause;
  readonly share: number;
  /** Every piece of evidence, strongest first either way. */
  readonly pushes: readonly Push[];
}

/** The evidence pressed in one piece after another. */
export interface Walk {
  /** Shares of the crowd before any evidence, then after each piece. */
  readonly steps: readonly Float64Array[];
  /** The last of them. */
  readonly shares: Float64Array;
}

export function walk(crowd: Crowd, evidence: readonly DiagnosisEvidence[]): Walk {
  const shares = Float64Array.from(crowd.shares);
  const steps = [crowd.shares];
  const weight = findingWeight(evidence.length);
  for (const piece of evidence) {
    press(crowd, shares, piece, weight);
    steps.push(Float64Array.from(shares));
  }
  return { steps, shares };
}

/** How likely each cause is after the evidence, likeliest first, and what raised and lowered it. */
export function diagnose(crowd: Crowd, evidence: readonly DiagnosisEvidence[]): Suspicion[] {
  const steps = walk(crowd, evidence).steps.map((shares) => byHeld(crowd, shares));
  return ranked(crowd, steps[steps.length - 1]!).map(({ cause, share }) => {
    const at = CAUSES.indexOf(cause);
    const pushes = evidence.map(
      (piece, i): Push => ({ ...piece, factor: steps[i + 1]![at]! / Math.max(steps[i]![at]!, 1e-12) }),
    );
    return { cause, share, pushes: pushes.sort((a, b) => strength(b) - strength(a)) };
  });
}

const strength = ({ factor }: Push): number => Math.abs(Math.log(Math.max(factor, 1e-12)));

/** A check worth doing next. */
export interface Proposal {
  readonly check: CheckId;
  /** The battery of a string to read it at, where others of it were read by themselves. */
  readonly battery?: number;
  /** Doubt it is expected to take away, bits. */
  readonly gainBits: number;
  readonly minutes: number;
  /** Gain for its minutes and the trouble of any check at all: what proposals are ranked by. */
  readonly worth: number;
  /** The causes that it would tell apart most: each with what it would mostly find. */
  readonly settles: readonly Cause[];
}

/** Below this much doubt taken away, bits, a check is not worth its minutes. */
export const LEAST_GAIN_BITS = 0.01;
/** A flat battery may be ice from here down, degC: its acid is little more than water. */
const MAY_FREEZE_C = 0;
/** Trouble of any check besides its minutes: gloves off, words, walking round; minutes. */
const TROUBLE_MINUTES = 1;

/**
 * Checks by what they are expected to tell for their time, best first. Those done already, what is only told unasked, and what cannot or
 * should not be done now are left out.
 */
export function proposals(
  crowd: Crowd,
  evidence: readonly DiagnosisEvidence[],
  tools: readonly Tool[],
  moment: Moment = {},
): Proposal[] {
  const valid = validEvidence(evidence, crowd.repairs);
  const when: Moment = { mayFreeze: crowd.profile.tempC <= MAY_FREEZE_C, ...moment };
  const shares = weigh(crowd, evidence);
  const now = byCause(crowd, shares);
  const doubt = entropy(now);
  const leading = ranked(crowd, now)
    .slice(0, 3)
    .map(({ cause }) => cause);
  return checksFor(crowd.profile, tools)
    .filter((check) => !check.isVolunteered && isPossibleNow(check.id, valid, tools, when))
    .flatMap((check) => stillOpen(check, evidence, crowd))
    .map(({ check, battery }): Proposal => {
      const gainBits = Math.max(0, doubt - expectedDoubt(crowd, shares, check, battery));
      return {
        check: check.id,
        ...(battery !== undefined && { battery }),
        gainBits,
        minutes: check.minutes,
        worth: gainBits / (check.minutes + TROUBLE_MINUTES),
        settles: leading,
      };
    })
    .sort((a, b) => b.worth - a.worth);
}

function entropy(shares: readonly number[] | Float64Array): number {
  let sum = 0;
  for (const p of shares) if (p > 0) sum -= p * Math.log2(p);
  return sum;
}

/**
 * The evidence that tells of the machine as it stands: of each check the last, less what a repair has changed since.
 *
 * @param repairs of the job, in order
 */
export function validEvidence<E extends DiagnosisEvidence>(
  evidence: readonly E[],
  repairs: readonly Change[],
): E[] {
  return evidence.filter(({ check, battery, repaired = 0 }, i) => {
    if (repairs.slice(repaired).some((repair) => changes(repair, check))) return false;
    return !evidence.slice(i + 1).some((later) => later.check === check && later.battery === battery);
  });
}

/**
 * A check that was not done since it could have changed. Of a string it names the next battery where some were read by themselves; nothing
 * when it is done.
 */
export function stillOpen(
  check: Check,
  found: readonly DiagnosisEvidence[],
  { profile: { systemVolts }, repairs }: Pick<Crowd, 'profile' | 'repairs'>,
): { check: Check; battery?: number }[] {
  const evidence = validEvidence(found, repairs);
  if (evidence.some((e) => e.check === check.shownBy && e.battery !== undefined)) return [];
  const done = evidence.filter((e) => e.check === check.id);
  if (done.length === 0) return [{ check }];
  if (done.some((e) => e.battery === undefined)) return [];
  const unread = Array.from({ length: systemVolts / 12 }, (_, i) => i).find(
    (i) => !done.some((e) => e.battery === i),
  );
  return unread === undefined ? [] : [{ check, battery: unread }];
}

/** Machines that hardly count any more are passed over. */
const COUNTS_FROM = 1e-7;

function expectedDoubt(crowd: Crowd, shares: Float64Array, check: Check, battery?: number): number {
  const chances = chancesOf(crowd, check, battery);
  const count = check.outcomes.length;
  const { causeAt } = crowd;
  const width = CAUSES.length;
  const sums = new Float64Array(count * width);
  for (let i = 0; i < shares.length; i++) {
    const share = shares[i]!;
    if (share < COUNTS_FROM) continue;
    for (let o = 0; o < count; o++) sums[o * width + causeAt[i]!]! += share * chances[i * count + o]!;
  }
  let doubt = 0;
  for (let o = 0; o < count; o++) {
    const parts = sums.subarray(o * width, (o + 1) * width);
    let whole = 0;
    for (const part of parts) whole += part;
    // Entropy of the parts once they are brought to one, times their whole: without dividing each.
    if (whole > 0) doubt += entropy(parts) + whole * Math.log2(whole);
  }
  return doubt;
}
