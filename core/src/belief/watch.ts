import { aloneRescue, modelBattery } from '../circuit/index.js';
import { wakePoint } from '../crank/index.js';
import { type Cause, SOUND_OHMS } from '../diagnosis/index.js';
import { parameter, type Random } from '../quantities/index.js';
import type { HouseRules } from '../rules/index.js';
import type { EarlierBelief } from './carry.js';
import { type CrankMoment, cranksIn, type HiddenParts, lookIn } from './population.js';
import {
  drawStanding,
  settled,
  SETTLES,
  SOUND_PARTS,
  type StandingMachine,
  type StandingVehicle,
  within,
} from './standing.js';

/** A night to come. */
export interface Night {
  /** Its lowest temperature, degC. */
  readonly lowC: number;
  /** Days from now. */
  readonly daysAhead: number;
}

/** The work that lifts the odds of a cold morning, least trouble first. */
const CURES = ['tighten', 'maintainer', 'charge', 'replace', 'workshop'] as const;
export type Cure = (typeof CURES)[number];

/** The reasons why a vehicle may fail: the fault of most of its machines that do. */
export type WatchReason = 'joint' | 'charge' | 'battery' | 'charging' | 'drain' | 'starter';

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

/** A battery that rests flat still gives this much, share of full. */
const LEAST_SOC = 0.005;
/** Machines drawn for one vehicle at first, and for one near or under the bar: its odds are then good to four in a hundred. */
const WATCH_DRAWS = { few: 40, many: 160 } as const;
/** Odds so far over the bar need no second look. */
const CLEARLY_OVER = 0.06;

/**
 * Returns the odds of a vehicle on the coldest night to come, why it may fail, and its cheapest cure. Use it where nobody looks at the
 * vehicle now. It carries the belief of earlier jobs forward.
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
  const night = coldestPlace(nights);
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

/**
 * Returns the place of the coldest of some nights; of two alike the later.
 *
 * @example coldestPlace([{ lowC: -4 }, { lowC: -9 }, { lowC: -9 }]) // => 2
 */
export function coldestPlace(nights: readonly Pick<Night, 'lowC'>[]): number {
  const lows = nights.map(({ lowC }) => lowC);
  return lows.lastIndexOf(Math.min(...lows));
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
