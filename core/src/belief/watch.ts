import { ageingOfStrength, BATTERY_RANGES } from '../battery/index.js';
import { SELF_LOSS_PER_DAY, SLEEP_AMPS } from '../charging/index.js';
import { aloneRescue, modelBattery } from '../circuit/index.js';
import { wakePoint } from '../crank/index.js';
import { type Cause, drawAgeing, drawBadJoint, drawDrain, SOUND_OHMS } from '../diagnosis/index.js';
import type { Machine, MachineBattery } from '../machine/index.js';
import { drawWeighted, HOURS_A_DAY, normal, parameter, type Random } from '../quantities/index.js';
import type { HouseRules } from '../rules/index.js';
import {
  CHANGED_UNTOLD,
  type EarlierBelief,
  MENDED_HALF_DAYS,
  STAYING_CAUSES,
  stillAtFault,
} from './carry.js';
import { type CrankMoment, cranksIn, type HiddenParts, lookIn } from './population.js';
import { AGEING_LOG_DEVIATION, AGEING_MEDIAN, type Draw, drawUnknowns } from './unknowns.js';

/** How a vehicle is used, as its driver said. */
export type VehicleUse = HiddenParts['use'];

/** A vehicle that nobody looks at now: its machine, and the belief that earlier jobs left. */
export interface StandingVehicle {
  readonly machine: Pick<Machine, 'machineClass' | 'systemVolts' | 'engine'> & {
    readonly batteries: readonly Pick<MachineBattery, 'rating'>[];
  };
  /** By the day of asking; null where no job tells of it. */
  readonly earlier: EarlierBelief | null;
  /** Age of each battery by its date mark, years; null where nobody has read one. */
  readonly years: readonly (number | null)[];
  /** Null where no driver said it. */
  readonly use: VehicleUse | null;
  /** As it was last found, before anybody helped it: its charge, its cold, and whether it started; null where nobody saw it. */
  readonly found: { readonly soc: number; readonly tempC: number; readonly started: boolean } | null;
  /** The charge that it was left with, and the days since; null where nothing tells. */
  readonly left: { readonly soc: number; readonly days: number } | null;
}

/** A night to come. */
export interface Night {
  /** Its lowest temperature, degC. */
  readonly lowC: number;
  /** Days from now. */
  readonly daysAhead: number;
}

/** The work that lifts the odds of a cold morning, least trouble first. */
export const CURES = ['tighten', 'maintainer', 'charge', 'replace', 'workshop'] as const;
export type Cure = (typeof CURES)[number];

/** The reasons why a vehicle may fail: the fault of most of its machines that do. */
export const WATCH_REASONS = ['joint', 'charge', 'battery', 'charging', 'drain', 'starter'] as const;
export type WatchReason = (typeof WATCH_REASONS)[number];

/** Minutes of a technician's hands for each cure. The hours of a charge need none. */
export const CURE_MINUTES: Readonly<Record<Cure, number>> = {
  tighten: parameter(10, {
    id: 'watch.tighten',
    name: 'clean and tighten both clamps',
    low: 5,
    high: 20,
    unit: 'min',
    reason: 'Two clamps, a brush and a spanner.',
  }),
  maintainer: parameter(12, {
    id: 'watch.maintainer',
    name: 'put a maintainer on',
    low: 5,
    high: 30,
    unit: 'min',
    reason: 'Pigtail, fuse and plug; it stays on.',
  }),
  charge: parameter(15, {
    id: 'watch.charge',
    name: 'put a charger on and take it off',
    low: 10,
    high: 30,
    unit: 'min',
    reason: 'The hours between need nobody.',
  }),
  replace: parameter(25, {
    id: 'watch.replace',
    name: 'change a battery',
    low: 15,
    high: 60,
    unit: 'min',
    reason: 'More where it must be taught.',
  }),
  workshop: parameter(90, {
    id: 'watch.workshop',
    name: 'mend charging, starter or drain',
    low: 45,
    high: 240,
    unit: 'min',
    reason: 'Seldom done where it stands.',
  }),
};

/** The outlook of one vehicle on the coldest of some nights. */
export interface Outlook {
  /** Place of the coldest night; of two alike the later. */
  readonly night: number;
  /** Odds that it starts, or wakes, on that night, 0 to 1. */
  readonly start: number;
  /** The reason why it may fail; null where it is above the bar. */
  readonly reason: WatchReason | null;
  /** The cure of least minutes that brings it to the bar, else one that does nearly as much as any. Null above the bar. */
  readonly cure: { readonly kind: Cure; readonly start: number } | null;
}

/** Machines drawn for one vehicle at first, and for one near or under the bar: its odds are then good to four in a hundred. */
export const WATCH_DRAWS = { few: 40, many: 160 } as const;
/** Odds so far over the bar need no second look. */
const CLEARLY_OVER = 0.06;

/** How vehicles are used where nobody said it. */
const USES = [
  ['regular', 0.7],
  ['short-trips', 0.2],
  ['stood-weeks', 0.1],
] as const;
/** Charge about which a vehicle in use settles, and its spread. */
const SETTLES: Readonly<Record<'regular' | 'short-trips', readonly [number, number]>> = {
  regular: [0.86, 0.08],
  'short-trips': [0.7, 0.12],
};
/** A vehicle whose charging is at fault settles here and keeps little. */
const UNCHARGED = [0.3, 0.2] as const;
/** A vehicle in use comes half of the way to the charge at which it settles in so many days. */
export const SETTLES_HALF_DAYS = parameter(6, {
  id: 'watch.settles',
  name: 'days in which a vehicle in use makes up half of its charge',
  low: 2,
  high: 15,
  unit: 'days',
  reason: 'A drive puts back a little each day.',
});
/** Hours that a vehicle in use stands before a cold morning: a night, or a weekend. */
const PARKED_HOURS = [10, 60] as const;
/** Weeks that a vehicle has stood which stands as a rule. */
const STOOD_WEEKS = [1, 8] as const;
/** Charge of a battery that is full in practice, and its spread. */
const FULL = [0.96, 0.03] as const;
/** Share of vehicles in use with each of these faults, of which nobody has been told. */
const UNTOLD: Readonly<Partial<Record<Cause, number>>> = {
  drain: 0.015,
  charging: 0.008,
  'joint-positive': 0.008,
  'joint-negative': 0.008,
  starter: 0.005,
};
/** Torque that a starter found at fault has left on a vehicle that still drives. */
const WEAK_TORQUE = [0.4, 0.8] as const;
/** Least spread of a battery's strength about its record, as a share of the rating. */
const STRENGTH_SPREAD = 0.04;
/** No battery that turns an engine at all is weaker, share of its rating. */
const LEAST_STRENGTH = 0.15;
/** A battery that rests flat still gives this much, share of full. */
const LEAST_SOC = 0.005;

const DAYS_A_WEEK = 7;

const clampedAgeing = (ageing: number): number =>
  within(ageing, BATTERY_RANGES.ageing.min, BATTERY_RANGES.ageing.max);
const between = (random: Random, [low, high]: readonly [number, number]): number =>
  low + (high - low) * random();
const within = (value: number, low: number, high: number): number => Math.min(high, Math.max(low, value));

/** The parts of a machine that faults change, at one time. */
interface Condition {
  readonly faults: readonly Cause[];
  readonly parts: HiddenParts;
  /** Charge at which it settles in use. */
  readonly settlesAt: number;
  /** Charge lost in a day of standing, share. */
  readonly lostPerDay: number;
}

/** One machine that this vehicle may be. */
interface StandingMachine {
  readonly draw: Draw;
  /** Share among the machines of this vehicle. */
  readonly weight: number;
  readonly isStood: boolean;
  /** Resistance growth of each battery. */
  readonly ageing: readonly number[];
  /** When it was last found. */
  readonly then: Condition;
  readonly now: Condition;
  /** Charge now. */
  readonly soc: number;
  /** Full charge as this battery takes it. */
  readonly full: number;
  /** Days that it stands before a cold morning, and stood before it was found. */
  readonly parkedDays: number;
  readonly stoodDays: number;
}

/**
 * Returns the odds of a vehicle on the coldest night to come, why it may fail, and its cheapest cure. Use it where nobody looks at the vehicle now. It carries the belief of earlier jobs forward.
 *
 * @param bar odds under which a reason and a cure are looked for, 0 to 1
 * @returns the same for the same seed
 * @throws RangeError without a night
 */
export function outlookOn(
  vehicle: StandingVehicle,
  nights: readonly Night[],
  bar: number,
  rules: WakeRules,
  random: Random,
): Outlook {
  if (nights.length === 0) throw new RangeError('an outlook needs at least one night');
  const lowest = Math.min(...nights.map(({ lowC }) => lowC));
  const night = nights.map(({ lowC }) => lowC).lastIndexOf(lowest);
  const starts = startsOn(vehicle, nights[night]!, rules);
  const drawn = (draws: number): readonly StandingMachine[] =>
    weighed(
      vehicle,
      Array.from({ length: draws }, () => drawStanding(vehicle, random)),
      rules,
    );
  const few = drawn(WATCH_DRAWS.few);
  const first = shareOf(few, (machine) => starts(machine));
  if (first >= bar + CLEARLY_OVER) return { night, start: first, reason: null, cure: null };
  const machines = drawn(WATCH_DRAWS.many);
  const failing = new Set(machines.filter((machine) => !starts(machine)));
  const start = shareOf(machines, (machine) => !failing.has(machine));
  if (start >= bar) return { night, start, reason: null, cure: null };
  const stood = shareOf(machines, ({ isStood }) => isStood);
  const offered = CURES.filter((kind) => kind !== (stood > 0.5 ? 'charge' : 'maintainer'));
  // No cure keeps a machine from starting: only those that fail are asked again.
  const cures = offered.map((kind) => ({
    kind,
    start: start + shareOf(machines, (machine) => failing.has(machine) && starts(machine, kind)),
  }));
  const most = cures.reduce((best, one) => (one.start > best.start ? one : best));
  const cure =
    cures.find((one) => one.start >= bar) ??
    cures.find((one) => one.start - start >= MUCH * (most.start - start))!;
  return { night, start, reason: reasonOf(cure.kind, [...failing]), cure };
}

/** The rules that tell whether a machine without a starter wakes. */
type WakeRules = Pick<HouseRules, 'wakeAmps' | 'wakeMinVolts'>;

/** The share of the machines of which this is true. */
const shareOf = (machines: readonly StandingMachine[], test: (machine: StandingMachine) => boolean): number =>
  Math.min(
    1,
    machines.reduce((sum, machine) => sum + (test(machine) ? machine.weight : 0), 0),
  );

/**
 * Weighs machines by how the vehicle was found last. Flat without a reason tells of a drain that nobody saw. An engine that asks for more
 * than the usual fails again. The weights add up to one.
 */
function weighed(
  vehicle: StandingVehicle,
  machines: readonly StandingMachine[],
  rules: WakeRules,
): readonly StandingMachine[] {
  const { found, earlier } = vehicle;
  const once = FLAT_ONCE + ONCE_TOLD * shareOfOnce(earlier);
  const starts = found && startsOn(vehicle, { lowC: found.tempC, daysAhead: 0 }, rules);
  const heard = machines.map((machine) => {
    if (!found || !starts) return machine.weight;
    const { then, isStood, stoodDays, parkedDays } = machine;
    const own = then.settlesAt - (isStood ? stoodDays : parkedDays) * then.lostPerDay;
    const off = (Math.max(0, own) - found.soc) / FOUND_SPREAD;
    const asFound = starts({ ...machine, now: then, isStood: true, soc: found.soc }) === found.started;
    return machine.weight * (Math.exp(-(off ** 2) / 2) + once) * (asFound ? 1 : CRANK_MISHEARD);
  });
  const whole = heard.reduce((sum, weight) => sum + weight, 0);
  return machines.map((machine, i) => ({ ...machine, weight: heard[i]! / whole }));
}
/** Spread of the charge at which a vehicle is found about the charge that its use leaves, share of full. */
const FOUND_SPREAD = 0.12;
/** Weight of any charge that a single day explains, such as lamps left on, against that of its use. */
const FLAT_ONCE = 0.03;
/** The same for each share of the last verdict that names such a day. */
const ONCE_TOLD = 0.4;
/** Causes of one day. */
const ONCE: readonly Cause[] = ['left-on', 'discharged'];
const shareOfOnce = (earlier: EarlierBelief | null): number =>
  (earlier?.causes ?? []).reduce((sum, { cause, share }) => sum + (ONCE.includes(cause) ? share : 0), 0);
/** A crank that a machine such as this would not show, against one that it would: the charge was misread, or a part failed for a day. */
const CRANK_MISHEARD = 0.25;

/** A cure that does this much of what the best one does is as good, where none reaches the bar. */
const MUCH = 0.7;

function reasonOf(cure: Cure, failing: readonly StandingMachine[]): WatchReason {
  if (cure === 'tighten') return 'joint';
  if (cure === 'replace') return 'battery';
  const whole = failing.reduce((sum, { weight }) => sum + weight, 0);
  const parts = (['charging', 'drain', 'starter'] as const).map(
    (cause) => [cause, shareOf(failing, ({ now }) => now.faults.includes(cause)) / whole] as const,
  );
  const [cause, share] = parts.reduce((best, one) => (one[1] > best[1] ? one : best));
  return share > 0.5 || cure === 'workshop' ? cause : 'charge';
}

function drawStanding(vehicle: StandingVehicle, random: Random): StandingMachine {
  const { machine, earlier, use, left } = vehicle;
  const drawnUse = use ?? drawWeighted(random, USES);
  const isStood = drawnUse === 'stood-weeks';
  const { then, now, weight } = drawFaults(earlier, random);
  const conditionOf = drawCondition(machine, isStood ? 'regular' : drawnUse, random);
  const today = conditionOf(now);
  const { settlesAt, lostPerDay } = today;
  // One that stands is driven now and then, and nobody writes it down.
  const standsDays = DAYS_A_WEEK * between(random, STOOD_WEEKS);
  const wasLeft = left && (!isStood || left.days < standsDays) ? left : null;
  const used = wasLeft ? settled(wasLeft.soc, settlesAt, wasLeft.days) : settlesAt;
  const stood = (wasLeft?.soc ?? settlesAt) - (wasLeft?.days ?? standsDays) * lostPerDay;
  return {
    draw: drawUnknowns(random),
    weight,
    isStood,
    ageing: ageingsOf(vehicle, random),
    then: conditionOf(then),
    now: today,
    soc: isStood ? stood : used,
    full: within(normal(random, ...FULL), 0, 1),
    parkedDays: between(random, PARKED_HOURS) / HOURS_A_DAY,
    stoodDays: DAYS_A_WEEK * between(random, STOOD_WEEKS),
  };
}

function ageingsOf({ machine, earlier, years }: StandingVehicle, random: Random): number[] {
  const isChanged = random() < CHANGED_UNTOLD;
  return machine.batteries.map((_, i) => {
    const known = isChanged ? null : (earlier?.strengths[i] ?? null);
    const age = years[i] ?? null;
    if (!known && age !== null && !isChanged) return drawAgeing(age, random);
    if (!known) return clampedAgeing(AGEING_MEDIAN * Math.exp(normal(random, 0, AGEING_LOG_DEVIATION)));
    const share = normal(random, known.share, Math.hypot(known.spread, STRENGTH_SPREAD));
    return clampedAgeing(ageingOfStrength(Math.max(LEAST_STRENGTH, share)));
  });
}

/** Draws the sizes of all faults that a machine may have. @returns its condition with those that it has */
function drawCondition(
  machine: StandingVehicle['machine'],
  use: 'regular' | 'short-trips',
  random: Random,
): (faults: readonly Cause[]) => Condition {
  const usual = within(normal(random, ...SETTLES[use]), 0, 1);
  const uncharged = within(normal(random, ...UNCHARGED), 0, 1);
  const [plusOhms, minusOhms, cableOhms] = [0, 1, 2].map(() => drawBadJoint(random, machine)) as [
    number,
    number,
    number,
  ];
  const drainAmps = drawDrain(random);
  const torqueShare = between(random, WEAK_TORQUE);
  const { capacityAh } = machine.batteries[0]!.rating;
  return (faults) => {
    const has = (...of: readonly Cause[]): boolean => of.some((cause) => faults.includes(cause));
    return {
      faults,
      settlesAt: has('charging') ? uncharged : usual,
      lostPerDay: ((has('drain') ? drainAmps : SLEEP_AMPS) * HOURS_A_DAY) / capacityAh + SELF_LOSS_PER_DAY,
      parts: {
        ...SOUND_PARTS,
        ...(has('joint-positive', 'joint-loose') && { plusOhms }),
        ...(has('joint-negative') && { minusOhms }),
        ...(has('cable') && { cableOhms }),
        ...(has('starter', 'seized') && { torqueShare }),
      },
    };
  };
}

/** The parts of a machine that has nothing at fault. Only those that turn a starter are read. */
const SOUND_PARTS: HiddenParts = {
  cause: 'none',
  holds: [],
  batteries: [],
  plusOhms: SOUND_OHMS[0],
  minusOhms: SOUND_OHMS[0],
  cableOhms: SOUND_OHMS[0],
  hurt: 0,
  linkOhms: 0,
  open: false,
  starter: 'sound',
  torqueShare: 1,
  held: 'no',
  chargingVolts: 14.2,
  revvedVolts: 14.2,
  rippleVolts: 0.05,
  beltBad: false,
  drainAmps: SLEEP_AMPS,
  leftOn: false,
  use: 'regular',
  ageYears: 4,
  replaced: false,
  earlierFlat: false,
};

/**
 * Draws the parts at fault when the vehicle was last found, and those that still are. Rare faults are drawn more often than they come, and
 * weigh less, so that few machines can tell of them.
 */
function drawFaults(
  earlier: EarlierBelief | null,
  random: Random,
): { readonly then: readonly Cause[]; readonly now: readonly Cause[]; readonly weight: number } {
  const days = earlier?.days ?? 0;
  const stands = stillAtFault(days);
  const untoldStands = 0.5 ** (days / MENDED_HALF_DAYS);
  const then: Cause[] = [];
  const now: Cause[] = [];
  let weight = 1;
  for (const cause of STAYING_CAUSES) {
    const told = earlier?.causes.find((one) => one.cause === cause)?.share ?? 0;
    const untold = UNTOLD[cause] ?? 0;
    const share = Math.max(told, untold);
    if (share === 0) continue;
    const drawn = Math.max(share, DRAWN_LEAST);
    const had = random() < drawn;
    weight *= had ? share / drawn : (1 - share) / (1 - drawn);
    if (had) then.push(cause);
    const isNamed = told > untold;
    const has = had ? random() < (isNamed ? stands : untoldStands) : random() < untold * (1 - untoldStands);
    if (has) now.push(cause);
  }
  return { then, now, weight };
}
/** Each fault that may be there is drawn this often at least. */
const DRAWN_LEAST = 0.12;

/** The charge of a vehicle in use some days later: on its way to where it settles. */
const settled = (soc: number, settlesAt: number, days: number): number =>
  settlesAt + (soc - settlesAt) * 0.5 ** (days / SETTLES_HALF_DAYS);

/** Prepares one night: its circuit is compiled once. @returns whether a machine starts, as it is or after a cure */
function startsOn(
  { machine: { batteries, engine } }: StandingVehicle,
  { lowC, daysAhead }: Night,
  { wakeAmps, wakeMinVolts }: WakeRules,
): (machine: StandingMachine, cure?: Cure) => boolean {
  const models = batteries.map(({ rating }) => modelBattery(rating, { soc: 1, tempC: lowC, ageing: 1 }));
  // The states are those of each machine; a belief only names the rating.
  const beliefs = batteries.map(({ rating }) => ({ rating, soc: 1, socLow: 1, socHigh: 1 }));
  const moment: CrankMoment = { rescue: aloneRescue(models, lowC), beliefs };
  const crankOf = engine ? cranksIn(moment, engine) : null;
  return (machine, cure) => {
    const soc = within(socOn(machine, daysAhead, cure), LEAST_SOC, 1);
    const states = machine.ageing.map((ageing) => ({
      soc,
      tempC: lowC,
      ageing: cure === 'replace' ? 1 : ageing,
    }));
    if (!engine || !crankOf) {
      const casualty = states.map((state, i) => modelBattery(batteries[i]!.rating, state));
      return wakePoint(aloneRescue(casualty, lowC), wakeAmps).postVolts >= wakeMinVolts;
    }
    const possible = { draw: machine.draw, hidden: { ...partsAfter(machine, cure), batteries: states } };
    return lookIn(moment, possible, crankOf(possible), engine) === 'starts';
  };
}

/** The charge of a machine on a night, share of full: below zero where it has lost more than it had. */
function socOn({ soc, full, isStood, parkedDays, now }: StandingMachine, days: number, cure?: Cure): number {
  if (cure === 'maintainer') return full;
  const isCharged = cure === 'charge' || cure === 'replace' || cure === 'workshop';
  const from = isCharged ? full : soc;
  if (isStood) return from - days * now.lostPerDay;
  if (cure === 'workshop') return settled(from, SETTLES.regular[0], days);
  return settled(from, now.settlesAt, days) - parkedDays * now.lostPerDay;
}

/** The parts of a machine after a cure. */
function partsAfter({ now: { parts } }: StandingMachine, cure?: Cure): HiddenParts {
  if (cure === 'tighten') return { ...parts, plusOhms: SOUND_OHMS[0], minusOhms: SOUND_OHMS[0] };
  return cure === 'workshop' ? SOUND_PARTS : parts;
}
