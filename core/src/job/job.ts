import type { AttemptOutcome } from '../crank/index.js';
import type { LeadReading } from '../leads/index.js';
import type {
  CheckId,
  Found,
  PolaritySign,
  ReadingKind,
  Repair,
  StopCondition,
  Symptom,
} from '../diagnosis/index.js';
import type { FittingStep, HazardCode, HookupState } from '../hookup/index.js';
import type { HouseRules } from '../rules/index.js';
import type { FollowUp, VerdictRecord } from '../verdict/index.js';
import type { BatteryRating } from '../battery/index.js';
import type { ChargeReading, LiftReading, LiftStep } from '../charging/index.js';
import type {
  EventData,
  OverrideRule,
  ParkedRecord,
  PlanRecord,
  ReadingSource,
  RestReason,
  SceneRecord,
} from './events/event.js';

/**
 * The clamps and engines when a figure was taken. With help joined the posts show the helper, so such a figure says nothing of the
 * battery alone.
 */
export interface Circumstances {
  /** The place of each clamp; null = free. */
  readonly clamps: HookupState['clamps'];
  readonly donorRunning: boolean;
  readonly packOn: boolean;
  readonly pluggedIn: boolean;
  /** The casualty's engine ran, or its converter had taken over. */
  readonly casualtyRunning: boolean;
  readonly cranking: boolean;
}

export interface Reading {
  readonly eventId: string;
  readonly at: string;
  readonly kind: ReadingKind;
  readonly volts: number;
  readonly battery: number;
  readonly tempC: number;
  readonly source: ReadingSource;
  /** From the whole of a trace; null otherwise. */
  readonly strength: { readonly share: number; readonly low: number; readonly high: number } | null;
  readonly during: Circumstances;
}

/** A figure of a check that is no reading of volts at rest, cranking or charging: a drop, a share, amps. */
export interface Figure {
  readonly eventId: string;
  readonly at: string;
  readonly check: CheckId;
  readonly found: Found;
  readonly source: ReadingSource;
  readonly figures: readonly number[];
  /** The battery of a string that it was read at; null: the machine, or its only one. */
  readonly battery: number | null;
  readonly during: Circumstances;
}

export interface Attempt {
  readonly startedAt: string;
  /** Of the air at that moment. Left out in older snapshots. */
  readonly tempC?: number;
  readonly endedAt: string | null;
  readonly outcome: AttemptOutcome | null;
  readonly seconds: number | null;
  readonly lowestVolts: number | null;
  /** Rest it asks for beyond the house rule, seconds. */
  readonly restSeconds: number;
  readonly restFor: RestReason;
  /** Clamps were on: the try had help. */
  readonly helped: boolean;
  /** Kit that helped, and the amps that the plan promised of the starter; null for a try by itself. */
  readonly sourceId: string | null;
  readonly starterAmps: number | null;
  /** The option that was joined; null for a try by itself. */
  readonly optionId: string | null;
  /** The kind of that kit, and the share of starts that the plan expected. Left out of a try by itself. */
  readonly helper?: Pick<PlanRecord, 'sourceKind' | 'odds'>;
  /** It was rolled: the starter took no part. Left out of any other try. */
  readonly rolled?: true;
  /** Minutes that the source had charged the battery before it. */
  readonly waitedMinutes: number;
}

/** A battery that is being lifted over a charger's sense voltage. */
export interface Lifting {
  readonly battery: number;
  readonly steps: readonly LiftStep[];
  /** Since when the lamp is joined; null before. */
  readonly joinedAt: string | null;
  /** Rest volts of the battery before; null where they were not read. */
  readonly fromVolts: number | null;
  readonly readings: readonly (LiftReading & { readonly at: string })[];
}

/** A line in somebody's words. */
export interface Note {
  readonly text: string;
  readonly by: string;
  readonly at: string;
}

/** A repair of this job, with what stood found before it. */
export interface RepairMade extends Repair {
  readonly at: string;
  readonly found: Readonly<Partial<Record<CheckId, Found>>>;
}

/** Another van that was asked to bring what it carries. */
export interface VanAsked {
  readonly vanId: string;
  /** When it was asked, and how long it said it takes; null where it came unasked. */
  readonly calledAt: string | null;
  readonly minutes: number | null;
  /** Null while it is on its way. */
  readonly arrivedAt: string | null;
}

/** A picture of a job: its words, with the time and the name. */
export type JobPhoto = EventData['photo.added'] & { readonly by: string; readonly at: string };

/** A job as its log tells it. Plain data: it is kept as a snapshot and sent as it is. */
export interface Job {
  readonly id: string;
  readonly openedAt: string;
  readonly openedBy: string;
  readonly call: EventData['job.opened'];
  /** When the first thing at the machine was told. Left out until then. */
  readonly arrivedAt?: string;
  readonly scene: SceneRecord | null;
  readonly stops: readonly StopCondition[];
  readonly symptoms: readonly Symptom[];
  /** The latest finding of each check that was recorded by itself. */
  readonly findings: Readonly<Partial<Record<CheckId, Found>>>;
  /** Findings that were measured, oldest first. */
  readonly figures: readonly Figure[];
  /** Repairs on the spot, in order. */
  readonly repairs: readonly RepairMade[];
  /** Entry of the atlas: the call's, until the machine was identified as another. */
  readonly modelId: string;
  /** Batteries that sit there instead of those of the record, one a place. Left out where nobody found one. */
  readonly found?: readonly EventData['battery.found'][];
  readonly parked: ParkedRecord | null;
  readonly polaritySigns: readonly PolaritySign[];
  readonly readings: readonly Reading[];
  readonly plan: PlanRecord | null;
  readonly hookup: HookupState;
  /** When hands last did something to the hook-up: waits count from here. */
  readonly lastActAt: string | null;
  /** Since when the source charges the battery; null while it does not, or nobody said so. */
  readonly chargesSince: string | null;
  /** The last charge that a source gave and that is over; null before one. */
  readonly charged: {
    readonly optionId: string;
    readonly minutes: number;
    readonly at: string;
    /** It charged and was off before any crank. Left out in older snapshots. */
    readonly chargeOnly?: boolean;
  } | null;
  /** When somebody said that ice had thawed; left out where nobody did. */
  readonly thawedAt?: string;
  /** Since when every clamp in hand is on and the machine does not run yet; null while it is not so. */
  readonly joinedSince: string | null;
  /** How long each option was joined so, and is no longer, oldest first. */
  readonly joins: readonly { readonly optionId: string; readonly minutes: number }[];
  /** Batteries that were lifted over a charger's sense voltage, and when: their rest volts have moved since. */
  readonly lifts: readonly {
    readonly battery: number;
    readonly at: string;
    /** Its steps and looks. Left out where it was told when it was over. */
    readonly lift?: Lifting;
  }[];
  /** The lift that is begun and not over. Left out where none is. */
  readonly lifting?: Lifting;
  /** Readings of charges under way, oldest first. */
  readonly chargeReadings: readonly (ChargeReading & { readonly at: string })[];
  /** Readings of lead sets while they were joined. */
  readonly leadReadings: readonly (LeadReading & { readonly at: string; readonly leadSetId: string })[];
  /** Tries to open a machine that does not open, in order. Left out where it opened. */
  readonly latches?: readonly (EventData['latch.tried'] & { readonly at: string })[];
  /** Other vans that were asked to come, and since when they are here. Left out where none was. */
  readonly vans?: readonly VanAsked[];
  /** All clamps in hand have been on at least once: there is something to clear down. */
  readonly everConnected: boolean;
  readonly attempts: readonly Attempt[];
  /** Tries since the technician last went back to the checks. */
  readonly triesSinceChecks: number;
  readonly resets: readonly string[];
  readonly overrides: readonly {
    readonly rule: OverrideRule;
    readonly reason: string;
    readonly hazard?: HazardCode;
    readonly at: string;
  }[];
  /** Lines in somebody's words, in order. Left out where there is none. */
  readonly notes?: readonly Note[];
  /** Pictures, in order. Left out where there is none. */
  readonly photos?: readonly JobPhoto[];
  /** Severe hazards that somebody gave a reason to go on under, since the plan was chosen. Left out where nobody did. */
  readonly accepted?: readonly HazardCode[];
  /** The person who answers for an apprentice in it; null: nobody does any longer. Left out where nobody ever did. */
  readonly supervisedBy?: string | null;
  readonly verdict: VerdictRecord | null;
  /** Steps done of changing a battery, in order. */
  readonly fitting: readonly { readonly battery: number; readonly step: FittingStep }[];
  /** Batteries that were changed, on the spot or later as promised; battery null: all of them. */
  readonly replaced: readonly {
    readonly battery: number | null;
    readonly rating: BatteryRating | null;
    /** The battery of the record that went in; left out for one that is new to it. */
    readonly batteryId?: string;
    readonly at: string;
  }[];
  /** Follow-ups that have been done. */
  readonly followedUp: readonly FollowUp['kind'][];
  /** The last recheck of the closed job, with the verdict that stands since. */
  readonly recheck: (EventData['recheck.taken'] & { readonly at: string }) | null;
  readonly closedAt: string | null;
  /** House rules that the job is worked by: those it was opened with, or has taken on since. Null in older logs. */
  readonly rules: HouseRules | null;
  /** Events in the log, undone ones included. */
  readonly revision: number;
  /** When the newest event of the log happened, undone or not. */
  readonly lastAt: string;
}
