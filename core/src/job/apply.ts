import { NOTHING_CONNECTED } from '../hookup/index.js';
import { DEFAULT_RULES, rulesWith } from '../rules/index.js';
import { type EventType, type JobEvent, timeOf } from './events/event.js';
import { eventKind } from './events/index.js';
import type { Job } from './job.js';

/**
 * A job after one more event: the one reducer of the product. Pure; the web store and the server both use it.
 *
 * An undo goes back past the state of a job. So it is the one event that needs the log before it: one fold of what is left.
 *
 * @param job the job so far; null before it is opened
 * @param log the events before this one, oldest first; looked at for an undo alone
 * @returns null while no event has opened the job
 * @example
 * let job: Job | null = null;
 * for (const event of events) job = applyEvent(job, event, () => events.slice(0, events.indexOf(event)));
 */
export function applyEvent(job: Job | null, event: JobEvent, log: () => readonly JobEvent[]): Job | null {
  if (!job) return event.type === 'job.opened' ? opened(event) : null;
  const revision = job.revision + 1;
  if (event.type !== 'event.undone') return { ...apply(job, event), revision, lastAt: timeOf(event) };
  const left = foldJob([...log(), event]);
  return left && { ...left, revision };
}

/**
 * The version of the fold. Raise it with every change after which an old log folds to another job: a snapshot of another version is folded
 * again, at the start of a server or when it is read.
 */
export const FOLD_VERSION = 3;

/**
 * A job from its whole log: `applyEvent` one event after the other, without those that a later one took back.
 *
 * @param events one job's events, oldest first, beginning with `job.opened`
 * @returns null for a log that has not been opened
 */
export function foldJob(events: readonly JobEvent[]): Job | null {
  const undone = undoneIds(events);
  let job: Job | null = null;
  let before = 0;
  for (const event of events) {
    if (!job) {
      if (event.type === 'job.opened') job = opened(event);
      else before++;
    } else if (!undone.has(event.id) && event.type !== 'event.undone') job = apply(job, event);
  }
  return job && { ...job, revision: events.length - before, lastAt: timeOf(events.at(-1)!) };
}

/**
 * The moment after another, ISO 8601: a millisecond, the least that a log tells apart.
 *
 * @example momentAfter('2027-01-15T02:00:00.000Z') // => '2027-01-15T02:00:00.001Z'
 */
export function momentAfter(at: string): string {
  return new Date(Date.parse(at) + 1).toISOString();
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
    openedAt: timeOf(event),
    openedBy: event.by,
    call: event.data,
    scene: null,
    stops: [],
    symptoms: [],
    findings: {},
    figures: [],
    repairs: [],
    modelId: event.data.modelId,
    parked: null,
    polaritySigns: [],
    readings: [],
    plan: null,
    hookup: NOTHING_CONNECTED,
    lastActAt: null,
    chargesSince: null,
    charged: null,
    joinedSince: null,
    joins: [],
    lifts: [],
    chargeReadings: [],
    leadReadings: [],
    everConnected: false,
    attempts: [],
    triesSinceChecks: 0,
    resets: [],
    overrides: [],
    verdict: null,
    fitting: [],
    replaced: [],
    followedUp: [],
    recheck: null,
    closedAt: null,
    rules: event.data.rules ? rulesWith(event.data.rules, DEFAULT_RULES) : null,
    revision: 1,
    lastAt: timeOf(event),
  };
}

/** An event of the frame changes nothing by itself. */
function apply(job: Job, event: JobEvent): Job {
  const after = eventKind(event.type)?.apply(job, event) ?? job;
  return after.arrivedAt === undefined && !FROM_AFAR.has(event.type)
    ? { ...after, arrivedAt: timeOf(event) }
    : after;
}

/** Events that may be told before anybody is at the machine. */
const FROM_AFAR: ReadonlySet<EventType> = new Set([
  'job.supervised',
  'note.added',
  'photo.added',
  'rules.adopted',
  'van.called',
  'job.closed',
]);

/** The last event that Undo would take back, or null. */
export function lastUndoable(events: readonly JobEvent[]): JobEvent | null {
  const undone = undoneIds(events);
  const canUndo = ({ type }: JobEvent): boolean => {
    const kind = eventKind(type);
    return kind !== null && !kind.isFinal;
  };
  return events.filter((e) => !undone.has(e.id) && canUndo(e)).at(-1) ?? null;
}
