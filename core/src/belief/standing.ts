import { ageingOfStrength } from '../battery/index.js';
import { SELF_LOSS_PER_DAY, SLEEP_AMPS } from '../charging/index.js';
import { type Cause, drawAgeing, drawBadJoint, drawDrain, SOUND_AROUND } from '../diagnosis/index.js';
import type { Machine, MachineBattery } from '../machine/index.js';
import { between, drawWeighted, HOURS_A_DAY, normal, parameter, type Random } from '../quantities/index.js';
import {
  CHANGED_UNTOLD,
  type EarlierBelief,
  MENDED_HALF_DAYS,
  STAYING_CAUSES,
  stillAtFault,
} from './carry.js';
import { clampedAgeing, type HiddenParts } from './population.js';
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

/** How vehicles are used where nobody said it. */
const USES = [
  ['regular', 0.7],
  ['short-trips', 0.2],
  ['stood-weeks', 0.1],
] as const;
/** Charge about which a vehicle in use settles, and its spread. */
export const SETTLES: Readonly<Record<'regular' | 'short-trips', readonly [number, number]>> = {
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

const DAYS_A_WEEK = 7;

export const within = (value: number, low: number, high: number): number =>
  Math.min(high, Math.max(low, value));

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
export interface StandingMachine {
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

/** Draws one machine that a vehicle may be which nobody looks at now. */
export function drawStanding(vehicle: StandingVehicle, random: Random): StandingMachine {
  const { machine, earlier, use, left } = vehicle;
  const drawnUse = use ?? drawWeighted(random, USES);
  const isStood = drawnUse === 'stood-weeks';
  const { then, now, weight } = drawFaults(earlier, random);
  const conditionOf = drawCondition(machine, isStood ? 'regular' : drawnUse, random);
  const today = conditionOf(now);
  const { settlesAt, lostPerDay } = today;
  // One that stands is driven now and then, and nobody writes it down.
  const standsDays = DAYS_A_WEEK * between(random, ...STOOD_WEEKS);
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
    parkedDays: between(random, ...PARKED_HOURS) / HOURS_A_DAY,
    stoodDays: DAYS_A_WEEK * between(random, ...STOOD_WEEKS),
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
  const torqueShare = between(random, ...WEAK_TORQUE);
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
export const SOUND_PARTS: HiddenParts = {
  cause: 'none',
  holds: [],
  batteries: [],
  ...SOUND_AROUND,
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
export const settled = (soc: number, settlesAt: number, days: number): number =>
  settlesAt + (soc - settlesAt) * 0.5 ** (days / SETTLES_HALF_DAYS);
