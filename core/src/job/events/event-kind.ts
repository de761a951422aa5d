import type { Machine } from '../../machine/index.js';
import type { HouseRules } from '../../rules/index.js';
import type { KitItem } from '../../sources/index.js';
import type { Job } from '../job.js';
import type { Envelope, EventType, JobEvent } from './event.js';

/** Why a job's state does not allow an event. The screens and the server have words for each. */
export const REFUSALS = [
  'not-open',
  'already-open',
  'job-closed',
  'stop-active',
  'polarity-unproved',
  'no-plan',
  'plan-in-use',
  'clamp-already-on',
  'clamp-already-off',
  'clamps-unfinished',
  'pack-still-on',
  'pack-already-so',
  'still-plugged-in',
  'plug-already-so',
  'circumstance-already-so',
  'charger-on',
  'donor-already-so',
  'clamps-still-on',
  'attempt-running',
  'no-attempt-running',
  'cannot-roll',
  'tries-spent',
  'rest-first',
  'already-running',
  'stop-not-raised',
  'value-out-of-range',
  'reason-missing',
  'no-verdict',
  'cannot-undo',
  'machine-in-use',
  'vehicles-touch',
  'not-promised',
  'already-followed-up',
  'no-such-reading',
  'no-such-finding',
  'already-fitted',
  'no-such-battery',
  'no-such-point',
  'not-in-hand',
  'not-in-kit',
  'nothing-on-charge',
  'lift-under-way',
  'lift-out-of-order',
  'nothing-lifted',
  'leads-not-joined',
  'latch-not-to-try',
  'van-already-called',
  'van-already-here',
] as const;
export type Refusal = (typeof REFUSALS)[number];

/** Everything beside the log that decides what may be appended to it. */
export interface Surroundings {
  /** The model that the job's vehicle is. */
  readonly machine: Machine;
  /** The donor's model; null when no vehicle lends. */
  readonly donor: Machine | null;
  /** The kit of the van. */
  readonly kit: readonly KitItem[];
  /** The rules of the house now; a job is worked by its own. */
  readonly rules: HouseRules;
  /** The event that an undo may name; looked at for an undo alone. */
  readonly undoable: () => JobEvent | null;
}

/** The surroundings of every event but an undo; a definition gets the rules of the job itself. */
export type Around = Omit<Surroundings, 'undoable'>;

/** All that is true of a kind of event: when it is refused, and the job after it. */
export interface EventKind<T extends EventType> {
  /** Returns why the state of an open job does not allow it; null where it may be logged. */
  readonly refuse: (job: Job, event: Envelope<T>, around: Around) => Refusal | null;
  readonly apply: (job: Job, event: Envelope<T>) => Job;
  /** No undo takes it back. */
  readonly isFinal?: true;
  /** Judged on a closed job too; by itself. */
  readonly whenClosed?: true;
}
export type EventKinds<T extends EventType> = { readonly [K in T]: EventKind<K> };

/** Of what a job always takes. */
export const always = (): null => null;

/** The battery is one of the machine's. */
export const hasBattery = (machine: Machine, battery: number): boolean => battery < machine.batteries.length;
