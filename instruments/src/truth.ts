import { POLARISATION, polarisedShare } from '@voltrek/core/battery';
import { aloneRescue, modelBattery } from '@voltrek/core/circuit';
import { type CrankTrace, simulateCrank } from '@voltrek/core/crank';
import {
  CAUSES,
  type Cause,
  type DiagnosisProfile,
  drawHidden,
  type HiddenMachine,
  keyOnDrop,
  lookOf,
  joinedWithHelp,
  ohmsInside,
  oneBattery,
  CHECK_IDS,
  type CheckId,
  checkOf,
  restVoltsOf,
} from '@voltrek/core/diagnosis';
import {
  ampsAround,
  type CaseReading,
  CHARGING_SECONDS,
  readCaseCode,
  replay,
  voltsBetween,
} from '@voltrek/core/practice';
import { seededRandom } from '@voltrek/core/quantities';

export const PHASES = ['still', 'cranking', 'running'] as const;
/** The state of the machine while an instrument is on it. */
export type Phase = (typeof PHASES)[number];

/** The job that a stand-in stands in for: the hidden fault, and the places of its probes. */
export interface Setup {
  readonly profile: DiagnosisProfile;
  readonly cause: Cause;
  readonly seed: number;
  readonly check: CheckId;
  /** Battery the probes are on, for rest volts; from the chassis side up. */
  readonly battery: number;
  readonly phase: Phase;
  /** Help is joined. */
  readonly helped: boolean;
}

/** Seconds of a try that a stand-in plays: the starter turns for this long, or until it fires. */
const CRANK_SECONDS = 3;

/** The machine on the probes, playing the hidden truth in time. */
export interface World {
  /** Volts between the probes, `seconds` after the phase began. */
  readonly volts: (seconds: number) => number;
  /** Amps through the clamp. */
  readonly amps: (seconds: number) => number;
  /** Strength of the battery as a tester finds it, of its rating. */
  readonly strengthShare: () => number;
  readonly ratedAmps: number;
}

/** A setup from text that came over the wire. @throws RangeError when it is none */
export function parseSetup(text: string): Setup | CaseReading {
  const value = JSON.parse(text) as Setup | CaseReading;
  if ('code' in value) {
    if (readCaseCode(value.code) && Array.isArray(value.actions)) return value;
    throw new RangeError('no case');
  }
  const isKnown =
    CAUSES.includes(value.cause) &&
    CHECK_IDS.includes(value.check) &&
    PHASES.includes(value.phase) &&
    Number.isInteger(value.seed) &&
    value.profile.rating.capacityAh > 0;
  if (!isKnown) throw new RangeError('no setup');
  return value;
}

/** @throws RangeError for a case in which something was done that it does not have */
export function worldOf(setup: Setup | CaseReading): World {
  if ('code' in setup) return caseWorld(setup);
  const { profile, cause, seed, check, battery, phase, helped } = setup;
  const hidden = drawHidden(cause, profile, seededRandom(seed));
  const alone = restVoltsOf(hidden, profile);
  const inside = ohmsInside(hidden, profile);
  // With help joined the posts show the helper.
  const batteries = helped
    ? alone.map((openVolts, i) => joinedWithHelp({ openVolts, ohms: inside[i]! }).openVolts)
    : alone;
  const string = batteries.reduce((a, b) => a + b, 0);
  /** Only what is charged the wrong way round shows less than nothing. */
  const least = Math.min(0, string);
  const crank = phase === 'cranking' ? playedCrank(hidden, profile, helped) : null;
  const starts = lookOf(hidden, profile, helped) === 'starts';
  const running = (hidden.chargingVolts * profile.systemVolts) / 12;
  // A helper carries the dash without noticing it.
  const dash = helped ? 0 : keyOnDrop(hidden, profile);
  const tested = battery < batteries.length ? oneBattery(hidden, battery) : hidden;

  const posts = (seconds: number): number => {
    if (phase === 'running') return running;
    if (phase === 'still' || !crank) return check === 'key-on' ? string - dash : string;
    const at = seconds - crank.contactAt;
    if (at < -1) return string;
    if (at < 0) return string - dash;
    if (at < CRANK_SECONDS) return crank.volts(at);
    const after = at - CRANK_SECONDS;
    if (starts) return running + (crank.volts(CRANK_SECONDS) - running) * Math.exp(-after / CHARGING_SECONDS);
    return string - dash - crank.polarised * Math.exp(-after / POLARISATION.seconds);
  };
  const starterAmps = (seconds: number): number => {
    const at = crank ? seconds - crank.contactAt : -1;
    return crank && at >= 0 && at < CRANK_SECONDS ? crank.amps(at) : 0;
  };
  const dropOver = (ohms: number) => (seconds: number) => starterAmps(seconds) * ohms;
  const volts: World['volts'] =
    check === 'joint-plus'
      ? dropOver(hidden.plusOhms)
      : check === 'joint-minus'
        ? dropOver(hidden.minusOhms)
        : check === 'starter-stud'
          ? dropOver(hidden.plusOhms + hidden.minusOhms + hidden.cableOhms)
          : check === 'rest'
            ? () => batteries[battery] ?? string
            : (seconds) => Math.max(least, posts(seconds));
  return {
    volts,
    amps: (seconds) => (phase === 'still' ? asleepAmps(hidden) : starterAmps(seconds)),
    strengthShare: () => checkOf('conductance').predict!(tested, profile)!,
    ratedAmps: profile.rating.ccaAmps,
  };
}

/** A case of practice as far as it has been worked: what is read of it, the case's own instruments would read too. */
function caseWorld({ code, actions, probes, around }: CaseReading): World {
  const world = replay(code, actions);
  const { profile } = world.practice;
  const volts = probes ? voltsBetween(world, probes) : 0;
  const amps = around ? ampsAround(world, around) : 0;
  return {
    volts: () => volts,
    amps: () => amps,
    strengthShare: () => checkOf('conductance').predict!(world.hidden, profile)!,
    ratedAmps: profile.rating.ccaAmps,
  };
}

/** The consumer that was left on is off by now; what never sleeps is not. */
function asleepAmps({ leftOn, drainAmps }: HiddenMachine): number {
  return leftOn ? 0.02 : drainAmps;
}

interface PlayedCrank {
  readonly contactAt: number;
  readonly volts: (seconds: number) => number;
  readonly amps: (seconds: number) => number;
  readonly polarised: number;
}

/** Seconds from the start of a try to the closing of the contact: the key passes its first stop. */
const CONTACT_AFTER_S = 1.5;

/**
 * The crank in time. Joints are no part of the simulated network: its trace is moved so that it settles where the quasi-steady point
 * with the joints lies. Null when no current flows at all.
 */
function playedCrank(
  hidden: HiddenMachine,
  { engine, rating, tempC }: DiagnosisProfile,
  helped: boolean,
): PlayedCrank | null {
  const point = helped ? hidden.helped : hidden.crank;
  if (!engine || !point) return null;
  const models = hidden.batteries.map((state) => modelBattery(rating, state));
  const trace = simulateCrank({
    rescue: aloneRescue(models, tempC),
    batteries: hidden.batteries.map((state) => ({ rating, state })),
    engine,
    seconds: CRANK_SECONDS,
  });
  const settled = (list: Float64Array): number => {
    const part = list.slice(Math.floor(list.length / 3));
    return part.reduce((a, b) => a + b, 0) / part.length;
  };
  const lift = point.postVolts - settled(trace.postVolts);
  const scale = point.starterAmps / Math.max(1, settled(trace.starterAmps));
  const at = (list: Float64Array, seconds: number): number => sample(trace, list, seconds);
  return {
    contactAt: CONTACT_AFTER_S,
    volts: (seconds) => at(trace.postVolts, seconds) + lift,
    amps: (seconds) => at(trace.starterAmps, seconds) * scale,
    polarised:
      models.reduce((sum, m) => sum + m.ohms, 0) * point.starterAmps * polarisedShare(rating.chemistry),
  };
}

function sample(trace: CrankTrace, list: Float64Array, seconds: number): number {
  const at = Math.min(list.length - 1, Math.max(0, Math.floor(seconds / trace.stepSeconds)));
  return list[at]!;
}
