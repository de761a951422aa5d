import { ageingOfStrength, type BatteryState, isLeadAcid, mustTreatAsFrozen } from '../battery/index.js';
import { defaultStarter } from '../engine/index.js';
import type { MachineClass } from '../machine/index.js';
import { between, drawWeighted, normal, quantised, type Random } from '../quantities/index.js';
import { type Cause, type DiagnosisProfile, REPLACE_CAUSES } from './causes.js';
import { type Cranks, cranksOf, type HiddenMachine, SOUND_OHMS } from './hidden.js';

const chance = (random: Random, share: number): boolean => random() < share;

/** A joint bad enough to keep an ordinary engine of a litre and a half from starting, ohms at 12 V; small starters need more. */
const BAD_OHMS = [0.012, 0.14] as const;
/** The engine whose starter that goes by, A: its stall current. */
const REFERENCE_AMPS = 700;
/** A battery whose resistance has grown so is worn, whatever else stops the machine: about seven tenths of its strength is left. */
export const WORN_FROM = ageingOfStrength(0.7);
/** Growth of resistance by years, and its spread, both logarithmic: half of all batteries are worn at nine years. */
const GROWTH = { aYear: 0.07, atFirst: 0.02, spread: 0.2 } as const;
/** Share of machines on which a second fault came along, and which, by weight. */
const ALONG_SHARE = 0.2;
const ALONG = [
  ['drain', 2],
  ['charging', 2],
  ['joint-positive', 2],
  ['joint-negative', 2],
  ['left-on', 1],
] as const;
/** What comes along with another fault. */
export type AlongCause = (typeof ALONG)[number][0];
export const ALONG_CAUSES: readonly AlongCause[] = ALONG.map(([cause]) => cause);

/** What each fault has taken out of the battery it sits on, as a share of its capacity: flat is a symptom of many. */
const TAKEN: Partial<Record<Cause, readonly [number, number]>> = {
  discharged: [0.3, 1.15],
  'left-on': [0.3, 1.4],
  drain: [0.25, 1.4],
  charging: [0.4, 1.1],
  sulphated: [0.6, 1.5],
  'traction-flat': [0, 1.25],
  converter: [0, 1.25],
  'not-taught': [0.3, 0.85],
  'dead-cell': [0, 0.6],
  worn: [0, 0.65],
  reversed: [0.5, 0.95],
  frozen: [0.95, 1.1],
  'joint-loose': [0, 0.7],
  'joint-positive': [0, 0.6],
  'joint-negative': [0, 0.6],
};
/** Of any other fault: a few tries in vain. */
const TRIED = [0, 0.18] as const;
/** Volts below the flat line for each capacity taken beyond empty: dimming lamps and units giving up pull less and less. */
const BELOW_FLAT_VOLTS = 22;
const FLAT_VOLTS = 11.7;

type Cranked = Pick<DiagnosisProfile, 'engine' | 'systemVolts'>;

/** What a joint that is bad on the usual starter is to this one: the more amps it draws, the fewer ohms it takes. */
function badnessShare({ engine, systemVolts }: Cranked): number {
  const stall = engine ? systemVolts / defaultStarter(engine).ohms : REFERENCE_AMPS;
  return REFERENCE_AMPS / stall;
}

/** What a bad joint of this machine resists as a rule, ohms: the middle of what is drawn. */
export function usualBadJointOhms(machine: Cranked): number {
  return Math.sqrt(BAD_OHMS[0] * BAD_OHMS[1]) * badnessShare(machine);
}

/** Draws the resistance of a joint that is bad on this machine, ohms: no size within the range is likelier than another, by its logarithm. */
export const drawBadJoint = (random: Random, machine: Cranked): number =>
  Math.exp(between(random, Math.log(BAD_OHMS[0]), Math.log(BAD_OHMS[1]))) * badnessShare(machine);

/** Draws what flows out of a machine asleep whose drain is at fault, A. */
export const drawDrain = (random: Random): number => Math.exp(between(random, Math.log(0.07), Math.log(2)));

/**
 * A machine of this profile that does not start because of `cause`.
 *
 * @param given what came along, null for nothing; left out: drawn
 */
export function drawHidden(
  cause: Cause,
  profile: DiagnosisProfile,
  random: Random,
  given?: AlongCause | null,
): HiddenMachine {
  const { systemVolts } = profile;
  const along = given === undefined ? alongWith(cause, profile, random) : given;
  const holds: Cause[] = along ? [cause, along] : [cause];
  const has = (...of: Cause[]): boolean => of.some((c) => holds.includes(c));
  const ageYears = yearsOf(cause, random);
  const hurt = Math.floor(between(random, 0, systemVolts / 12));
  const batteries = batteriesOf(cause, holds, ageYears, hurt, profile, random);
  const isWorn = batteries.some((b) => b.ageing >= WORN_FROM) && !REPLACE_CAUSES.includes(cause);
  if (isWorn) holds.push('worn');
  if (!has('frozen') && batteries.some((b) => isIce(b, profile))) holds.push('frozen');
  const bad = (): number => drawBadJoint(random, profile);
  const good = (): number => between(random, ...SOUND_OHMS);
  // A clamp at its stop is as often the black one.
  const looseAtPlus = chance(random, 0.5);
  const use = useOf(cause, random);
  const lowest = Math.min(...batteries.map((b) => (b.overDischargedVolts === undefined ? b.soc : 0)));
  const hidden = quantised({
    cause,
    holds,
    batteries: batteries.map(quantised),
    plusOhms: has('joint-positive') || (has('joint-loose') && looseAtPlus) ? bad() : good(),
    minusOhms: has('joint-negative') || (has('joint-loose') && !looseAtPlus) ? bad() : good(),
    cableOhms: has('cable') ? bad() : good() * 2,
    hurt,
    linkOhms: has('broken-link')
      ? Math.exp(between(random, Math.log(0.1), Math.log(4))) * (12 / systemVolts)
      : 0,
    open: cause === 'main-fuse',
    ...starterOf(cause, random),
    held: cause === 'interlock' ? 'starter' : cause === 'immobiliser' || cause === 'fuel' ? 'firing' : 'no',
    ...chargingOf(has('charging'), profile, lowest, random),
    beltBad: has('charging') ? chance(random, 0.4) : chance(random, 0.03),
    drainAmps: has('drain') ? drawDrain(random) : between(random, 0.006, 0.038),
    leftOn: has('left-on'),
    use,
    ageYears,
    replaced: cause === 'not-taught' || (ageYears < 1 && chance(random, 0.3)),
    earlierFlat: chance(random, Math.max(...holds.map((c) => FLAT_BEFORE[c] ?? FLAT_BEFORE_ANY))),
  } satisfies Omit<HiddenMachine, keyof Cranks>);
  return { ...hidden, ...cranksOf(hidden, profile) };
}

/** Share of machines with this fault that were flat before; and of all others. */
const FLAT_BEFORE: Partial<Record<Cause, number>> = {
  charging: 0.45,
  drain: 0.55,
  worn: 0.35,
  sulphated: 0.35,
  'not-taught': 0.4,
  discharged: 0.15,
};
const FLAT_BEFORE_ANY = 0.08;

/** Torque that is left of a starter that drags, and against an engine that is tight. */
const TORQUE_LEFT = { dragging: [0.15, 0.6], 'held-fast': [0.04, 0.25] } as const;

function starterOf(cause: Cause, random: Random): Pick<HiddenMachine, 'starter' | 'torqueShare'> {
  if (cause === 'seized')
    return { starter: 'held-fast', torqueShare: between(random, ...TORQUE_LEFT['held-fast']) };
  if (cause !== 'starter') return { starter: 'sound', torqueShare: between(random, 0.85, 1.15) };
  return chance(random, 0.5)
    ? { starter: 'dead', torqueShare: 0 }
    : { starter: 'dragging', torqueShare: between(random, ...TORQUE_LEFT.dragging) };
}

function alongWith(cause: Cause, { engine }: DiagnosisProfile, random: Random): AlongCause | null {
  if (cause === 'none' || !chance(random, ALONG_SHARE)) return null;
  const along = drawWeighted(random, ALONG);
  const isSame = along === cause || (along.startsWith('joint') && cause.startsWith('joint'));
  return isSame || (along === 'charging' && engine === null) ? null : along;
}

function yearsOf(cause: Cause, random: Random): number {
  switch (cause) {
    case 'worn':
      return between(random, 3, 11);
    case 'dead-cell':
    case 'broken-link':
      return between(random, 1.5, 9.5);
    case 'not-taught':
      return between(random, 0, 0.4);
    default:
      return between(random, 0.2, 8.5);
  }
}

function useOf(cause: Cause, random: Random): HiddenMachine['use'] {
  if (cause === 'discharged') return chance(random, 0.5) ? 'short-trips' : 'stood-weeks';
  if (cause === 'sulphated') return 'stood-weeks';
  return chance(random, 0.72) ? 'regular' : chance(random, 0.5) ? 'short-trips' : 'stood-weeks';
}

/** Resistance growth of a battery of this age with these faults: wear has no gap between sound and worn. */
function ageingOf(cause: Cause, years: number, random: Random): number {
  if (cause === 'worn') return Math.exp(between(random, Math.log(WORN_FROM * 0.95), Math.log(8)));
  if (cause === 'sulphated') return Math.exp(between(random, Math.log(1.9), Math.log(8)));
  return drawAgeing(years, random);
}

/** Draws the resistance growth of a battery of this age with nothing else at fault. */
export function drawAgeing(years: number, random: Random): number {
  const usual = GROWTH.atFirst + GROWTH.aYear * years;
  return Math.min(8, Math.max(1, Math.exp(normal(random, usual, GROWTH.spread))));
}

/** Share of strings with one battery down in which one of them is worn besides, that one or its fellow. */
const WEAK_WORN_SHARE = 0.3;
/** Share of strings in which one battery was changed without the other. */
const FELLOW_NEWER_SHARE = 0.2;

function batteriesOf(
  cause: Cause,
  holds: readonly Cause[],
  years: number,
  hurt: number,
  { rating, systemVolts, tempC }: DiagnosisProfile,
  random: Random,
): BatteryState[] {
  const ageing = ageingOf(cause, years, random);
  const fresh = between(random, 0.65, 1);
  const taken = Math.max(...holds.map((c) => between(random, ...(TAKEN[c] ?? TRIED))));
  const stateAt = (left: number): BatteryState => {
    if (left >= 0 || !isLeadAcid(rating.chemistry)) return { soc: Math.max(0, left), tempC, ageing };
    const volts = FLAT_VOLTS + left * BELOW_FLAT_VOLTS * between(random, 0.2, 1.8);
    return { soc: 0, tempC, ageing, overDischargedVolts: Math.max(0.5, volts) };
  };
  const own: BatteryState = {
    ...stateAt(fresh - taken),
    ...(cause === 'dead-cell' && { deadCells: chance(random, 0.9) ? 1 : 2 }),
    ...(cause === 'reversed' && { reversed: true }),
    ...(cause === 'guard-open' && { overDischargedVolts: between(random, 0, 6) }),
  };
  const count = systemVolts / 12;
  // Charge is common to a string, and mostly age; a cell dies in one battery.
  if (cause === 'string-weak') {
    const low = stateAt(between(random, -0.15, 0.32));
    // Whatever came along has not emptied it: then both would be down.
    const { overDischargedVolts: _deep, ...upright } = own;
    const well = { ...upright, soc: between(random, 0.7, 0.98) };
    const worn = chance(random, WEAK_WORN_SHARE) ? Math.floor(between(random, 0, count)) : -1;
    return Array.from({ length: count }, (_, i) => {
      const state = i === hurt ? low : well;
      return i === worn ? { ...state, ageing: ageingOf('worn', years, random) } : state;
    });
  }
  const { deadCells: _dead, reversed: _reversed, ...alike } = own;
  const isFellowNewer = chance(random, FELLOW_NEWER_SHARE);
  return Array.from({ length: count }, (_, i) => {
    if (i === hurt) return own;
    const fellow = nearly(alike, random);
    return isFellowNewer ? { ...fellow, ageing: Math.min(ageing, between(random, 1, 1.3)) } : fellow;
  });
}

/** The other battery of a string: never quite the same, and far from it once both are deep down. */
function nearly(state: BatteryState, random: Random): BatteryState {
  const soc = Math.min(1, Math.max(0, state.soc + between(random, -0.04, 0.04)));
  const { overDischargedVolts: deep } = state;
  return deep === undefined
    ? { ...state, soc }
    : { ...state, overDischargedVolts: Math.max(0.5, deep + between(random, -1.2, 1.2)) };
}

/** What its posts show while it charges, by class: no two classes have the same normal. */
const CHARGING: Record<
  'motorcycle' | 'small' | 'road' | 'heavy',
  { idle: number; revved: number; spread: number }
> = {
  motorcycle: { idle: 13.3, revved: 14.2, spread: 0.3 },
  small: { idle: 13.5, revved: 14.2, spread: 0.35 },
  road: { idle: 14.3, revved: 14.35, spread: 0.2 },
  heavy: { idle: 14.1, revved: 14.2, spread: 0.25 },
};
const CHARGES_LIKE: Partial<Record<MachineClass, keyof typeof CHARGING>> = {
  motorcycle: 'motorcycle',
  'ride-on': 'small',
  genset: 'heavy',
  plant: 'heavy',
  truck: 'heavy',
  boat: 'heavy',
};
/** Ripple of an alternator with all its diodes, V. */
const SMOOTH_VOLTS = [0.01, 0.1] as const;

/** What a machine of this class shows whose charging was put right: the middle of what its kind does. */
export function soundCharging({
  machineClass,
}: DiagnosisProfile): Pick<HiddenMachine, 'chargingVolts' | 'revvedVolts' | 'rippleVolts'> {
  const { idle, revved } = CHARGING[CHARGES_LIKE[machineClass] ?? 'road'];
  return { chargingVolts: idle, revvedVolts: revved, rippleVolts: (SMOOTH_VOLTS[0] + SMOOTH_VOLTS[1]) / 2 };
}

/** A third of cars and vans let a full battery rest at this, V. */
const SMART_VOLTS = [12.6, 13.2] as const;
/** A flat battery holds an idling alternator down by up to this, V. */
const HELD_DOWN_VOLTS = 1.1;

function chargingOf(
  isFault: boolean,
  { machineClass }: DiagnosisProfile,
  lowestSoc: number,
  random: Random,
): Pick<HiddenMachine, 'chargingVolts' | 'revvedVolts' | 'rippleVolts'> {
  const smooth = between(random, ...SMOOTH_VOLTS);
  if (isFault) {
    const kind = random();
    if (kind < 0.65) {
      const none = between(random, 11.4, 12.9);
      return { chargingVolts: none, revvedVolts: none, rippleVolts: smooth };
    }
    if (kind < 0.87) {
      const weak = between(random, 12.8, 13.4);
      const rippleVolts = chance(random, 0.6) ? between(random, 0.3, 1.2) : smooth;
      return { chargingVolts: weak, revvedVolts: weak + between(random, 0, 0.2), rippleVolts };
    }
    const over = between(random, 15.2, 17);
    return { chargingVolts: over - between(random, 0, 0.4), revvedVolts: over, rippleVolts: smooth };
  }
  const like = CHARGES_LIKE[machineClass] ?? 'road';
  const { idle, revved, spread } = CHARGING[like];
  if (like === 'road' && lowestSoc > 0.8 && chance(random, 0.33)) {
    const resting = between(random, ...SMART_VOLTS);
    return { chargingVolts: resting, revvedVolts: resting, rippleVolts: smooth };
  }
  const held = lowestSoc < 0.4 ? between(random, 0, HELD_DOWN_VOLTS) * (1 - lowestSoc / 0.4) : 0;
  return {
    chargingVolts: Math.max(12.9, normal(random, idle, spread) - held),
    revvedVolts: normal(random, revved, spread * 0.8) - held * 0.25,
    rippleVolts: smooth,
  };
}

/** Whether a battery that is truly so must be treated as frozen, by its charge and the cold. */
export function isIce(
  { soc, overDischargedVolts }: BatteryState,
  { rating, tempC }: DiagnosisProfile,
): boolean {
  return mustTreatAsFrozen(rating.chemistry, soc, tempC, overDischargedVolts);
}
