import type { AttemptOutcome } from '../../crank/index.js';
import type { ClampId } from '../../circuit/index.js';
import type { Outlook, PlanInput, SourceOption } from '../../plan/index.js';
import type {
  CheckId,
  Found,
  PolaritySign,
  ReadingKind,
  Repair,
  StopCondition,
  Symptom,
} from '../../diagnosis/index.js';
import type { Circumstance, Confirmation, FittingStep, HazardCode, WrongMetal } from '../../hookup/index.js';
import type { ChargeReading, LiftReading, LiftStep } from '../../charging/index.js';
import type { RuleKey, RuleSettings } from '../../rules/index.js';
import type { FollowUp, VerdictRecord } from '../../verdict/index.js';
import type { BatteryRating } from '../../battery/index.js';
import type { LatchPlace } from '../../reach/index.js';

/** The target of an override: a house rule, or a severe hazard of the next step. */
export type OverrideRule = RuleKey | 'severe-hazard';

export const STAGES = [
  'scene',
  'checks',
  'locate',
  'measure',
  'plan',
  'hookup',
  'crank',
  'cleardown',
  'verdict',
] as const;
/** The nine stages of a call, in order. */
export type Stage = (typeof STAGES)[number];

export const PLACE_KINDS = [
  'verge',
  'street',
  'car-park',
  'yard',
  'field',
  'quay',
  'ramp',
  'indoors',
] as const;
export type PlaceKind = (typeof PLACE_KINDS)[number];

/** The scene as the technician finds it. */
export interface SceneRecord {
  readonly ambientC: number;
  /** The coldest it has been since the machine last ran, where that is known: ice does not thaw with the air. */
  readonly coldestC?: number;
  readonly place: PlaceKind;
  readonly sloping: boolean;
  readonly dark: boolean;
  readonly enclosed: boolean;
  readonly mainsNear: boolean;
}

/** The pose of the parked donor, and the lead that it takes there. */
export interface ParkedRecord {
  /** Middle of the donor in the casualty's plan, mm. */
  readonly xMm: number;
  readonly yMm: number;
  /** Clockwise from the casualty's heading. */
  readonly turnedDeg: number;
  readonly gapMm: number;
  /** For the longer of the two leads. */
  readonly metresNeeded: number;
}

/** The reason for the rest of starter and leads after a try. */
export const REST_REASONS = ['rule', 'leads', 'starter'] as const;
export type RestReason = (typeof REST_REASONS)[number];

/** The plan as it stood when it was chosen: the option and what the core promised of it. */
export interface PlanRecord {
  readonly optionId: string;
  readonly sourceId: string;
  readonly leadSetId: string | null;
  readonly sourceKind: SourceOption['sourceKind'];
  readonly outlook: Outlook;
  /** Share of starts the plan expected, 0 to 1; null when it was not computed. */
  readonly odds: number | null;
  readonly starterVolts: number | null;
  readonly starterAmps: number | null;
  readonly rpm: number | null;
  readonly neededRpm: number | null;
  readonly wakeVolts: number | null;
  /** At the casualty's posts while cranking, as a meter there would show. */
  readonly postVolts: number | null;
  /** Charging before the crank, minutes. */
  readonly waitMinutes: number;
  /** Charges only: off and unplugged before the crank. */
  readonly chargeOnly: boolean;
  /** The option that is joined for the crank once this one is off; left out where there is none. */
  readonly thenOptionId?: string;
  /** Every figure the plan counted with, and where it came from. */
  readonly inputs: readonly PlanInput[];
}

export const READING_SOURCES = ['typed', 'meter', 'trace'] as const;
/** The source of a figure: fingers, a linked instrument, or a logged trace. */
export type ReadingSource = (typeof READING_SOURCES)[number];

/** Readings of batteries that were charged to full and have stood for a day; null where one was not read. */
export interface Recheck {
  readonly tempC: number;
  /** Of each battery, from the chassis side up. */
  readonly restVolts: readonly number[];
  /** Tested strength of each, share of its rating. */
  readonly tested: readonly (number | null)[];
  /** Lowest volts while it cranked by itself. */
  readonly crankVolts: number | null;
}

/** The data of each kind of event. The log of a job is made of these and nothing else. */
export interface EventData {
  'job.opened': {
    readonly callId: string;
    readonly callNumber: number;
    readonly title: string;
    readonly placeName: string;
    readonly modelId: string;
    readonly ambientC: number;
    /** The vehicle. Left out in older logs. */
    readonly vehicleId?: string;
    /** The van it is worked from. Left out in older logs. */
    readonly vanId?: string;
    /** The batteries of the record that sat in it, from the chassis side up, where they differ from the model's. */
    readonly fitted?: readonly BatteryRating[];
    /** The house rules it is worked by, as far as they are not the defaults. Left out in older logs. */
    readonly rules?: RuleSettings;
  };
  'scene.recorded': SceneRecord;
  'stop.raised': { readonly stop: StopCondition };
  'stop.withdrawn': { readonly stop: StopCondition; readonly reason: string };
  'symptom.recorded': { readonly symptom: Symptom };
  /** The machine is another entry of the atlas than the call said: found in it, or newly made. */
  'model.identified': { readonly modelId: string };
  'donor.parked': ParkedRecord;
  /** The finding of a check, where no other event records it: an outcome of its own, or a figure. */
  'finding.recorded': {
    readonly check: CheckId;
    readonly found: Found;
    /** Left out: a tap. */
    readonly source?: ReadingSource;
    /** The figures behind it: the specific gravity of each cell, tested amps. */
    readonly figures?: readonly number[];
    /** The battery of a string that it was read at by itself. */
    readonly battery?: number;
  };
  /** A look or an answer was wrong and counts no longer; what was measured stays in the log. */
  'finding.withdrawn': { readonly check: CheckId };
  /** Mended on the spot: what showed it counts as it was before, and is read again. */
  'repair.made': Repair;
  'polarity.proved': { readonly signs: readonly PolaritySign[] };
  'reading.taken': {
    readonly kind: ReadingKind;
    readonly volts: number;
    /** Index of the battery for a rest reading; 0 otherwise. */
    readonly battery: number;
    readonly tempC: number;
    readonly source: ReadingSource;
    /** Strength of the battery as worked out from the whole of a trace: share of the rating, with its band. */
    readonly strength?: { readonly share: number; readonly low: number; readonly high: number };
  };
  /** A reading was wrong, and counts no longer. */
  'reading.withdrawn': { readonly readingId: string };
  'plan.chosen': PlanRecord;
  'step.confirmed': { readonly step: Confirmation };
  'clamp.attached': { readonly clamp: ClampId; readonly pointId: string; readonly onto?: WrongMetal };
  'clamp.detached': { readonly clamp: ClampId };
  'donor.switched': { readonly running: boolean };
  'pack.switched': { readonly on: boolean };
  'plug.moved': { readonly in: boolean };
  /** How something stands beside the clamps, as it was found or changed. */
  'circumstance.noted': { readonly what: Circumstance; readonly on: boolean };
  'attempt.started': Record<string, never>;
  'attempt.ended': {
    readonly outcome: AttemptOutcome;
    readonly seconds: number;
    readonly lowestVolts: number | null;
    /** Rest that starter and leads need after it, as computed then. Left out in older logs. */
    readonly restSeconds?: number;
    readonly restFor?: RestReason;
  };
  /** A try to open a machine that does not open: the place, and whether it opened. */
  'latch.tried': { readonly place: LatchPlace; readonly opened: boolean };
  /** Another van was asked to bring what it carries; it said how long it takes. */
  'van.called': { readonly vanId: string; readonly minutes: number };
  /** It is here: what it carries is at hand from now on. */
  'van.arrived': { readonly vanId: string };
  /** It was rolled: whether it then ran. */
  'roll.tried': { readonly started: boolean };
  /** Lifted over a charger's sense voltage, told when it was over: older logs have no steps of it. */
  'battery.lifted': { readonly battery: number };
  /** A step of lifting a battery over a charger's sense voltage by a healthy one beside it, through a lamp. */
  'lift.confirmed': { readonly battery: number; readonly step: LiftStep };
  /** A look at the lift that is under way. */
  'lift.read': LiftReading;
  /** A reading of the charge that is under way. */
  'charge.read': ChargeReading;
  /** Volts at both ends of the leads that are joined, and the amps between: what the set resists. */
  'leads.measured': {
    readonly sourceVolts: number;
    readonly casualtyVolts: number;
    readonly amps: number;
  };
  'reset.ticked': { readonly reset: string };
  'override.given': {
    readonly rule: OverrideRule;
    readonly reason: string;
    /** The severe hazard that is accepted, where no rule of the house is overridden. */
    readonly hazard?: HazardCode;
  };
  /** A line in the reporter's words, of anything. */
  'note.added': { readonly text: string };
  /** A picture was taken. The picture itself is kept beside the log, under this id. */
  'photo.added': {
    readonly photoId: string;
    /** A few words on it; may be empty. */
    readonly caption: string;
    /** A person or a plate can be seen: it is forgotten with the people of the job. */
    readonly showsPerson: boolean;
  };
  /** The reporter answers for an apprentice in this job, or does so no longer. */
  'job.supervised': { readonly on: boolean };
  'verdict.given': VerdictRecord;
  /** House rules that were changed while the job was under way are taken on. */
  'rules.adopted': { readonly rules: RuleSettings };
  /** Another battery sits there than the record says: it was there when the crew came. */
  'battery.found': {
    readonly battery: number;
    readonly rating: BatteryRating;
    /** As stamped on it. */
    readonly dateMark?: string;
  };
  /** A step of changing a battery is done. */
  'fitting.confirmed': { readonly battery: number; readonly step: FittingStep };
  /** Another battery sits there now; its record begins. */
  'battery.replaced': {
    readonly battery: number;
    readonly rating: BatteryRating;
    /** The battery that was fitted, where it is one of the record: a spare of the van, or another vehicle's. */
    readonly batteryId?: string;
    /** As stamped on it. */
    readonly dateMark?: string;
  };
  'job.closed': { readonly note: string };
  /** A promise of a verdict was kept; with the recheck all that a closed job still takes. */
  'follow-up.done': { readonly kind: FollowUp['kind'] };
  /** The recheck that a verdict promised, taken on a closed job: what was read, and the verdict over all of it. */
  'recheck.taken': Recheck & { readonly verdict: VerdictRecord };
  'event.undone': { readonly eventId: string };
}

export type EventType = keyof EventData;

/** An event before it has an id and a moment: its kind and what it carries. */
export type EventEntry = { [T in EventType]: [type: T, data: EventData[T]] }[EventType];

/** One entry of a job's log, of one kind. */
export interface Envelope<T extends EventType> {
  /** Made by whoever reports the event, so that a resend is harmless. */
  readonly id: string;
  readonly jobId: string;
  /** ISO 8601, by the reporter's clock. */
  readonly at: string;
  /** ISO 8601, by the server's clock: when it heard of it, less what it waited on the device. Left out until then. */
  readonly heardAt?: string;
  /** Crew member. */
  readonly by: string;
  /** The holder of the device when it was sent, where it had been handed over by then. By the server. */
  readonly sentBy?: string;
  readonly type: T;
  readonly data: EventData[T];
}

/** One entry of a job's log. */
export type JobEvent = { [T in EventType]: Envelope<T> }[EventType];

/**
 * When an event happened, ISO 8601: by the server's clock once it has received it. A device clock may be set ahead or back and must not
 * shorten a rest.
 *
 * @example timeOf({ at: '2027-01-15T02:00:00.000Z' }) // => '2027-01-15T02:00:00.000Z'
 */
export function timeOf({ at, heardAt }: Pick<JobEvent, 'at' | 'heardAt'>): string {
  return heardAt ?? at;
}
