import {
  ASSUMED_AGEING,
  bankFarads,
  batteryOhms,
  batteryOpenVolts,
  type BatteryState,
} from '../battery/index.js';
import { aloneRescue, type ModelBattery } from '../circuit/index.js';
import { compileCrank, type CrankPoint } from '../crank/index.js';
import type { Engine } from '../engine/index.js';
import type { Cause, DiagnosisProfile } from './causes.js';

/** How a machine cranks. */
export interface Cranks {
  /** By itself; null when no current flows or it does not crank. */
  readonly crank: CrankPoint | null;
  /** With a good source at its posts; null as above. */
  readonly helped: CrankPoint | null;
  /** The promise of a plan that knows only its rest volts with that source: joints, starter and age as usual. */
  readonly promised: CrankPoint | null;
}

/** A machine with a hidden fault, and what came with it, whole enough to answer any check. */
export interface HiddenMachine extends Cranks {
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
  /** The battery, from the chassis side, in which a fault of one battery sits: a cell, a link, posts the wrong way round. */
  readonly hurt: number;
  /** Of a broken link inside that battery, ohms; none: sound. */
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
}

/** A good joint or cable, ohms. */
export const SOUND_OHMS = [0.0002, 0.0008] as const;
/** A good source at the posts: a healthy donor battery through good leads. */
export const HELP: ModelBattery = { openVolts: 12.7, ohms: 0.009 };
/** The parts around the batteries of a machine with nothing at fault. */
export const SOUND_AROUND = {
  plusOhms: SOUND_OHMS[0],
  minusOhms: SOUND_OHMS[0],
  cableOhms: SOUND_OHMS[0],
  hurt: 0,
  linkOhms: 0,
  open: false,
  starter: 'sound',
  torqueShare: 1,
  held: 'no',
} as const satisfies Omit<Electrical, 'batteries'>;

/** The same machine as a plan takes it. */
const asPlanned = ({ batteries }: Electrical): Electrical => ({
  ...SOUND_AROUND,
  batteries: batteries.map((state) => ({ ...state, ageing: ASSUMED_AGEING })),
});

/** Rest volts of each battery. */
export function restVoltsOf(
  hidden: Pick<HiddenMachine, 'batteries'>,
  { rating }: DiagnosisProfile,
): number[] {
  return hidden.batteries.map((state) => batteryOpenVolts(rating, state));
}

/** The same machine as an instrument across one battery of its string sees it. */
export function oneBattery(hidden: HiddenMachine, battery: number): HiddenMachine {
  return {
    ...hidden,
    batteries: hidden.batteries.slice(battery, battery + 1),
    hurt: 0,
    linkOhms: battery === hidden.hurt ? hidden.linkOhms : 0,
  };
}

/** Resistance inside each battery, the link that is broken in one of them included, ohms. */
export function ohmsInside(
  { batteries, hurt, linkOhms }: Pick<HiddenMachine, 'batteries' | 'hurt' | 'linkOhms'>,
  { rating }: DiagnosisProfile,
): number[] {
  return batteries.map((state, i) => batteryOhms(rating, state) + (i === hurt ? linkOhms : 0));
}

type Electrical = Pick<
  HiddenMachine,
  | 'batteries'
  | 'plusOhms'
  | 'minusOhms'
  | 'cableOhms'
  | 'hurt'
  | 'linkOhms'
  | 'open'
  | 'starter'
  | 'torqueShare'
  | 'held'
>;

/** How it cranks by itself, with help, and as a plan would have it. */
export function cranksOf(hidden: Electrical, profile: DiagnosisProfile): Cranks {
  return {
    crank: crankOf(hidden, profile, false),
    helped: crankOf(hidden, profile, true),
    promised: crankOf(asPlanned(hidden), profile, true),
  };
}

/** Joint and cable resistance stands with the battery: the same current passes all of it. Volts at the posts are worked back from it. */
export function crankOf(hidden: Electrical, profile: DiagnosisProfile, withHelp: boolean): CrankPoint | null {
  const { engine, tempC } = profile;
  if (!engine || hidden.open || hidden.starter === 'dead' || hidden.held === 'starter') return null;
  const series = hidden.plusOhms + hidden.minusOhms + hidden.cableOhms;
  const inside = ohmsInside(hidden, profile);
  const farads = bankFarads(profile.rating);
  const own = restVoltsOf(hidden, profile).map((openVolts, i) => ({
    openVolts,
    ohms: inside[i]!,
    ...(farads !== null && { farads }),
  }));
  const models = withHelp ? own.map(joinedWithHelp) : own;
  if (models.some((m) => m.openVolts <= 1)) return null;
  const casualty = models.map((m, i) => (i === 0 ? { ...m, ohms: m.ohms + series } : m));
  const found = crankAlone(engine, casualty)({ casualty, tempC, torqueShare: hidden.torqueShare });
  return { ...found, postVolts: found.postVolts + found.starterAmps * series };
}

type SolveCrank = ReturnType<typeof compileCrank>;
/** Circuits of machines on their own batteries, compiled: thousands of machines of one engine differ in values alone. */
const compiledAlone = new WeakMap<Engine, SolveCrank>();

function crankAlone(engine: Engine, casualty: readonly ModelBattery[]): SolveCrank {
  const solve = compiledAlone.get(engine) ?? compileCrank(aloneRescue(casualty, 0), engine);
  compiledAlone.set(engine, solve);
  return solve;
}

/** A battery with a good source across it, as one. */
export function joinedWithHelp({ openVolts, ohms }: ModelBattery): ModelBattery {
  const conductance = 1 / ohms + 1 / HELP.ohms;
  return {
    openVolts: (openVolts / ohms + HELP.openVolts / HELP.ohms) / conductance,
    ohms: 1 / conductance,
  };
}

/** The lamps while the key is at start. */
export type LampsAtKey = 'go-out' | 'dim' | 'stay-bright';

/** Volts per 12 V at the lamps, behind the joints. Below the first they look out, below the second dim. */
const LAMPS_OUT_VOLTS = 6.5;
const LAMPS_DIM_VOLTS = 10.2;

/** The lamps of a machine whose key is turned: fed behind the joints of the posts, they show what battery and joints lose. */
export function lampsAtKey(hidden: HiddenMachine, profile: DiagnosisProfile): LampsAtKey {
  if (hidden.open) return 'go-out';
  const { crank } = hidden;
  const rest = restVoltsOf(hidden, profile).reduce((a, b) => a + b, 0);
  return lampsLook(crank ? lampVoltsAt(hidden, crank, profile) : (rest * 12) / profile.systemVolts);
}

/** Volts per 12 V at the lamps of a machine that cranks so: what the posts have, less what the joints there lose. */
export const lampVoltsAt = (
  { plusOhms, minusOhms }: Pick<HiddenMachine, 'plusOhms' | 'minusOhms'>,
  { postVolts, starterAmps }: CrankPoint,
  { systemVolts }: Pick<DiagnosisProfile, 'systemVolts'>,
): number => ((postVolts - starterAmps * (plusOhms + minusOhms)) * 12) / systemVolts;

/**
 * How lamps look at these volts per 12 V.
 *
 * @example lampsLook(6) // => 'go-out'
 */
export function lampsLook(volts: number): LampsAtKey {
  if (volts < LAMPS_OUT_VOLTS) return 'go-out';
  return volts < LAMPS_DIM_VOLTS ? 'dim' : 'stay-bright';
}

/** How a crank looks and sounds to whoever turns the key. */
export type CrankLook = 'starts' | 'brisk-no-fire' | 'slow' | 'rapid-click' | 'one-click' | 'silence';

/** Below this at the posts the control units drop the solenoid, and it chatters: volts per 12 V. */
const CHATTER_VOLTS = 7.6;
/** A battery whose volts under the dash lamps fall below this leaves everything dark, per 12 V. */
const DARK_VOLTS = 6;

/** The look of a try, by itself or with a good source at its posts. */
export const lookOf = (hidden: HiddenMachine, profile: DiagnosisProfile, withHelp: boolean): CrankLook =>
  lookOfPoint(
    hidden,
    withHelp ? hidden.helped : hidden.crank,
    profile.systemVolts,
    postsAtRest(hidden, profile, withHelp),
  );

/** Volts at the posts while nothing is drawn, per 12 V: its own, or those of a good source. */
export function postsAtRest(
  hidden: Pick<HiddenMachine, 'batteries'>,
  profile: DiagnosisProfile,
  withHelp: boolean,
): number {
  const own = restVoltsOf(hidden, profile);
  return withHelp ? HELP.openVolts : own.reduce((a, b) => a + b, 0) / own.length;
}

/**
 * The look of a try that cranks so.
 *
 * @param point null where no current flows, or the starter does nothing
 * @param restVolts at the posts while nothing is drawn, per 12 V
 */
export function lookOfPoint(
  hidden: Pick<HiddenMachine, 'open' | 'held' | 'starter'>,
  point: CrankPoint | null,
  systemVolts: 12 | 24,
  restVolts: number,
): CrankLook {
  const batteries = systemVolts / 12;
  if (hidden.open || hidden.held === 'starter') return 'silence';
  if (hidden.starter === 'dead') return restVolts < DARK_VOLTS ? 'silence' : 'one-click';
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
