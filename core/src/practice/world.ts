import { batteryBar } from '../battery/index.js';
import type { BatteryBelief, CasualtyBatteries } from '../belief/index.js';
import type { SourceOption } from '../plan/index.js';
import {
  type CheckId,
  type CrankLook,
  type DiagnosisEvidence,
  type DiagnosisProfile,
  type Found,
  type HiddenMachine,
  isIce,
  ohmsInside,
  restVoltsOf,
  SOUND_OHMS,
  type Suspect,
  type Tool,
} from '../diagnosis/index.js';
import type { HandAction, Hazard, HookupScene, HookupState } from '../hookup/index.js';
import type { BadJoints } from '../circuit/index.js';
import { type CrankPoint, USUAL_CONVERTER } from '../crank/index.js';
import { type Machine, startsByWaking } from '../machine/index.js';
import type { HouseRules } from '../rules/index.js';
import type { KitItem } from '../sources/index.js';
import type { VerdictKind } from '../verdict/index.js';
import type { Breakable } from './breaks.js';
import type { RungId } from './rungs.js';

export const HINT_LEVELS = ['nudge', 'reason', 'step'] as const;
/** How much help is shown: where to look, why, or what to do. */
export type HintLevel = (typeof HINT_LEVELS)[number];

export const AMPS_AROUND = ['red-lead', 'black-lead', 'own-cable'] as const;
/** The lead that a clamp meter is closed around. */
export type AmpsAround = (typeof AMPS_AROUND)[number];

/** The places of a meter's probes: ids of points of the machine. */
export interface ProbesOn {
  readonly red: string;
  readonly black: string;
}
/** The value of an instrument of a training bench, V or A, to a whole thousandth; left out where the case's own instrument is read. */
export interface Shown {
  readonly shown?: number;
}

/** One thing that the one who practises does. */
export type PracticeAction =
  /** A question, a look or a reading, of one battery of a string where it is named. */
  | { readonly kind: 'check'; readonly check: CheckId; readonly battery?: number }
  /** The meter, red probe and black probe each on a point of the machine, whichever. */
  | ({ readonly kind: 'probe' } & ProbesOn & Shown)
  /** The clamp meter, closed around a lead or the cable of the machine's own minus. */
  | ({ readonly kind: 'amps'; readonly around: AmpsAround } & Shown)
  /** The hydrometer, in one cell of a battery. */
  | { readonly kind: 'gravity'; readonly battery: number; readonly cell: number }
  /** A source is fetched from the van, with its leads. */
  | { readonly kind: 'fetch'; readonly optionId: string }
  /** Hands do this, whatever it is: nothing is forbidden. */
  | { readonly kind: 'hands'; readonly action: Exclude<HandAction, { kind: 'crank' }> }
  | { readonly kind: 'wait'; readonly minutes: number }
  /** The key is turned, or a machine that wakes is asked to. */
  | { readonly kind: 'key' }
  /** The last thing done is taken back, as if it had not been: what it risked is remembered. */
  | { readonly kind: 'back' }
  | { readonly kind: 'hint'; readonly level: HintLevel }
  | { readonly kind: 'verdict'; readonly verdict: VerdictKind; readonly suspect: Suspect | null };

/** An instrument of a training bench, held to a case as far as it has been worked. */
export interface CaseReading {
  readonly code: string;
  /** The actions so far, oldest first. */
  readonly actions: readonly PracticeAction[];
  /** The places of the meter's probes; null where it is the clamp that reads. */
  readonly probes: ProbesOn | null;
  readonly around: AmpsAround | null;
}

/** The outcome of the key. */
export type KeyOutcome = CrankLook | 'wakes' | 'stays-asleep';

/** The outcome of an action. */
export interface Happened {
  readonly action: PracticeAction;
  /** Minutes of the case when it began. */
  readonly atMinutes: number;
  readonly minutes: number;
  /** The finding of a check. */
  readonly found?: Found;
  /** The value of the meter between its probes, V. */
  readonly volts?: number;
  /** The value of the clamp meter, A: towards the casualty in a red lead, into the battery in its own cable. */
  readonly amps?: number;
  /** Specific gravity of the cell that was read. */
  readonly gravity?: number;
  /** The cover of its battery that came off first. */
  readonly opened?: readonly string[];
  /** The part that it broke. */
  readonly broke?: readonly Breakable[];
  /** The effects of the circuit on hands, metal, batteries and electronics, worst first. */
  readonly hazards: readonly Hazard[];
  readonly key?: {
    readonly outcome: KeyOutcome;
    readonly point: CrankPoint | null;
    readonly helped: boolean;
    /** At the lamps while the key was held, volts per 12 V. */
    readonly lampVolts: number;
  };
}

/** A case before anything is done to it. */
export interface PracticeCase {
  /** The code of the case: everybody with it has the same case. */
  readonly code: string;
  /** Null for a case that somebody made. */
  readonly rung: RungId | null;
  readonly machine: Machine;
  readonly donor: Machine;
  readonly kit: readonly KitItem[];
  readonly tools: readonly Tool[];
  readonly tempC: number;
  readonly profile: DiagnosisProfile;
  readonly rules: HouseRules;
  /** The driver's words by the author of the case; null for a case that was drawn. */
  readonly told: {
    readonly title: string;
    readonly says: string;
    readonly answers: Readonly<Partial<Record<CheckId, string>>>;
  } | null;
  /** The driver's words for its behaviour. */
  readonly said: string;
  /** The true fault. */
  readonly hidden: HiddenMachine;
}

/** A case as far as it has been worked. */
export interface World {
  readonly practice: PracticeCase;
  /** As it is now: charge comes and goes. */
  readonly hidden: HiddenMachine;
  readonly minutes: number;
  readonly option: SourceOption | null;
  readonly hookup: HookupState;
  /** It runs, or is awake. */
  readonly runs: boolean;
  /** The cover of its battery is off: bonnet, lid, seat. */
  readonly isOpen: boolean;
  /** Parts that slips have broken, and nobody took back. */
  readonly broken: readonly Breakable[];
  readonly evidence: readonly DiagnosisEvidence[];
  /** The actions that stand, oldest first. */
  readonly log: readonly Happened[];
  /** The actions that were taken back, oldest first. */
  readonly takenBack: readonly Happened[];
  readonly hints: readonly HintLevel[];
  readonly verdict: { readonly verdict: VerdictKind; readonly suspect: Suspect | null } | null;
}

/** Resistance of the joints and cables of the machine beyond sound ones; a cable stands with the joint of the body. */
export function jointsOf({ plusOhms, minusOhms, cableOhms }: HiddenMachine): BadJoints {
  const [, sound] = SOUND_OHMS;
  return {
    plusOhms: Math.max(0, plusOhms - sound),
    minusOhms: Math.max(0, minusOhms - sound) + Math.max(0, cableOhms - 2 * sound),
  };
}

/** A meter and hands are off by no more than this, V. */
const READ_OFF_VOLTS = 0.2;

interface Yard {
  readonly practice: Pick<PracticeCase, 'profile' | 'hidden'>;
}

/** A careful reading may take a battery of this case for one that no current may go through. */
export const mayBeBarred = (yard: Yard): boolean => isBarredAt(yard, -READ_OFF_VOLTS);

/** Any careful reading takes a battery of this case for one that no current may go through. */
export const isSurelyBarred = (yard: Yard): boolean => isBarredAt(yard, READ_OFF_VOLTS);

const isBarredAt = ({ practice: { profile, hidden } }: Yard, offVolts: number): boolean =>
  restVoltsOf(hidden, profile).some(
    (volts) => batteryBar(profile.rating.chemistry, volts + offVolts, profile.tempC) !== null,
  );

/** The batteries as they truly are, which nobody who works on them knows. */
export function trueBatteries({
  hidden,
  practice: { profile },
}: Pick<World, 'hidden' | 'practice'>): CasualtyBatteries {
  const { rating, tempC } = profile;
  const volts = restVoltsOf(hidden, profile);
  const inside = ohmsInside(hidden, profile);
  const models = volts.map((openVolts, i) => ({ openVolts, ohms: inside[i]! }));
  const beliefs = hidden.batteries.map(({ soc, ageing, overDischargedVolts }, i): BatteryBelief => {
    const isReversed = batteryBar(rating.chemistry, volts[i]!, tempC) === 'reversed';
    const bar = isReversed ? 'reversed' : isIce(hidden.batteries[i]!, profile) ? 'frozen' : null;
    return {
      rating,
      soc,
      socLow: soc,
      socHigh: soc,
      ageing,
      ...(overDischargedVolts !== undefined && { overDischargedVolts }),
      ...(bar && { bar }),
    };
  });
  const socs = hidden.batteries.map(({ soc }) => soc);
  return {
    models,
    socs,
    beliefs,
    measured: true,
    allMeasured: true,
    weakest: volts.indexOf(Math.min(...volts)),
    othersSound: true,
    totalVolts: volts.reduce((sum, v) => sum + v, 0),
    joints: jointsOf(hidden),
  };
}

/** Volts that the casualty's own alternator or converter truly holds while it runs. */
export function ownSupplyVolts({ hidden, practice }: World): number {
  const converts = startsByWaking(practice.machine) && hidden.cause !== 'converter';
  return converts ? USUAL_CONVERTER.volts : (hidden.chargingVolts * practice.machine.systemVolts) / 12;
}

/** The hook-up as it truly is; null before a source was fetched. */
export function trueScene(world: World): HookupScene | null {
  const { practice, option, runs } = world;
  if (!option) return null;
  return {
    machine: practice.machine,
    donor: option.sourceKind === 'donor' ? practice.donor : null,
    option,
    batteries: trueBatteries(world),
    tempC: practice.tempC,
    enclosed: false,
    casualtyRuns: runs,
    alternatorVolts: ownSupplyVolts(world),
  };
}
