import { batteryOhms, batteryOpenVolts, type BatteryState } from '../battery/battery.js';
import { isLeadAcid } from '../battery/chemistry.js';
import { mustTreatAsFrozen } from '../battery/freezing.js';
import { ageingOfStrength } from '../battery/strength.js';
import { aloneRescue, type ModelBattery } from '../circuit/rescue.js';
import { ASSUMED_AGEING } from '../plan/casualty-batteries.js';
import { type CrankPoint, crankPoint } from '../crank/quick.js';
import { defaultStarter } from '../engine/engine.js';
import { drawWeighted, normal, type Random } from '../quantities/random.js';
import type { MachineClass } from '../machine/machine.js';
import { type Cause, type DiagnosisProfile, REPLACE_CAUSES } from './causes.js';

/** A machine with a hidden fault, and what came with it, whole enough to answer any check. */
export interface HiddenMachine {
  /** Why it does not start today. */
  readonly cause: Cause;
  /** Everything that is wrong with it: the cause, what came along, and what follows from its state, such as ice. */
  readonly holds: readonly Cause[];
  /** From the chassis side up. */
  readonly batteries: readonly BatteryState[];
  /** Resistance of the joints at the posts and of the cables beyond, ohms; a sound joint is a fraction of a milliohm. */
  readonly plusOhms: number;
  readonly minusOhms: number;
  readonly cableOhms: number;
  /** Of a broken link inside a battery, ohms; none: sound. */
  readonly linkOhms: number;
  /** The main circuit is open: nothing reaches the starter or the dash. */
  readonly open: boolean;
  /** The starter does nothing, or turns hard; or the engine is tight. */
  readonly starter: 'sound' | 'dead' | 'dragging' | 'held-fast';
  /** Share of its torque that is left to turn a sound engine with. */
  readonly torqueShare: number;
  /** Something keeps the starter from being asked, or the engine from firing. */
  readonly held: 'no' | 'starter' | 'firing';
  /** With the engine just started and at idle, per 12 V. */
  readonly chargingVolts: number;
  /** Five minutes later at raised revs, per 12 V. */
  readonly revvedVolts: number;
  /** Alternating volts at the posts while it charges. */
  readonly rippleVolts: number;
  readonly beltBad: boolean;
  /** With everything asleep. */
  readonly drainAmps: number;
  readonly leftOn: boolean;
  readonly use: 'regular' | 'short-trips' | 'stood-weeks';
  readonly ageYears: number;
  /** The battery is new, by what the driver says. */
  readonly replaced: boolean;
  readonly earlierFlat: boolean;
  /** Cranking by itself; null when no current flows or it does not crank. */
  readonly crank: CrankPoint | null;
  /** Cranking with a good source at its posts; null as above. */
  readonly helped: CrankPoint | null;
  /** What a plan that knows only its rest volts would promise with that source: joints, starter and age as usual. */
  readonly promised: CrankPoint | null;
}

const between = (random: Random, low: number, high: number): number => low + (high - low) * random();
const chance = (random: Random, share: number): boolean => random() < share;

/** A good joint or cable, ohms. */
const SOUND_OHMS = [0.0002, 0.0008] as const;
/** A joint bad enough to keep an ordinary engine from starting, ohms at 12 V and a litre and a half; small starters need more. */
const BAD_OHMS = [0.012, 0.14] as const;
/** The engine whose starter that goes by, A: its stall current. */
const REFERENCE_AMPS = 700;
/** A good source at the posts: a healthy donor battery through good leads. */
export const HELP: ModelBattery = { openVolts: 12.7, ohms: 0.009 };
/** A battery whose resistance has grown so is worn, whatever else stops the machine: about seven tenths of its strength is left. */
const WORN_FROM = ageingOfStrength(0.7);
/** Growth of resistance by years, and its spread, both logarithmic: half of all batteries are worn at nine years. */
const GROWTH = { aYear: 0.07, atFirst: 0.02, spread: 0.2 } as const;
/** Share of machines on which a second fault came along, and which, by weight. */
const ALONG_SHARE = 0.2;
const ALONG: readonly (readonly [Cause, number])[] = [
  ['drain', 2],
  ['charging', 2],
  ['joint-positive', 2],
  ['joint-negative', 2],
  ['left-on', 1],
];

/** What each fault has taken out of the battery it sits on, as a share of its capacity: flat is a symptom of many. */
const TAKEN: Partial<Record<Cause, readonly [number, number]>> = {
  discharged: [0.3, 1.15],
  'left-on': [0.3, 1.3],
  drain: [0.25, 1.35],
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

/** A machine of this profile that does not start because of `cause`. */
export function drawHidden(cause: Cause, profile: DiagnosisProfile, random: Random): HiddenMachine {
  const { engine, systemVolts } = profile;
  const along = alongWith(cause, profile, random);
  const holds: Cause[] = along ? [cause, along] : [cause];
  const has = (...of: Cause[]): boolean => of.some((c) => holds.includes(c));
  const ageYears = yearsOf(cause, random);
  const batteries = batteriesOf(cause, holds, ageYears, profile, random);
  const isWorn = batteries.some((b) => b.ageing >= WORN_FROM) && !REPLACE_CAUSES.includes(cause);
  if (isWorn) holds.push('worn');
  if (!has('frozen') && batteries.some((b) => isIce(b, profile))) holds.push('frozen');
  const stall = engine ? systemVolts / defaultStarter(engine).ohms : REFERENCE_AMPS;
  const bad = (): number =>
    Math.exp(between(random, Math.log(BAD_OHMS[0]), Math.log(BAD_OHMS[1]))) * (REFERENCE_AMPS / stall);
  const good = (): number => between(random, ...SOUND_OHMS);
  // A clamp at its stop is as often the black one.
  const looseAtPlus = chance(random, 0.5);
  const use = useOf(cause, random);
  const lowest = Math.min(...batteries.map((b) => (b.overDischargedVolts === undefined ? b.soc : 0)));
  const hidden = {
    cause,
    holds,
    batteries,
    plusOhms: has('joint-positive') || (has('joint-loose') && looseAtPlus) ? bad() : good(),
    minusOhms: has('joint-negative') || (has('joint-loose') && !looseAtPlus) ? bad() : good(),
    cableOhms: has('cable') ? bad() : good() * 2,
    linkOhms: has('broken-link')
      ? Math.exp(between(random, Math.log(0.1), Math.log(4))) * (12 / systemVolts)
      : 0,
    open: cause === 'main-fuse',
    ...starterOf(cause, random),
    held: cause === 'interlock' ? 'starter' : cause === 'immobiliser' || cause === 'fuel' ? 'firing' : 'no',
    ...chargingOf(has('charging'), profile, lowest, random),
    beltBad: has('charging') ? chance(random, 0.4) : chance(random, 0.03),
    drainAmps: has('drain')
      ? Math.exp(between(random, Math.log(0.07), Math.log(2)))
      : between(random, 0.006, 0.038),
    leftOn: has('left-on'),
    use,
    ageYears,
    replaced: cause === 'not-taught' || (ageYears < 1 && chance(random, 0.3)),
    earlierFlat: chance(random, Math.max(...holds.map((c) => FLAT_BEFORE[c] ?? FLAT_BEFORE_ANY))),
  } satisfies Omit<HiddenMachine, 'crank' | 'helped' | 'promised'>;
  return {
    ...hidden,
    crank: crankOf(hidden, profile, false),
    helped: crankOf(hidden, profile, true),
    promised: crankOf(asPlanned(hidden), profile, true),
  };
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

function alongWith(cause: Cause, { engine }: DiagnosisProfile, random: Random): Cause | null {
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
  const usual = GROWTH.atFirst + GROWTH.aYear * years;
  return Math.min(8, Math.max(1, Math.exp(normal(random, usual, GROWTH.spread))));
}

function batteriesOf(
  cause: Cause,
  holds: readonly Cause[],
  years: number,
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
  // A string ages together, and charge is common to it; a cell dies in one battery.
  if (cause === 'string-weak') {
    const low = stateAt(between(random, -0.15, 0.32));
    const well = { ...own, soc: between(random, 0.7, 0.98), ageing: Math.min(ageing, 1.7) };
    const isLowest = chance(random, 0.5);
    return Array.from({ length: count }, (_, i) => ((i === 0) === isLowest ? low : well));
  }
  const hurt = Math.floor(between(random, 0, count));
  const { deadCells: _dead, reversed: _reversed, ...alike } = own;
  return Array.from({ length: count }, (_, i) => (i === hurt ? own : nearly(alike, random)));
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
  const smooth = between(random, 0.01, 0.1);
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

/** The same machine as a plan takes it. */
function asPlanned({ batteries }: Electrical): Electrical {
  return {
    batteries: batteries.map((state) => ({ ...state, ageing: ASSUMED_AGEING })),
    plusOhms: SOUND_OHMS[0],
    minusOhms: SOUND_OHMS[0],
    cableOhms: SOUND_OHMS[0],
    linkOhms: 0,
    open: false,
    starter: 'sound',
    torqueShare: 1,
    held: 'no',
  };
}

/** This battery's acid is ice, by its charge and the cold. */
function isIce({ soc, overDischargedVolts }: BatteryState, { rating, tempC }: DiagnosisProfile): boolean {
  return mustTreatAsFrozen(rating.chemistry, soc, tempC, overDischargedVolts);
}

/** Rest volts of each battery. */
export function restVoltsOf(
  hidden: Pick<HiddenMachine, 'batteries'>,
  { rating }: DiagnosisProfile,
): number[] {
  return hidden.batteries.map((state) => batteryOpenVolts(rating, state));
}

/** Resistance inside each battery, the link that is broken in one of them included, ohms. */
export function ohmsInside(
  { batteries, linkOhms }: Pick<HiddenMachine, 'batteries' | 'linkOhms'>,
  { rating }: DiagnosisProfile,
): number[] {
  return batteries.map((state, i) => batteryOhms(rating, state) + (i === 0 ? linkOhms : 0));
}

type Electrical = Pick<
  HiddenMachine,
  | 'batteries'
  | 'plusOhms'
  | 'minusOhms'
  | 'cableOhms'
  | 'linkOhms'
  | 'open'
  | 'starter'
  | 'torqueShare'
  | 'held'
>;

/** Joint and cable resistance stands with the battery: the same current passes all of it. Volts at the posts are worked back from it. */
function crankOf(hidden: Electrical, profile: DiagnosisProfile, withHelp: boolean): CrankPoint | null {
  const { engine, tempC } = profile;
  if (!engine || hidden.open || hidden.starter === 'dead' || hidden.held === 'starter') return null;
  const series = hidden.plusOhms + hidden.minusOhms + hidden.cableOhms;
  const inside = ohmsInside(hidden, profile);
  const own = restVoltsOf(hidden, profile).map((openVolts, i) => ({ openVolts, ohms: inside[i]! }));
  const models = withHelp ? own.map(joinedWithHelp) : own;
  if (models.some((m) => m.openVolts <= 1)) return null;
  const casualty = models.map((m, i) => (i === 0 ? { ...m, ohms: m.ohms + series } : m));
  const rescue = aloneRescue(casualty, tempC);
  const starter = defaultStarter(engine);
  const found = crankPoint(rescue, engine, {
    ...starter,
    efficiency: starter.efficiency * hidden.torqueShare,
  });
  return { ...found, postVolts: found.postVolts + found.starterAmps * series };
}

/** A battery with a good source across it, as one. */
function joinedWithHelp({ openVolts, ohms }: ModelBattery): ModelBattery {
  const conductance = 1 / ohms + 1 / HELP.ohms;
  return {
    openVolts: (openVolts / ohms + HELP.openVolts / HELP.ohms) / conductance,
    ohms: 1 / conductance,
  };
}

/** How a crank looks and sounds to whoever turns the key. */
export type CrankLook = 'starts' | 'brisk-no-fire' | 'slow' | 'rapid-click' | 'one-click' | 'silence';

/** Below this at the posts the control units drop the solenoid, and it chatters: volts per 12 V. */
const CHATTER_VOLTS = 7.6;
/** A battery whose volts under the dash lamps fall below this leaves everything dark, per 12 V. */
const DARK_VOLTS = 6;

/** The look of a try, by itself or with help. */
export function lookOf(hidden: HiddenMachine, profile: DiagnosisProfile, withHelp: boolean): CrankLook {
  const batteries = profile.systemVolts / 12;
  const point = withHelp ? hidden.helped : hidden.crank;
  if (hidden.open) return 'silence';
  if (hidden.held === 'starter') return 'silence';
  const rest = restVoltsOf(hidden, profile).reduce((a, b) => a + b, 0) / batteries;
  if (hidden.starter === 'dead') return rest < DARK_VOLTS && !withHelp ? 'silence' : 'one-click';
  if (!point) return 'silence';
  const posts = point.postVolts / batteries;
  if (!point.turns) {
    if (posts < DARK_VOLTS * 0.6) return 'silence';
    return posts < CHATTER_VOLTS ? 'rapid-click' : 'one-click';
  }
  if (point.rpm < point.neededRpm || point.starterVolts < point.controlMinVolts)
    return posts < CHATTER_VOLTS ? 'rapid-click' : 'slow';
  return hidden.held === 'firing' ? 'brisk-no-fire' : 'starts';
}
