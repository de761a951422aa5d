import type {
  AttemptOutcome,
  PolaritySign,
  ReadingKind,
  StopCondition,
  Symptom,
} from '../diagnosis/vocabulary.js';
import type { Found, CheckId } from '../diagnosis/checks.js';
import { act, type HookupAction } from '../hookup/actions.js';
import { anyClampOn, type HookupState, NOTHING_CONNECTED } from '../hookup/state.js';
import type { RuleKey } from '../rules/house-rules.js';
import type { FollowUp, VerdictRecord } from '../verdict/conclude.js';
import type { BatteryRating } from '../battery/battery.js';
import type { FittingStep } from '../hookup/fitting.js';
import type {
  EventData,
  EventEntry,
  JobEvent,
  ParkedRecord,
  PlanRecord,
  ReadingSource,
  RestReason,
  SceneRecord,
} from './events.js';

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
}

/** A figure of a check that is no reading of volts at rest, cranking or charging: a drop, a share, amps. */
export interface Figure {
  readonly eventId: string;
  readonly at: string;
  readonly check: CheckId;
  readonly found: Found;
  readonly source: ReadingSource;
  readonly figures: readonly number[];
}

export interface Attempt {
  readonly startedAt: string;
  readonly endedAt: string | null;
  readonly outcome: AttemptOutcome | null;
  readonly seconds: number | null;
  readonly lowestVolts: number | null;
  /** Rest it asks for beyond the house rule, seconds. */
  readonly restSeconds: number;
  readonly restFor: RestReason;
  /** Clamps were on: the try had help. */
  readonly helped: boolean;
}

/** A job as its log tells it. */
export interface Job {
  readonly id: string;
  readonly openedAt: string;
  readonly openedBy: string;
  readonly call: EventData['job.opened'];
  readonly scene: SceneRecord | null;
  readonly stops: readonly StopCondition[];
  readonly symptoms: readonly Symptom[];
  /** The latest finding of each check that was recorded by itself. */
  readonly findings: Readonly<Partial<Record<CheckId, Found>>>;
  /** Findings that were measured, oldest first. */
  readonly figures: readonly Figure[];
  /** Entry of the atlas: the call's, until the machine was identified as another. */
  readonly modelId: string;
  readonly parked: ParkedRecord | null;
  readonly polaritySigns: readonly PolaritySign[];
  readonly readings: readonly Reading[];
  readonly plan: PlanRecord | null;
  readonly hookup: HookupState;
  /** When hands last did something to the hook-up: waits count from here. */
  readonly lastActAt: string | null;
  /** All clamps in hand have been on at least once: there is something to clear down. */
  readonly everConnected: boolean;
  readonly attempts: readonly Attempt[];
  /** Tries since the technician last went back to the checks. */
  readonly triesSinceChecks: number;
  readonly resets: readonly string[];
  readonly overrides: readonly { readonly rule: RuleKey; readonly reason: string; readonly at: string }[];
  readonly verdict: VerdictRecord | null;
  /** Steps done of changing a battery, in order. */
  readonly fitting: readonly { readonly battery: number; readonly step: FittingStep }[];
  /** Batteries that were changed, on the spot or later as promised; battery null: all of them. */
  readonly replaced: readonly {
    readonly battery: number | null;
    readonly rating: BatteryRating | null;
    readonly at: string;
  }[];
  /** Follow-ups that have been done. */
  readonly followedUp: readonly FollowUp['kind'][];
  readonly closedAt: string | null;
  /** Events in the log, undone ones included. */
  readonly revision: number;
}

/**
 * The one reducer of the product: a job from its log. Pure; the web store and the server both use it.
 *
 * @param events one job's events, oldest first, beginning with `job.opened`
 * @returns null for a log that has not been opened
 */
export function foldJob(events: readonly JobEvent[]): Job | null {
  const undone = undoneIds(events);
  let job: Job | null = null;
  for (const event of events) {
    if (undone.has(event.id)) continue;
    if (event.type === 'job.opened') job ??= opened(event);
    else if (job) job = apply(job, event);
  }
  return job && { ...job, revision: events.length };
}

/** Ids of events that a later event took back. */
export function undoneIds(events: readonly JobEvent[]): ReadonlySet<string> {
  const ids = new Set<string>();
  for (const event of events) if (event.type === 'event.undone') ids.add(event.data.eventId);
  return ids;
}

function opened(event: Extract<JobEvent, { type: 'job.opened' }>): Job {
  return {
    id: event.jobId,
    openedAt: event.at,
    openedBy: event.by,
    call: event.data,
    scene: null,
    stops: [],
    symptoms: [],
    findings: {},
    figures: [],
    modelId: event.data.modelId,
    parked: null,
    polaritySigns: [],
    readings: [],
    plan: null,
    hookup: NOTHING_CONNECTED,
    lastActAt: null,
    everConnected: false,
    attempts: [],
    triesSinceChecks: 0,
    resets: [],
    overrides: [],
    verdict: null,
    fitting: [],
    replaced: [],
    followedUp: [],
    closedAt: null,
    revision: 1,
  };
}

function apply(job: Job, event: JobEvent): Job {
  switch (event.type) {
    case 'job.opened':
    case 'event.undone':
      return job;
    case 'scene.recorded':
      return { ...job, scene: event.data };
    case 'stop.raised':
      return { ...job, stops: [...job.stops.filter((s) => s !== event.data.stop), event.data.stop] };
    case 'stop.withdrawn':
      return { ...job, stops: job.stops.filter((s) => s !== event.data.stop) };
    case 'symptom.recorded':
      return { ...job, symptoms: toggled(job.symptoms, event.data.symptom) };
    case 'finding.recorded': {
      const { check, found, source, figures = [] } = event.data;
      const figure = source && { eventId: event.id, at: event.at, check, found, source, figures };
      return {
        ...job,
        findings: { ...job.findings, [check]: found },
        figures: figure ? [...job.figures, figure] : job.figures,
        triesSinceChecks: 0,
      };
    }
    case 'model.identified':
      // Points, polarity, parking and plan were another machine's.
      return { ...job, modelId: event.data.modelId, parked: null, polaritySigns: [], plan: null };
    case 'donor.parked':
      return { ...job, parked: event.data };
    case 'polarity.proved':
      return { ...job, polaritySigns: event.data.signs };
    case 'reading.taken': {
      const { kind, volts, battery, tempC, source, strength = null } = event.data;
      const reading = { eventId: event.id, at: event.at, kind, volts, battery, tempC, source, strength };
      return { ...job, readings: [...job.readings, reading] };
    }
    case 'reading.withdrawn':
      return { ...job, readings: job.readings.filter((r) => r.eventId !== event.data.readingId) };
    case 'plan.chosen':
      return { ...job, plan: event.data };
    case 'step.confirmed':
    case 'clamp.attached':
    case 'clamp.detached':
    case 'donor.switched':
    case 'pack.switched':
    case 'plug.moved': {
      const hookup = act(job.hookup, actionOf(event));
      return {
        ...job,
        hookup,
        lastActAt: event.at,
        everConnected: job.everConnected || event.type === 'clamp.attached',
      };
    }
    case 'attempt.started':
      return {
        ...job,
        triesSinceChecks: job.triesSinceChecks + 1,
        attempts: [
          ...job.attempts,
          {
            startedAt: event.at,
            endedAt: null,
            outcome: null,
            seconds: null,
            lowestVolts: null,
            restSeconds: 0,
            restFor: 'rule',
            helped: anyClampOn(job.hookup),
          },
        ],
      };
    case 'attempt.ended': {
      const { outcome, seconds, lowestVolts, restSeconds = 0, restFor = 'rule' } = event.data;
      return {
        ...job,
        attempts: job.attempts.map((a, i) =>
          i === job.attempts.length - 1
            ? { ...a, endedAt: event.at, outcome, seconds, lowestVolts, restSeconds, restFor }
            : a,
        ),
      };
    }
    case 'reset.ticked':
      return { ...job, resets: toggled(job.resets, event.data.reset) };
    case 'override.given':
      return { ...job, overrides: [...job.overrides, { ...event.data, at: event.at }] };
    case 'verdict.given':
      return { ...job, verdict: event.data };
    case 'fitting.confirmed':
      return { ...job, fitting: [...job.fitting, event.data] };
    case 'battery.replaced':
      return { ...job, replaced: [...job.replaced, { ...event.data, at: event.at }] };
    case 'job.closed':
      return { ...job, closedAt: event.at };
    case 'follow-up.done': {
      const { kind } = event.data;
      const changed = kind === 'replace' ? [{ battery: null, rating: null, at: event.at }] : [];
      return {
        ...job,
        followedUp: [...job.followedUp, kind],
        replaced: [...job.replaced, ...changed],
      };
    }
  }
}

/** The physical act that a hook-up event reports. */
export function actionOf(
  event: Extract<
    JobEvent,
    {
      type:
        | 'step.confirmed'
        | 'clamp.attached'
        | 'clamp.detached'
        | 'donor.switched'
        | 'pack.switched'
        | 'plug.moved';
    }
  >,
): HookupAction {
  switch (event.type) {
    case 'step.confirmed':
      return { kind: 'confirm', what: event.data.step };
    case 'clamp.attached':
      return { kind: 'attach', ...event.data };
    case 'clamp.detached':
      return { kind: 'detach', ...event.data };
    case 'donor.switched':
      return { kind: 'donor-engine', ...event.data };
    case 'pack.switched':
      return { kind: 'pack', ...event.data };
    case 'plug.moved':
      return { kind: 'plug', ...event.data };
  }
}

/** The event that reports a physical act: the way back from `actionOf`. */
export function entryOf(action: HookupAction): EventEntry {
  switch (action.kind) {
    case 'attach':
      return ['clamp.attached', { clamp: action.clamp, pointId: action.pointId }];
    case 'detach':
      return ['clamp.detached', { clamp: action.clamp }];
    case 'donor-engine':
      return ['donor.switched', { running: action.running }];
    case 'pack':
      return ['pack.switched', { on: action.on }];
    case 'plug':
      return ['plug.moved', { in: action.in }];
    case 'confirm':
      return ['step.confirmed', { step: action.what }];
  }
}

function toggled<T>(list: readonly T[], item: T): readonly T[] {
  return list.includes(item) ? list.filter((x) => x !== item) : [...list, item];
}

/** The latest rest reading of each battery, from the chassis side up; null where not read. */
export function restVoltsByBattery(job: Pick<Job, 'readings'>, batteries: number): (number | null)[] {
  return Array.from({ length: batteries }, (_, i) => {
    const of = job.readings.filter((r) => r.kind === 'rest' && r.battery === i);
    return of.length > 0 ? of[of.length - 1]!.volts : null;
  });
}

/** The latest reading of a kind, or null. */
export function latestReading(job: Pick<Job, 'readings'>, kind: ReadingKind): Reading | null {
  return job.readings.filter((r) => r.kind === kind).at(-1) ?? null;
}

/** The try that is running now, or null. */
export function runningAttempt(job: Pick<Job, 'attempts'>): Attempt | null {
  const last = job.attempts.at(-1);
  return last?.endedAt === null ? last : null;
}

/** True once a try ended with the machine running or awake. */
export function hasStarted(job: Pick<Job, 'attempts'>): boolean {
  return job.attempts.at(-1)?.outcome === 'started';
}

/** The temperature a job works with: found on the scene, or else reported with the call. */
export function workingTempC(job: Pick<Job, 'scene' | 'call'>): number {
  return job.scene?.ambientC ?? job.call.ambientC;
}

/** The last event that Undo would take back, or null. */
export function lastUndoable(events: readonly JobEvent[]): JobEvent | null {
  const undone = undoneIds(events);
  const fixed: readonly JobEvent['type'][] = ['job.opened', 'job.closed', 'follow-up.done', 'event.undone'];
  return events.filter((e) => !undone.has(e.id) && !fixed.includes(e.type)).at(-1) ?? null;
}
