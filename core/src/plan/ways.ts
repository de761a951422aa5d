import type { BatteryRating } from '../battery/battery.js';
import { aloneRescue } from '../circuit/rescue.js';
import type { Engine } from '../engine/engine.js';
import { ROLLING_MIN_REST_VOLTS } from '../machine/rolling-start.js';
import type { Parameter } from '../quantities/parameter.js';
import { seededRandom } from '../quantities/random.js';
import { type BatteryBelief, beliefsWhileJoined, modelOf } from './casualty-batteries.js';
import type { Across } from './clamp-points.js';
import { drawnRescue } from './draws.js';
import { HAND_MINUTES } from './hand-minutes.js';
import { type Odds, weighedOdds } from './odds.js';
import type { SourceKind } from './options.js';
import { type CrankMoment, momentOf, type PlanCase } from './plan-case.js';
import { clampsSetAgain, learnedFrom, type Learned, type TryMade } from './tries.js';

/** One thing of a way to get it going, with its minutes. */
export type WayStep =
  | { readonly kind: 'rest'; readonly minutes: number }
  | { readonly kind: 'mend'; readonly minutes: number }
  | { readonly kind: 'reclamp'; readonly minutes: number }
  | { readonly kind: 'join'; readonly optionId: string; readonly minutes: number }
  | { readonly kind: 'charge'; readonly optionId: string; readonly minutes: number }
  | { readonly kind: 'part'; readonly minutes: number }
  | { readonly kind: 'swap'; readonly spareId: string; readonly minutes: number }
  | { readonly kind: 'roll'; readonly minutes: number }
  | { readonly kind: 'crank'; readonly minutes: number };

/** A way with one wait: what is done, how long until the try is over, and how surely it starts. */
export interface WayPoint {
  readonly waitMinutes: number;
  readonly minutes: number;
  readonly start: number;
  readonly low: number;
  readonly high: number;
  readonly steps: readonly WayStep[];
}

/** One way to get it going, with each wait that it may hold. */
export interface Way {
  readonly id: string;
  /** What is joined first; null where nothing is. */
  readonly optionId: string | null;
  /** What is joined once the first is off; null where nothing is. */
  readonly thenOptionId: string | null;
  readonly kind: 'join' | 'reclamp' | 'charge-then-join' | 'own' | 'swap' | 'roll';
  /** A joint is mended first. */
  readonly mends: boolean;
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
}

/** A battery of the van that could go in. */
export interface SpareBattery {
  readonly id: string;
  readonly belief: BatteryBelief;
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
  /** What is joined now; null for nothing. */
  readonly joinedOptionId: string | null;
  /** What was tried on this job. */
  readonly tries: readonly TryMade[];
}

/** All ways, and how likely the fault lies where none of them helps. */
export interface Ways {
  readonly ways: readonly Way[];
  readonly elsewhere: number;
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
/** Draws of one figure. Every figure is of the same draws, so that two are compared without their noise. */
export const WAY_SAMPLES = 200;
/** Of engines that get control volts, gear and speed, so many fire when they are rolled. */
export const ROLLED_FIRES = 0.85;
/** Control units, pump and ignition draw so much while it rolls, A. */
const ROLLING_AMPS = 15;
/** A spare of at least this share of the rating that sits there may go in. */
export const SPARE_LEAST_CCA_SHARE = 0.8;

/**
 * Every way to get this machine going with what is there, each with its waits: safe by the fitness of its sources, followed minute by minute
 * through the same circuit, and judged by the same draws, weighed by what was tried.
 *
 * @param onWay told each way as it is done, with the share done; return false to stop
 * @returns null when stopped
 */
export function waysOf(
  input: WaysInput,
  seed: number,
  onWay: (way: Way, share: number) => boolean = () => true,
  samples = WAY_SAMPLES,
): Ways | null {
  const { engine } = input.own;
  const learned = learnedFrom(input.tries, engine, samples, seededRandom(seed));
  const judge = judgeOf(engine, learned);
  const plans = [
    ...reclamped(input, judgeOf(engine, clampsSetAgain(learned, seededRandom(seed + 1)))),
    ...plansOf(input, learned, judge),
  ];
  const ways: Way[] = [];
  for (const plan of plans) {
    const way = plan();
    ways.push(way);
    if (!onWay(way, ways.length / plans.length)) return null;
  }
  return { ways, elsewhere: learned.elsewhere };
}

type Judge = (moment: CrankMoment) => Pick<Odds, 'start' | 'low' | 'high'>;

/** The odds of a moment, less what lies where no source helps. */
function judgeOf(engine: Engine, learned: Learned): Judge {
  const helps = 1 - learned.elsewhere;
  return ({ rescue, beliefs }) => {
    const { start, low, high } = weighedOdds({ rescue, batteries: beliefs, engine }, learned)!;
    return { start: helps * start, low: helps * low, high: helps * high };
  };
}

/** What is to be reckoned, one way each; those likely to be looked at first come first. */
function plansOf(input: WaysInput, learned: Learned, judge: Judge): (() => Way)[] {
  const { options, own, spares, restMinutes, joinedOptionId } = input;
  const isJointBad = own.rescue.joints !== undefined;
  const rested: readonly WayStep[] = restMinutes > 0 ? [{ kind: 'rest', minutes: restMinutes }] : [];
  // What is joined comes off before anything else is; starter and leads rest meanwhile.
  const part: WayStep = { kind: 'part', minutes: HAND_MINUTES.part };
  const left = Math.max(0, restMinutes - part.minutes);
  const parted: readonly WayStep[] = left > 0 ? [part, { kind: 'rest', minutes: left }] : [part];
  const rest = joinedOptionId === null ? rested : parted;
  const mend: WayStep = { kind: 'mend', minutes: HAND_MINUTES.mend };
  const ready = (mends: boolean): readonly WayStep[] => (mends ? [...rest, mend] : rest);
  const mended = (plan: PlanCase): PlanCase => {
    const { joints: _, ...rescue } = plan.rescue;
    return { ...plan, rescue };
  };
  const variants = isJointBad ? [false, true] : [false];
  const at = (plan: PlanCase, mends: boolean): PlanCase => (mends ? mended(plan) : plan);

  const joins = options.flatMap((option) =>
    variants.map((mends) => () => {
      const plan = at(option.plan, mends);
      // Joined already, it only goes on.
      return option.id === joinedOptionId && !mends
        ? joined({ ...option, leastMinutes: 0 }, plan, mends, rested, 0, judge)
        : joined(option, plan, mends, ready(mends), joinMinutes(option), judge);
    }),
  );
  const firsts = options.filter((o) => isSupply(o.plan));
  const seconds = options
    .filter((o) => !isSupply(o.plan) && o.across.kind === 'whole')
    .slice(0, SECONDS_TRIED);
  const chains = firsts.flatMap((first) =>
    seconds
      .filter((second) => second.sourceKind !== first.sourceKind)
      .map((second) => () => chained(first, second, rest, judge)),
  );
  const alone = variants.map((mends) => (): Way => {
    const plan = at(own, mends);
    const steps: WayStep[] = [...ready(mends), { kind: 'crank', minutes: HAND_MINUTES.crank }];
    return {
      id: mends ? 'own+mend' : 'own',
      optionId: null,
      thenOptionId: null,
      kind: 'own',
      mends,
      points: [pointOf(0, steps, judge(momentOf(plan, plan.beliefs)))],
    };
  });
  const swaps = spares.map((spare) => (): Way => {
    const steps: WayStep[] = [
      ...rest,
      { kind: 'swap', spareId: spare.id, minutes: HAND_MINUTES.swap },
      { kind: 'crank', minutes: HAND_MINUTES.crank },
    ];
    const { tempC } = own.rescue;
    const rescue = aloneRescue([modelOf(spare.belief, tempC)], tempC);
    const odds = judge({ rescue, beliefs: [spare.belief] });
    return {
      id: `swap:${spare.id}`,
      optionId: null,
      thenOptionId: null,
      kind: 'swap',
      mends: false,
      points: [pointOf(0, steps, odds)],
    };
  });
  const rolls = input.mayRoll ? [() => rolled(own, learned, rest)] : [];
  return [...joins, ...alone, ...swaps, ...rolls, ...chains];
}

/** What is joined and has failed, with its clamps set again. */
function reclamped({ options, joinedOptionId, tries, restMinutes }: WaysInput, judge: Judge): (() => Way)[] {
  const option = options.find((o) => o.id === joinedOptionId);
  if (!option || option.plan.chargeOnly || tries.length === 0) return [];
  const { reclamp, crank } = HAND_MINUTES;
  const left = Math.max(0, restMinutes - reclamp);
  const steps: WayStep[] = [
    { kind: 'reclamp', minutes: reclamp },
    ...(left > 0 ? [{ kind: 'rest', minutes: left } as const] : []),
    { kind: 'crank', minutes: crank },
  ];
  return [
    () => ({
      id: `reclamp:${option.id}`,
      optionId: option.id,
      thenOptionId: null,
      kind: 'reclamp',
      mends: false,
      points: [pointOf(0, steps, judge(momentOf(option.plan, option.plan.beliefs)))],
    }),
  ];
}

const isSupply = (plan: PlanCase): boolean => plan.rescue.source?.alternator !== undefined;

/** The waits that this option may hold, minutes; one of none for a source that charges nothing. */
function waitsOf({ plan, leastMinutes }: WayOption): readonly number[] {
  if (!isSupply(plan)) return [0];
  const grid: readonly number[] = plan.chargeOnly ? LONG_WAITS : SHORT_WAITS;
  return [...new Set([leastMinutes, ...grid.filter((m) => m > leastMinutes)])];
}

function joined(
  option: WayOption,
  plan: PlanCase,
  mends: boolean,
  ready: readonly WayStep[],
  handMinutes: number,
  judge: Judge,
): Way {
  const waits = waitsOf(option);
  const path = chargePath(plan, waits.at(-1)!);
  const oddsAt = remembered((minutes: number) => judge(momentOf(plan, path[minutes]!)));
  const points = worthLookingAt(waits, (m) => oddsAt(m).start).map((minutes) =>
    pointOf(
      minutes,
      [
        ...ready,
        ...(handMinutes > 0 ? [{ kind: 'join', optionId: option.id, minutes: handMinutes } as const] : []),
        ...(minutes > 0 ? [{ kind: 'charge', optionId: option.id, minutes } as const] : []),
        ...(plan.chargeOnly ? [{ kind: 'part', minutes: HAND_MINUTES.part } as const] : []),
        { kind: 'crank', minutes: HAND_MINUTES.crank },
      ],
      oddsAt(minutes),
    ),
  );
  return {
    id: mends ? `${option.id}+mend` : option.id,
    optionId: option.id,
    thenOptionId: null,
    kind: 'join',
    mends,
    points,
  };
}

/** One source charges the battery and comes off; another is joined for the crank. */
function chained(first: WayOption, second: WayOption, rest: readonly WayStep[], judge: Judge): Way {
  const path = chargePath(first.plan, FIRST_LEG_WAITS.at(-1)!);
  return {
    id: `${first.id}>${second.id}`,
    optionId: first.id,
    thenOptionId: second.id,
    kind: 'charge-then-join',
    mends: false,
    points: FIRST_LEG_WAITS.map((minutes) =>
      pointOf(
        minutes,
        [
          ...rest,
          { kind: 'join', optionId: first.id, minutes: joinMinutes(first) },
          { kind: 'charge', optionId: first.id, minutes },
          { kind: 'part', minutes: HAND_MINUTES.part },
          { kind: 'join', optionId: second.id, minutes: joinMinutes(second) },
          { kind: 'crank', minutes: HAND_MINUTES.crank },
        ],
        judge(momentOf(second.plan, path[minutes]!)),
      ),
    ),
  };
}

/** Rolled, the engine turns fast enough; what is asked is whether its control units stay awake. */
function rolled({ rescue, beliefs }: PlanCase, learned: Learned, rest: readonly WayStep[]): Way {
  const { draws, weights, elsewhere } = learned;
  const least = ROLLING_MIN_REST_VOLTS * beliefs.length;
  const awake = draws.reduce((share, draw, i) => {
    const { casualty } = drawnRescue({ rescue, batteries: beliefs }, draw);
    const volts = casualty.reduce((sum, b) => sum + b.openVolts - ROLLING_AMPS * b.ohms, 0);
    return volts >= least ? share + weights[i]! : share;
  }, 0);
  const start = (1 - elsewhere) * ROLLED_FIRES * awake;
  const steps: WayStep[] = [...rest, { kind: 'roll', minutes: HAND_MINUTES.roll }];
  return {
    id: 'roll',
    optionId: null,
    thenOptionId: null,
    kind: 'roll',
    mends: false,
    points: [pointOf(0, steps, { start, low: start, high: start })],
  };
}

/** Beliefs by minutes joined; for a source that charges nothing the same throughout. */
function chargePath(plan: PlanCase, minutes: number): readonly (readonly BatteryBelief[])[] {
  return isSupply(plan) ? beliefsWhileJoined(plan.rescue, plan.beliefs, minutes) : [plan.beliefs];
}

/** Those of these waits between which something changes: ends first, then the middles of what differs. */
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

function remembered<T>(of: (minutes: number) => T): (minutes: number) => T {
  const known = new Map<number, T>();
  return (minutes) => {
    if (!known.has(minutes)) known.set(minutes, of(minutes));
    return known.get(minutes)!;
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

function pointOf(
  waitMinutes: number,
  steps: readonly WayStep[],
  { start, low, high }: Pick<Odds, 'start' | 'low' | 'high'>,
): WayPoint {
  return { waitMinutes, minutes: steps.reduce((sum, s) => sum + s.minutes, 0), start, low, high, steps };
}

/** A spare as it would sit in the machine: full as the kit says, and little doubt of it. */
export function spareBelief(rating: BatteryRating, soc: number): BatteryBelief {
  return { rating, soc, socLow: Math.max(0, soc - 0.05), socHigh: Math.min(1, soc + 0.05), ageing: 1.2 };
}

/** What of this file may be questioned. */
export const waysParameters = (): readonly Parameter[] => [
  {
    id: 'ways.rolledFires',
    name: 'rolled engines that fire',
    value: ROLLED_FIRES,
    low: 0.6,
    high: 0.95,
    unit: 'of those with control volts',
    reason: 'Gear, clutch and nerve; the engine itself is as sound as any.',
  },
  {
    id: 'ways.spareCca',
    name: 'least cold-cranking amps of a spare that goes in',
    value: SPARE_LEAST_CCA_SHARE,
    low: 0.7,
    high: 1,
    unit: 'of the rating',
    reason: 'To get home; the right one is fitted after.',
  },
];
