import type { EarlierBelief } from '@voltrek/core/belief';
import type { BatteryRating } from '@voltrek/core/battery';
import type { Suspect } from '@voltrek/core/diagnosis';
import type { JobEvent, KitCare, Refusal, Stage, VanComing } from '@voltrek/core/job';
import type { Machine } from '@voltrek/core/machine';
import type { HouseRules } from '@voltrek/core/rules';
import type { KitItem } from '@voltrek/core/sources';
import type { FollowUp, VerdictKind } from '@voltrek/core/verdict';

import type { Confidence, MachineSummary } from './atlas.js';
import type { Fault } from './fault.js';
import type {
  Battery,
  CallState,
  Person,
  PersonEntry,
  Vehicle,
  VehicleNumbers,
  VehicleSummary,
} from './record.js';

export const CREW_ROLES = ['crew-lead', 'technician', 'apprentice', 'desk', 'viewer'] as const;

/** Somebody of the crew. */
export interface CrewMember {
  readonly id: string;
  readonly name: string;
  readonly role: (typeof CREW_ROLES)[number];
  readonly retired: boolean;
}

/** The care that a piece of kit still needs after a call. */
export interface KitMark extends KitCare {
  readonly id: string;
  readonly jobId: string;
  readonly at: string;
}

/** A van and what it carries. */
export interface Van {
  readonly id: string;
  readonly name: string;
  readonly retired: boolean;
  /** Its kit of now; retired pieces are left out. */
  readonly kit: readonly KitItem[];
  /** Open marks, oldest first. */
  readonly marks: readonly KitMark[];
}

/** A request for help as it came in. */
export interface Call {
  readonly id: string;
  readonly number: number;
  readonly receivedAt: string;
  readonly title: string;
  readonly placeName: string;
  /** The driver's words. */
  readonly said: string;
  readonly modelId: string;
  readonly vehicleId: string;
  readonly callerId: string | null;
  readonly ambientC: number;
  readonly urgent: boolean;
  readonly state: CallState;
  readonly vanId: string | null;
  readonly technicianId: string | null;
  /** When the caller heard that the technician is there, ISO 8601. */
  readonly promisedAt: string | null;
}

/**
 * A call as it is reported; the server gives it its number and time. Its vehicle is named by id or by plate; a plate that nobody knows, or
 * none at all, makes a vehicle of the model that is named.
 */
export interface NewCall extends Pick<Call, 'id' | 'title' | 'placeName' | 'said' | 'ambientC' | 'urgent'> {
  /** Not needed where the vehicle is known. */
  readonly modelId?: string;
  readonly vehicleId?: string;
  readonly plate?: string;
  /** Under which a vehicle is made, where one is: a device with no network has named it already. */
  readonly newVehicleId?: string;
  readonly caller?: PersonEntry;
  readonly vanId?: string;
  readonly technicianId?: string;
  readonly promisedAt?: string;
}

/** A call on the board, with whose vehicle it is, who called, and the state of its job. */
export interface BoardCall extends Call {
  readonly vehicle: VehicleNumbers;
  readonly caller: Person | null;
  readonly job: JobSummary | null;
}

/** True of a call that nobody works on any more: its job is closed, or it was called off. */
export const hasEnded = ({ state }: Pick<Call, 'state'>): boolean =>
  state === 'done' || state === 'called-off';

/** A job as the board and the log list it. */
export interface JobSummary {
  readonly id: string;
  readonly callId: string;
  readonly callNumber: number;
  readonly title: string;
  readonly placeName: string;
  readonly modelId: string;
  readonly vehicleId: string;
  readonly vanId: string;
  readonly stage: Stage;
  readonly state: 'open' | 'closed';
  readonly verdict: VerdictKind | null;
  readonly suspect: Suspect | null;
  readonly lowestRestVolts: number | null;
  /** When what is on a charger now is due; null while nothing is. */
  readonly chargeUntil: string | null;
  /** Other vans that were asked to come and are on their way. */
  readonly vansComing: readonly VanComing[];
  readonly openedAt: string;
  readonly closedAt: string | null;
  readonly by: string;
  readonly revision: number;
}

/** A vehicle with what a job on it must know. */
export interface PackedVehicle {
  readonly vehicle: VehicleSummary;
  /** From the chassis end. */
  readonly batteries: readonly Battery[];
  /** When its flat calls within the repeat window were opened, ISO 8601. */
  readonly flatCalls: readonly string[];
}

/** A device's copy of the house, to open a call and its job with no network. */
export interface DevicePack {
  readonly models: readonly { readonly machine: Machine; readonly confidence: Confidence }[];
  readonly vehicles: readonly PackedVehicle[];
}

/** A house rule as it is set. */
export interface RuleSetting {
  readonly key: string;
  readonly value: string | number;
  /** Crew member. */
  readonly by: string;
}

/** The house rules as they stand, and every time one was set, newest first. */
export interface RulesPage {
  readonly rules: HouseRules;
  readonly settings: readonly (RuleSetting & { readonly at: string })[];
}

/** A job as it would begin for a call that nobody has begun, before anybody looked at the machine. */
export type CallOutset = Pick<JobDetail, 'call' | 'machine' | 'rules' | 'earlierFlatCalls' | 'earlier'> & {
  /** The batteries that sit in the vehicle, where they differ from the model's. */
  readonly fitted: readonly BatteryRating[] | null;
};

/** A job with all that its screens need. */
export interface JobDetail {
  readonly call: Call;
  readonly events: readonly JobEvent[];
  readonly machine: Machine;
  /** How far the machine's entry can be trusted. */
  readonly confidence: Confidence;
  readonly kit: readonly KitItem[];
  /** The donor's own atlas entry. */
  readonly donorMachine: Machine | null;
  /** House rules as they stand. */
  readonly rules: HouseRules;
  readonly vehicle: Vehicle;
  /** Batteries in the vehicle now, from the chassis end. */
  readonly batteries: readonly Battery[];
  /** Earlier flat calls of this vehicle within the repeat window. */
  readonly earlierFlatCalls: number;
  /** The belief that earlier jobs of this vehicle left: parts at fault, strength of its batteries; null where there was none. */
  readonly earlier: EarlierBelief | null;
}

/** As many jobs are asked for together at most: the server answers others in between. */
export const JOBS_WANTED_MOST = 20;

/** Everything that is known of a vehicle. */
export interface VehicleRecord {
  readonly vehicle: VehicleSummary;
  readonly model: MachineSummary;
  readonly owner: Person | null;
  /** Its jobs, newest first. */
  readonly visits: readonly JobSummary[];
  /** Batteries that are in it now, from the chassis end. */
  readonly batteries: readonly Battery[];
  readonly followUps: readonly {
    readonly jobId: string;
    readonly kind: FollowUp['kind'];
    readonly dueOn: string;
  }[];
}

/** One page of the log. */
export interface LogPage {
  readonly jobs: readonly JobSummary[];
  /** The beginning of the next page; null on the last. */
  readonly next: string | null;
}

/** Something to do by a date, as a verdict promised it. */
export interface DueFollowUp {
  readonly jobId: string;
  readonly vehicleId: string;
  readonly callNumber: number;
  readonly title: string;
  readonly placeName: string;
  readonly kind: FollowUp['kind'];
  /** The day it is due, ISO 8601, by the clock of whoever closed the job. */
  readonly dueOn: string;
}

/** RFC 9457. */
export interface Problem {
  readonly type: string;
  readonly title: string;
  readonly status: number;
  readonly detail?: string;
  /** Names the problem for programs: it stays when the words of `detail` change. */
  readonly code: string;
  /** Parameters of the words, in their order. */
  readonly params?: readonly unknown[];
  /** Names the request in the log of the server. */
  readonly requestId?: string;
  /** Present when a job's state refused an event. */
  readonly refusal?: Refusal;
  /** Present when fields are at fault. */
  readonly fields?: readonly Fault[];
}

/** Returns the type of the problem of a code. `problemType('signIn')` is `urn:voltrek:problem:sign-in`. */
export const problemType = (code: string): string =>
  `urn:voltrek:problem:${code.replace(/[A-Z]/g, (letter) => `-${letter.toLowerCase()}`)}`;

/** The media type of a problem document. */
export const PROBLEM_TYPE = 'application/problem+json';

/**
 * A message for a device, as it happens: an event that the server took, that the board or an entry of the atlas (null: many) is another, or that
 * the line still stands.
 */
export type StreamMessage =
  | { readonly kind: 'logged'; readonly event: JobEvent; readonly revision: number }
  | { readonly kind: 'entry'; readonly modelId: string | null }
  | { readonly kind: 'board' | 'beat' };
