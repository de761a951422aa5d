import { batteryOhms, batteryOpenVolts, type BatteryState } from '../battery/battery.js';
import { mustTreatAsFrozen } from '../battery/freezing.js';
import { aloneRescue, type ModelBattery } from '../circuit/rescue.js';
import { ASSUMED_AGEING } from '../plan/casualty-batteries.js';
import { type CrankPoint, crankPoint } from '../crank/quick.js';
import { defaultStarter } from '../engine/engine.js';
import { normal, type Random } from '../quantities/random.js';
import type { Cause, DiagnosisProfile } from './causes.js';

/** A machine with one hidden fault, whole enough to answer any check. */
export interface HiddenMachine {
  readonly cause: Cause;
  /** From the chassis side up. */
  readonly batteries: readonly BatteryState[];
  /** Resistance of the joints at the posts and of the cables beyond, ohms; a sound joint is a fraction of a milliohm. */
  readonly plusOhms: number;
  readonly minusOhms: number;
  readonly cableOhms: number;
  /** The main circuit is open: nothing reaches the starter or the dash. */
  readonly open: boolean;
  /** The starter does nothing, or turns hard. */
  readonly starter: 'sound' | 'dead' | 'dragging';
  /** Something keeps the starter from being asked, or the engine from firing. */
  readonly held: 'no' | 'starter' | 'firing';
  /** With the engine running at idle, per 12 V. */
  readonly chargingVolts: number;
  readonly beltBad: boolean;
  /** With everything asleep. */
  readonly drainAmps: number;
  readonly leftOn: boolean;
  readonly use: 'regular' | 'short-trips' | 'stood-weeks';
  readonly ageYears: number;
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
const BAD_OHMS = [0.02, 0.12] as const;
/** The engine whose starter that goes by, A: its stall current. */
const REFERENCE_AMPS = 700;
/** A good source at the posts: a healthy donor battery through good leads. */
export const HELP: ModelBattery = { openVolts: 12.7, ohms: 0.009 };

/** A machine of this profile whose fault is `cause`. */
export function drawHidden(cause: Cause, profile: DiagnosisProfile, random: Random): HiddenMachine {
  const { tempC, engine, systemVolts } = profile;
  const count = systemVolts / 12;
  const sound: BatteryState = {
    soc: between(random, 0.72, 0.97),
    tempC,
    ageing: between(random, 1, 1.35),
  };
  const bad = (): number => {
    const stall = engine ? systemVolts / defaultStarter(engine).ohms : REFERENCE_AMPS;
    return between(random, ...BAD_OHMS) * (REFERENCE_AMPS / stall);
  };
  const good = (): number => between(random, ...SOUND_OHMS);
  const isFlatCause = ['discharged', 'left-on', 'drain', 'charging'].includes(cause);
  const state = batteryStateOf(cause, sound, random, isFlatCause);
  const batteries = Array.from({ length: count }, (_, i) => {
    if (cause === 'string-weak') return i === 0 ? { ...sound, soc: between(random, 0.02, 0.25) } : sound;
    // A string ages together.
    return state;
  });
  const base = {
    cause,
    batteries,
    plusOhms: cause === 'joint-positive' || (cause === 'joint-loose' && chance(random, 0.5)) ? bad() : good(),
    minusOhms: good(),
    cableOhms: cause === 'cable' ? bad() : good() * 2,
    open: cause === 'main-fuse',
    starter: cause !== 'starter' ? 'sound' : chance(random, 0.55) ? 'dead' : 'dragging',
    held: cause === 'interlock' ? 'starter' : cause === 'immobiliser' || cause === 'fuel' ? 'firing' : 'no',
    chargingVolts:
      cause !== 'charging'
        ? normal(random, 14.2, 0.12)
        : chance(random, 0.8)
          ? between(random, 11.6, 12.9)
          : between(random, 15.3, 16.5),
    beltBad: cause === 'charging' ? chance(random, 0.4) : chance(random, 0.02),
    drainAmps: cause === 'drain' ? between(random, 0.12, 1.5) : between(random, 0.008, 0.035),
    leftOn: cause === 'left-on',
    use:
      cause === 'discharged'
        ? chance(random, 0.5)
          ? 'short-trips'
          : 'stood-weeks'
        : cause === 'sulphated'
          ? 'stood-weeks'
          : chance(random, 0.82)
            ? 'regular'
            : chance(random, 0.6)
              ? 'short-trips'
              : 'stood-weeks',
    ageYears:
      cause === 'worn'
        ? between(random, 4, 10)
        : cause === 'dead-cell'
          ? between(random, 3, 9)
          : between(random, 0.5, 6.5),
    earlierFlat: chance(
      random,
      (
        { charging: 0.45, drain: 0.6, worn: 0.35, sulphated: 0.3, discharged: 0.15 } as Partial<
          Record<Cause, number>
        >
      )[cause] ?? 0.06,
    ),
  } satisfies Omit<HiddenMachine, 'crank' | 'helped' | 'promised' | 'minusOhms'> & { minusOhms: number };
  // A clamp at its stop is as often the black one.
  const isMinus = cause === 'joint-negative' || (cause === 'joint-loose' && base.plusOhms < BAD_OHMS[0] / 10);
  const hidden = { ...base, minusOhms: isMinus ? bad() : base.minusOhms };
  return {
    ...hidden,
    crank: crankOf(hidden, profile, false),
    helped: crankOf(hidden, profile, true),
    promised: crankOf(asPlanned(hidden), profile, true),
  };
}

/** The same machine as a plan takes it. */
function asPlanned({ batteries }: Electrical): Electrical {
  return {
    batteries: batteries.map((state) => ({ ...state, ageing: ASSUMED_AGEING })),
    plusOhms: SOUND_OHMS[0],
    minusOhms: SOUND_OHMS[0],
    cableOhms: SOUND_OHMS[0],
    open: false,
    starter: 'sound',
    held: 'no',
  };
}

function batteryStateOf(
  cause: Cause,
  sound: BatteryState,
  random: Random,
  isFlatCause: boolean,
): BatteryState {
  if (isFlatCause) return { ...sound, soc: between(random, 0.01, 0.3) };
  switch (cause) {
    case 'worn':
      return { ...sound, soc: between(random, 0.55, 0.95), ageing: between(random, 2.4, 6) };
    case 'sulphated':
      return { ...sound, soc: between(random, 0.02, 0.2), ageing: between(random, 2.4, 5) };
    case 'dead-cell':
      return { ...sound, soc: between(random, 0.45, 0.95), ageing: between(random, 1.1, 2), deadCells: 1 };
    case 'reversed':
      return { ...sound, soc: between(random, 0.05, 0.4), reversed: true };
    case 'frozen':
      return { ...sound, soc: between(random, 0, 0.04), ageing: 3 };
    default:
      return sound;
  }
}

/** True when the profile's cold can freeze a flat battery at all. */
export function canFreeze({ rating, tempC }: DiagnosisProfile): boolean {
  return mustTreatAsFrozen(rating.chemistry, 0.02, tempC);
}

/** Rest volts of each battery. */
export function restVoltsOf(
  hidden: Pick<HiddenMachine, 'batteries'>,
  { rating }: DiagnosisProfile,
): number[] {
  return hidden.batteries.map((state) => batteryOpenVolts(rating, state));
}

type Electrical = Pick<
  HiddenMachine,
  'batteries' | 'plusOhms' | 'minusOhms' | 'cableOhms' | 'open' | 'starter' | 'held'
>;

/** Joint and cable resistance stands with the battery: the same current passes all of it. Volts at the posts are worked back from it. */
function crankOf(hidden: Electrical, profile: DiagnosisProfile, withHelp: boolean): CrankPoint | null {
  const { engine, rating, tempC } = profile;
  const runs = engine && !hidden.open && hidden.starter !== 'dead' && hidden.held !== 'starter';
  if (!runs) return null;
  const series = hidden.plusOhms + hidden.minusOhms + hidden.cableOhms;
  const own = hidden.batteries.map((state) => ({
    openVolts: batteryOpenVolts(rating, state),
    ohms: batteryOhms(rating, state),
  }));
  const models = withHelp ? own.map(joinedWithHelp) : own;
  if (models.some((m) => m.openVolts <= 1)) return null;
  const casualty = models.map((m, i) => (i === 0 ? { ...m, ohms: m.ohms + series } : m));
  const rescue = aloneRescue(casualty, tempC);
  const starter = defaultStarter(engine);
  const found = crankPoint(
    rescue,
    engine,
    hidden.starter === 'dragging' ? { ...starter, efficiency: starter.efficiency * 0.4 } : starter,
  );
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
