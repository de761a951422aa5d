import type { SourceKind } from '../sources/index.js';
import type { BatteryRating } from '../battery/index.js';
import { aloneRescue } from '../circuit/index.js';
import { ROLLING_MIN_REST_VOLTS } from '../machine/index.js';
import {
  batteriesIn,
  type BatteryBelief,
  beliefsWhileJoined,
  clampsSetAgain,
  type CrankMoment,
  modelOf,
  type Population,
  startShare,
} from '../belief/index.js';
import { seededRandom, parameter } from '../quantities/index.js';
import type { Across } from './clamp-points.js';
import { HAND_MINUTES } from './hand-minutes.js';
import { momentOf, type PlanCase } from './plan-case.js';

/** One thing of a way to get it going, with its minutes. */
export type WayStep =
  | { readonly kind: 'rest'; readonly minutes: number }
  | { readonly kind: 'fetch'; readonly vanId: string; readonly minutes: number }
  | { readonly kind: 'mend'; readonly minutes: number }
  | { readonly kind: 'reclamp'; readonly minutes: number }
  | { readonly kind: 'join'; readonly optionId: string; readonly minutes: number }
  | { readonly kind: 'charge'; readonly optionId: string; readonly minutes: number }
  | { readonly kind: 'fill'; readonly optionId: string; readonly minutes: number }
  | { readonly kind: 'part'; readonly minutes: number }
  | { readonly kind: 'swap'; readonly spareId: string; readonly minutes: number }
  | { readonly kind: 'roll'; readonly minutes: number }
  | { readonly kind: 'crank'; readonly minutes: number };

/** A way with one wait: what is done, how long until the try is over, and how surely it starts. */
export interface WayPoint {
  readonly waitMinutes: number;
  readonly minutes: number;
  readonly start: number;
  readonly steps: readonly WayStep[];
}

/** One way to get it going, with each wait that it may hold. */
export interface Way {
  readonly id: string;
  /** The option that is joined first; null for none. */
  readonly optionId: string | null;
  /** The option that is joined once the first is off; null for none. */
  readonly thenOptionId: string | null;
  readonly kind: 'join' | 'reclamp' | 'charge-then-join' | 'own' | 'swap' | 'roll';
  /** A joint is mended first. */
  readonly mends: boolean;
  /** Another van brings what is joined or fitted; left out where it is at hand. */
  readonly vanId?: string;
  /** By minutes. */
  readonly points: readonly WayPoint[];
}

/** An option that fits, as the search takes it. */
export interface WayOption {
  readonly id: string;
  readonly sourceKind: SourceKind;
  readonly across: Across;
  readonly plan: PlanCase;
  /** Shortest charge that this house holds to before a crank, minutes. */
  readonly leastMinutes: number;
  /** Another van must bring it first. */
  readonly fetch?: Fetch;
  /** A booster that fills itself from the weak battery: in how long, and what it does then. */
  readonly filled?: { readonly minutes: number; readonly plan: PlanCase };
}

/** A van that must come, and how long that takes, minutes. */
export interface Fetch {
  readonly vanId: string;
  readonly minutes: number;
}

/** A battery of the van that could go in. */
export interface SpareBattery {
  readonly id: string;
  readonly belief: BatteryBelief;
  /** Another van must bring it first. */
  readonly fetch?: Fetch;
}

/** All that the search works from: plain data, so that it may go to a worker. */
export interface WaysInput {
  readonly options: readonly WayOption[];
  /** The machine on its own battery. */
  readonly own: PlanCase;
  readonly spares: readonly SpareBattery[];
  readonly mayRoll: boolean;
  /** Minutes that starter and leads must rest before any try. */
  readonly restMinutes: number;
  /** The option that is joined now; null for none. */
  readonly joinedOptionId: string | null;
  /** The joined source has failed: its clamps may be set again. */
  readonly hasFailed: boolean;
}

/** Waits looked at with a source that charges at once, minutes. */
export const SHORT_WAITS = [0, 2, 3, 5, 8, 12, 18, 25] as const;
/** Waits looked at with a charger that must come off first, minutes. */
export const LONG_WAITS = [15, 30, 45, 60, 90, 120, 180] as const;
/** Waits looked at where something else is joined afterwards, minutes. */
const FIRST_LEG_WAITS = [5, 10, 20] as const;
/** How many of the sources that give at once are tried as a second. */
const SECONDS_TRIED = 2;
/** Waits between two that give the same are not looked at. */
const SAME_ODDS = 0.01;
/** Of engines that get control volts, gear and speed, so many fire when they are rolled. */
export const ROLLED_FIRES = parameter(0.85, {
  id: 'ways.rolledFires',
  name: 'rolled engines that fire',
  low: 0.6,
  high: 0.95,
  unit: 'of those with control volts',
  reason: 'Gear, clutch and nerve; the engine itself is as sound as any.',
});
/** Control units, pump and ignition draw so much while it rolls, A. */
const ROLLING_AMPS = 15;
/** A spare of at least this share of the rating that sits there may go in. */
export const SPARE_LEAST_CCA_SHARE = parameter(0.8, {
  id: 'ways.spareCca',
  name: 'least cold-cranking amps of a spare that goes in',
  low: 0.7,
  high: 1,
  unit: 'of the rating',
  reason: 'To get home; the right one is fitted after.',
});

/**
 * Every way to get this machine going with what is there, each with its waits: its sources fit, and the same circuit follows it by the
 * minute. The same machines judge them all, so that two are compared without noise.
 */
export function waysOf(input: WaysInput, population: Population, seed: number): readonly Way[] {
  return [...waysOneByOne(input, population, seed)].map(([way]) => way);
}

/** The search of `waysOf`, each way as it is done with the share done by then: whoever asks may rest between two, or leave it. */
export function* waysOneByOne(
  input: WaysInput,
  population: Population,
  seed: number,
): Generator<readonly [way: Way, share: number], void> {
  const { engine } = input.own;
  const plans = plansOf({
    input,
    seed,
    population,
    judge: (moment) => startShare(moment, engine, population),
    // One and the same charge is what it comes to by itself, and before whatever follows it.
    chargedBy: remembered((option: WayOption) =>
      chargePath(
        option.plan,
        Math.max(waitsOf(option).at(-1)!, FIRST_LEG_WAITS.at(-1)!, farthestMinutes(input)),
      ),
    ),
  });
  for (const [i, plan] of plans.entries()) yield [plan(), (i + 1) / plans.length];
}

/** The odds of a moment. */
type Judge = (moment: CrankMoment) => number;

/** The parts that all ways of one search are made with. */
interface Search {
  readonly input: WaysInput;
  readonly seed: number;
  readonly population: Population;
  readonly judge: Judge;
  /** The batteries, minute by minute, with a source joined. */
  readonly chargedBy: (option: WayOption) => ChargePath;
}

/** The longest that one waits for another van, minutes; 0 where nothing is brought. */
const farthestMinutes = ({ options }: WaysInput): number =>
  Math.ceil(Math.max(0, ...options.map(({ fetch }) => fetch?.minutes ?? 0)));

/** The work of a search, one way each; the ways that are likely to be looked at first come first. */
function plansOf(search: Search): (() => Way)[] {
  const { options, own, spares, mayRoll } = search.input;
  const firsts = options.filter((o) => isSupply(o.plan) && !o.fetch);
  const gives = options.filter((o) => !isSupply(o.plan) && o.across.kind === 'whole');
  const seconds = [
    ...gives.filter((o) => !o.fetch).slice(0, SECONDS_TRIED),
    ...gives.filter((o) => o.fetch).slice(0, 1),
  ];
  const variants = own.rescue.joints ? [false, true] : [false];
  return [
    ...again(search),
    ...options.flatMap((option) => variants.map((mends) => () => joined(search, option, mends))),
    ...options.flatMap((option) => (option.filled ? [() => filled(search, option, option.filled!)] : [])),
    ...variants.map((mends) => () => alone(search, mends)),
    ...spares.map((spare) => () => swapped(search, spare)),
    ...(mayRoll ? [() => rolled(search)] : []),
    ...firsts.flatMap((first) =>
      seconds
        .filter((second) => second.sourceKind !== first.sourceKind)
        .map((second) => () => chained(search, first, second)),
    ),
  ];
}

const CRANK: WayStep = { kind: 'crank', minutes: HAND_MINUTES.crank };
const PART: WayStep = { kind: 'part', minutes: HAND_MINUTES.part };
const MEND: WayStep = { kind: 'mend', minutes: HAND_MINUTES.mend };

/** Something that hands do while starter and leads rest, and what is left of the rest then. */
function whileResting(restMinutes: number, ...work: readonly WayStep[]): readonly WayStep[] {
  const left = restMinutes - minutesOf(work);
  return left > 0 ? [...work, { kind: 'rest', minutes: left }] : work;
}

const fetchStep = ({ vanId, minutes }: Fetch): WayStep => ({ kind: 'fetch', vanId, minutes });

/**
 * Acts before anything new: the joined source comes off, and a joint is mended where it is. Kit that another van must bring is waited for
 * while one waits for it.
 */
function ready({ joinedOptionId, restMinutes }: WaysInput, mends = false, fetch?: Fetch): readonly WayStep[] {
  const work = [...(joinedOptionId === null ? [] : [PART]), ...(mends ? [MEND] : [])];
  if (fetch) {
    const waited = Math.max(0, fetch.minutes - minutesOf(work));
    return whileResting(restMinutes, ...work, fetchStep({ ...fetch, minutes: waited }));
  }
  const rested = whileResting(restMinutes, ...(joinedOptionId === null ? [] : [PART]));
  return mends ? [...rested, MEND] : rested;
}

const minutesOf = (steps: readonly WayStep[]): number => steps.reduce((sum, s) => sum + s.minutes, 0);

/** The case with its joints sound. */
function mended(plan: PlanCase): PlanCase {
  const { joints: _, ...rescue } = plan.rescue;
  return { ...plan, rescue, isMended: true };
}

const joinStep = (option: WayOption): WayStep => ({
  kind: 'join',
  optionId: option.id,
  minutes: joinMinutes(option),
});
const chargeStep = (option: WayOption, minutes: number): WayStep => ({
  kind: 'charge',
  optionId: option.id,
  minutes,
});

/** A way that is one try, without a wait. */
function once(
  kind: Way['kind'],
  id: string,
  steps: readonly WayStep[],
  start: number,
  more: Partial<Pick<Way, 'optionId' | 'mends' | 'vanId'>> = {},
): Way {
  const points = [pointOf(0, steps, start)];
  return { id, kind, optionId: null, thenOptionId: null, mends: false, points, ...more };
}

/** The joined source that has failed, with its clamps set again. */
function again({ input, population, seed }: Search): (() => Way)[] {
  const { options, joinedOptionId, hasFailed, restMinutes, own } = input;
  const option = options.find((o) => o.id === joinedOptionId);
  if (!option || option.plan.chargeOnly || !hasFailed) return [];
  const steps = [...whileResting(restMinutes, { kind: 'reclamp', minutes: HAND_MINUTES.reclamp }), CRANK];
  return [
    () => {
      const moment = momentOf(option.plan, option.plan.beliefs);
      const start = startShare(moment, own.engine, clampsSetAgain(population, seededRandom(seed + 1)));
      return once('reclamp', `reclamp:${option.id}`, steps, start, { optionId: option.id });
    },
  ];
}

function alone({ input, judge }: Search, mends: boolean): Way {
  const plan = mends ? mended(input.own) : input.own;
  const start = judge(momentOf(plan, plan.beliefs));
  return once('own', mends ? 'own+mend' : 'own', [...ready(input, mends), CRANK], start, { mends });
}

function swapped({ input, judge }: Search, { id, belief, fetch }: SpareBattery): Way {
  const { tempC } = input.own.rescue;
  const start = judge({ rescue: aloneRescue([modelOf(belief, tempC)], tempC), beliefs: [belief] });
  const swap: WayStep = { kind: 'swap', spareId: id, minutes: HAND_MINUTES.swap };
  const steps = [...ready(input, false, fetch), swap, CRANK];
  return once('swap', `swap:${id}`, steps, start, fetch && { vanId: fetch.vanId });
}

const isSupply = (plan: PlanCase): boolean => plan.rescue.source?.alternator !== undefined;

/** The waits that this option may hold, minutes; one of none for a source that charges nothing. */
function waitsOf({ plan, leastMinutes }: WayOption): readonly number[] {
  if (!isSupply(plan)) return [0];
  const grid: readonly number[] = plan.chargeOnly ? LONG_WAITS : SHORT_WAITS;
  return [...new Set([leastMinutes, ...grid.filter((m) => m > leastMinutes)])];
}

function joined(search: Search, option: WayOption, mends: boolean): Way {
  const { input, judge } = search;
  // Joined already, it only goes on.
  const goesOn = option.id === input.joinedOptionId && !mends;
  const plan = mends ? mended(option.plan) : option.plan;
  const waits = waitsOf(goesOn ? { ...option, leastMinutes: 0 } : option);
  const path = mends ? chargePath(plan, waits.at(-1)!) : search.chargedBy(option);
  const before = goesOn
    ? whileResting(input.restMinutes)
    : [...ready(input, mends, option.fetch), joinStep(option)];
  const oddsAt = remembered((minutes: number) => judge(momentOf(plan, path[minutes]!)));
  return {
    id: mends ? `${option.id}+mend` : option.id,
    optionId: option.id,
    thenOptionId: null,
    kind: 'join',
    mends,
    ...(option.fetch && { vanId: option.fetch.vanId }),
    points: worthLookingAt(waits, oddsAt).map((minutes) =>
      pointOf(
        minutes,
        [
          ...before,
          ...(minutes > 0 ? [chargeStep(option, minutes)] : []),
          ...(plan.chargeOnly ? [PART] : []),
          CRANK,
        ],
        oddsAt(minutes),
      ),
    ),
  };
}

/** Joined, and left until its converter has filled it from the battery that it is to help. */
function filled(
  { input, judge }: Search,
  option: WayOption,
  { minutes, plan }: NonNullable<WayOption['filled']>,
): Way {
  const goesOn = option.id === input.joinedOptionId;
  const before = goesOn
    ? whileResting(input.restMinutes)
    : [...ready(input, false, option.fetch), joinStep(option)];
  const steps: readonly WayStep[] = [...before, { kind: 'fill', optionId: option.id, minutes }, CRANK];
  const start = judge(momentOf(plan, plan.beliefs));
  return {
    ...once('join', `${option.id}+fill`, steps, start, { optionId: option.id }),
    ...(option.fetch && { vanId: option.fetch.vanId }),
    points: [pointOf(minutes, steps, start)],
  };
}

/** One source charges the battery and comes off; another is joined for the crank. */
function chained({ input, judge, chargedBy }: Search, first: WayOption, second: WayOption): Way {
  const path = chargedBy(first);
  return {
    id: `${first.id}>${second.id}`,
    optionId: first.id,
    thenOptionId: second.id,
    kind: 'charge-then-join',
    mends: false,
    ...(second.fetch && { vanId: second.fetch.vanId }),
    points: legsOf(first, second).map((minutes) =>
      pointOf(
        minutes,
        [
          ...ready(input),
          joinStep(first),
          chargeStep(first, minutes),
          // It came while the first one charged.
          ...(second.fetch ? [fetchStep({ ...second.fetch, minutes: 0 })] : []),
          PART,
          joinStep(second),
          CRANK,
        ],
        judge(momentOf(second.plan, path[minutes]!)),
      ),
    ),
  };
}

/** How long the first one charges: as long as the second one is on its way, where it is. */
const legsOf = (first: WayOption, { fetch }: WayOption): readonly number[] =>
  fetch ? [Math.max(FIRST_LEG_WAITS[0], Math.round(fetch.minutes - joinMinutes(first)))] : FIRST_LEG_WAITS;

/** Rolled, the engine turns fast enough; what is asked is whether its control units stay awake. Its starter takes no part. */
function rolled({ input, population: { machines } }: Search): Way {
  const { rescue, beliefs } = input.own;
  const least = ROLLING_MIN_REST_VOLTS * beliefs.length;
  const awake = machines.filter((machine) => {
    const { hidden } = machine;
    if (hidden && (hidden.open || hidden.held === 'firing')) return false;
    const casualty = batteriesIn({ rescue, beliefs }, machine);
    const volts = casualty.reduce((sum, b) => sum + b.openVolts - ROLLING_AMPS * b.ohms, 0);
    return volts >= least;
  });
  const steps: readonly WayStep[] = [...ready(input), { kind: 'roll', minutes: HAND_MINUTES.roll }];
  return once('roll', 'roll', steps, (ROLLED_FIRES * awake.length) / machines.length);
}

/** Beliefs by minutes joined. */
type ChargePath = readonly (readonly BatteryBelief[])[];

/** Beliefs by minutes joined; for a source that charges nothing the same throughout. */
function chargePath(plan: PlanCase, minutes: number): ChargePath {
  return isSupply(plan) ? beliefsWhileJoined(plan.rescue, plan.beliefs, minutes) : [plan.beliefs];
}

/** Returns these waits where something changes between them: ends first, then the middles of the differences. */
function worthLookingAt(waits: readonly number[], oddsAt: (minutes: number) => number): readonly number[] {
  const kept = new Set<number>();
  const look = (from: number, to: number): void => {
    kept.add(waits[from]!).add(waits[to]!);
    if (to - from < 2 || Math.abs(oddsAt(waits[to]!) - oddsAt(waits[from]!)) < SAME_ODDS) return;
    const middle = Math.floor((from + to) / 2);
    look(from, middle);
    look(middle, to);
  };
  look(0, waits.length - 1);
  return [...kept].sort((a, b) => a - b);
}

function remembered<K, T>(of: (key: K) => T): (key: K) => T {
  const known = new Map<K, T>();
  return (key) => {
    if (!known.has(key)) known.set(key, of(key));
    return known.get(key)!;
  };
}

function joinMinutes({ sourceKind }: WayOption): number {
  switch (sourceKind) {
    case 'donor':
      return HAND_MINUTES.donor;
    case 'spare-batteries':
      return HAND_MINUTES.spares;
    case 'mains-charger':
      return HAND_MINUTES.charger;
    default:
      return HAND_MINUTES.pack;
  }
}

function pointOf(waitMinutes: number, steps: readonly WayStep[], start: number): WayPoint {
  return { waitMinutes, minutes: minutesOf(steps), start, steps };
}

/** A spare as it would sit in the machine: full as the kit says, and little doubt of it. */
export function spareBelief(rating: BatteryRating, soc: number): BatteryBelief {
  return {
    ...{ rating, soc, socLow: Math.max(0, soc - 0.05), socHigh: Math.min(1, soc + 0.05) },
    ...{ ageing: 1.2, isFitted: true },
  };
}
