import type { AttemptOutcome } from '@voltrek/core/crank';
import { degreesMore, metres } from './units';
import type { KitItem } from '@voltrek/core/sources';
import type { Weather } from '@voltrek/contracts';
import type { WakeOutcome } from '@voltrek/core/crank';
import type { PolaritySign, ReadingKind, StopCondition, Symptom } from '@voltrek/core/diagnosis';
import type { Circumstance, WrongMetal, Confirmation, gasAt, StepReason } from '@voltrek/core/hookup';
import type { DriveAdvice, PlaceKind } from '@voltrek/core/job';
import {
  type Machine,
  type MachineClass,
  type PointKind,
  type RollingStartBar,
  type RollingStartCaution,
  startsByWaking,
} from '@voltrek/core/machine';
import type { Unknown } from '@voltrek/core/belief';
import type {
  CrankComparison,
  Help,
  LimitedBy,
  Origin,
  Outlook,
  PlanInputKey,
  Unfit,
  WaitCurve,
} from '@voltrek/core/plan';
import type { LatchPoint } from '@voltrek/core/sources';
import { messagesOf } from './messages-of';
import { fixed } from './numbers';

export const PLACE_WORDS: Record<PlaceKind, string> = messagesOf('place');

export const SKY_WORDS: Record<Weather['sky'], string> = messagesOf('sky');

export const CLASS_WORDS: Record<MachineClass, string> = messagesOf('class');

/** How things stand beside the clamps. */
export const CIRCUMSTANCE_WORDS: Record<Circumstance, string> = messagesOf('circumstance');

/** The metal that a clamp is on in place of clean metal. */
export const METAL_WORDS: Record<WrongMetal, string> = messagesOf('metal');

export const UNKNOWN_WORDS: Record<Unknown, string> = messagesOf('unknown');

/** A stop: what is seen, what to do instead. */
export const STOP_WORDS: Record<
  StopCondition,
  { readonly sign: string; readonly wrong: string; readonly instead: string }
> = messagesOf('stop');

export const SYMPTOM_WORDS: Record<Symptom, string> = messagesOf('symptom');

export const POINT_KIND_WORDS: Record<PointKind, string> = messagesOf('pointKind');

export const POLARITY_WORDS: Record<PolaritySign, string> = messagesOf('polarity');

export const READING_WORDS: Record<ReadingKind, { readonly name: string; readonly how: string }> =
  messagesOf('reading');

const FIGURES = messagesOf('figures');

interface ReadingText {
  readonly name: string;
  readonly how: string;
}
const OF_WAKING: Partial<Record<ReadingKind, ReadingText>> = messagesOf('readingOfWaking');
const OF_MOTORCYCLE: Partial<Record<ReadingKind, ReadingText>> = messagesOf('readingOfMotorcycle');

/** A machine as far as its words turn on it. */
export type Spoken = Pick<Machine, 'batteries' | 'engine' | 'machineClass'>;

/** Returns the name of a reading and how it is taken, as they are true of this machine: one that wakes has neither crank nor idle. */
export function readingText(
  kind: ReadingKind,
  { engine, machineClass }: Omit<Spoken, 'batteries'>,
): ReadingText {
  const own = engine === null ? OF_WAKING : machineClass === 'motorcycle' ? OF_MOTORCYCLE : {};
  return own[kind] ?? READING_WORDS[kind];
}

/** The battery of a string, counted from the chassis side. */
export const batteryWord = (battery: number): string => FIGURES.battery({ number: battery + 1 });

/** A reading by its name; of a string also by the battery that it was taken of, where it was one. */
export function readingName(kind: ReadingKind, battery: number, machine: Spoken): string {
  const { name } = readingText(kind, machine);
  return ofBattery(name, kind === 'rest' && machine.batteries.length > 1 ? battery : undefined);
}

/** Returns the name of a reading, with the battery of a string that it was read at. */
export function ofBattery(name: string, battery: number | null | undefined): string {
  return battery == null ? name : FIGURES.ofBattery({ name, battery: batteryWord(battery) });
}

export const OUTLOOK_WORDS: Record<Outlook | 'stop-ahead', string> = messagesOf('outlook');

export const LIMIT_WORDS: Record<LimitedBy, string> = messagesOf('limit');

const UNFIT = messagesOf('unfit');

export function unfitWords(unfit: Unfit): string {
  switch (unfit.code) {
    case 'voltage':
      return UNFIT.voltage({ output: unfit.outputVolts, system: unfit.systemVolts });
    case 'battery-bar':
      return UNFIT[unfit.bar];
    case 'sense':
      return UNFIT.sense({ sense: unfit.senseVolts, rest: fixed(unfit.restVolts, 2) });
    case 'unsteady':
      return UNFIT.unsteady;
    case 'lithium-battery':
      return UNFIT.lithiumBattery;
    case 'other-battery-weak':
      return UNFIT.otherBatteryWeak;
    case 'batteries-unread':
      return UNFIT.batteriesUnread;
    case 'bodies-apart':
      return UNFIT.bodiesApart;
    case 'no-mains':
      return UNFIT.noMains;
    case 'house-rule':
      return UNFIT.houseRule;
    case 'leads-short':
      return UNFIT.leadsShort({ length: metres(unfit.lengthM, 1), needed: metres(unfit.neededM, 1) });
    case 'over-current':
      return UNFIT.overCurrent({ amps: fixed(unfit.amps), max: fixed(unfit.maxAmps) });
  }
}

/** The words of a look, a wait or a setting. */
export interface ConfirmWords {
  readonly title: string;
  readonly detail: string;
  readonly go: string;
}

/** Of the usual machine; `confirmWords` turns them round for one with plus on its body. */
export const CONFIRM_WORDS: Record<Confirmation, ConfirmWords> = messagesOf('confirm');

/** Steps that a motorcycle does otherwise: it has no blower and no heated screen. */
export const CONFIRM_OF_MOTORCYCLE: Partial<Record<Confirmation, ConfirmWords>> =
  messagesOf('confirmOfMotorcycle');

/** Steps and reasons of a machine that wakes: nobody cranks it. */
export const CONFIRM_OF_WAKING: Partial<Record<Confirmation, ConfirmWords>> = messagesOf('confirmOfWaking');
export const REASON_OF_WAKING: Partial<Record<StepReason, string>> = messagesOf('reasonOfWaking');

/** Of the usual machine, with minus on its body; `reasonWords` turns them round for the other. */
export const REASON_WORDS: Record<StepReason, string> = messagesOf('reason');

type OutcomeWords = Readonly<Record<AttemptOutcome, { readonly name: string; readonly next: string }>>;
const OUTCOME_WORDS: OutcomeWords = messagesOf('outcome');
/** The same outcomes on a machine that wakes. */
const WAKE_OUTCOME_WORDS: OutcomeWords = messagesOf('wakeOutcome');

/** Returns the outcomes of a try on such a machine: their names and the acts after them. */
export const outcomeWords = (machine: Machine): OutcomeWords =>
  startsByWaking(machine) ? WAKE_OUTCOME_WORDS : OUTCOME_WORDS;

/** The first act after joined help that failed; a try by itself asks for none of it. */
const JOINED_ADVICE: Partial<Record<AttemptOutcome, { readonly donor: string; readonly other: string }>> =
  messagesOf('joinedAdvice');

/** Returns the act after a try, by the help that was joined in it. @param helper the kind that helped; null for a try by itself */
export function adviceAfter(outcome: AttemptOutcome, helper: KitItem['kind'] | null): string {
  const joined = helper === null ? undefined : JOINED_ADVICE[outcome];
  if (!joined) return OUTCOME_WORDS[outcome].next;
  return helper === 'donor' ? joined.donor : joined.other;
}

/** Cautions in whole sentences. */
export const CAUTION_WORDS = messagesOf('caution');

/** The name of each figure that a plan counts with. */
export const INPUT_WORDS: Record<PlanInputKey, string> = messagesOf('input');

/** Why each has the value that it has. */
export const INPUT_REASONS: Record<PlanInputKey, string> = messagesOf('inputReason');

/** How each figure of a plan is shown: its unit, its scale over the kept value, its places. */
export const INPUT_FORMATS: Record<
  PlanInputKey,
  { readonly unit: string; readonly scale: number; readonly places: number }
> = {
  soc: { unit: '%', scale: 100, places: 0 },
  tempC: { unit: '°C', scale: 1, places: 0 },
  capacityAh: { unit: 'Ah', scale: 1, places: 0 },
  ccaAmps: { unit: 'A', scale: 1, places: 0 },
  ageing: { unit: 'times', scale: 1, places: 2 },
  displacementL: { unit: 'L', scale: 1, places: 2 },
  sectionMm2: { unit: 'mm²', scale: 1, places: 0 },
  leadLengthM: { unit: 'm', scale: 1, places: 1 },
  clampOhms: { unit: 'mohm', scale: 1000, places: 1 },
  sourceVolts: { unit: 'V', scale: 1, places: 2 },
  sourceOhms: { unit: 'mohm', scale: 1000, places: 1 },
  alternatorAmps: { unit: 'A', scale: 1, places: 0 },
  waitMinutes: { unit: 'min', scale: 1, places: 0 },
};

export const ORIGIN_WORDS: Record<Origin, string> = messagesOf('origin');

/** Changes that hands can make, as an order. */
export const helpWords = (help: Help): string =>
  help === 'warm-battery' ? messagesOf('helpWarm').battery({ degrees: degreesMore(10) }) : HELP_WORDS[help];

const HELP_WORDS: Record<Exclude<Help, 'warm-battery'>, string> = messagesOf('help');

const WAIT = messagesOf('waitCurve');

export function waitWords({ shape, kneeMinutes, start }: WaitCurve): string {
  switch (shape) {
    case 'knee':
      return WAIT.knee({ minutes: kneeMinutes });
    case 'still-rising':
      return WAIT['still-rising']({ minutes: start.length - 1 });
    default:
      return WAIT[shape];
  }
}

export const PROMISE_WORDS: Record<CrankComparison['code'], string> = messagesOf('promise');

export const ROLLING_BAR_WORDS: Record<RollingStartBar, string> = messagesOf('rollingBar');
export const ROLLING_CAUTION_WORDS: Record<RollingStartCaution, string> = messagesOf('rollingCaution');

export const WAKE_OUTCOME_LINES: Record<WakeOutcome, string> = messagesOf('wakeOutcomeLines');

export const LATCH_FAULT_WORDS: Record<NonNullable<LatchPoint['fault']>, string> = messagesOf('latchFault');

export const GAS_WORDS: Record<ReturnType<typeof gasAt>, string> = messagesOf('gas');

const DRIVE = messagesOf('drive');

/** The gain of a drive for the battery, which is seldom enough. */
export function driveWords(drive: DriveAdvice | null): string {
  if (!drive) return '';
  const { targetMinutes, needsCharger } = drive;
  if (targetMinutes === 0) return DRIVE.charged;
  if (targetMinutes === null) return DRIVE.never;
  const hours = targetMinutes / 60;
  const time = hours < 1.5 ? `${Math.ceil(targetMinutes)} min` : `${fixed(hours, 1)} h`;
  return needsCharger ? DRIVE.charger({ time }) : DRIVE.drive({ time });
}
