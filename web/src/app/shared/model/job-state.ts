import type { Confidence, JobDetail } from '@voltrek/contracts';
import type { JobEvent } from '@voltrek/core/job';
import type { Machine } from '@voltrek/core/machine';
import { acrossPages } from './across-pages';
import { createActionGroup, createFeature, createReducer, emptyProps, on, props } from '@ngrx/store';

/** An event the server has taken, with its place in the log. */
export interface LoggedEvent {
  readonly event: JobEvent;
  readonly revision: number;
}

/** An event the server would not take, kept in sight until it is dismissed. */
export interface RefusedEvent {
  readonly event: JobEvent;
  readonly why: string;
}

export interface JobState {
  readonly jobId: string | null;
  readonly detail: Omit<JobDetail, 'events'> | null;
  readonly logged: readonly LoggedEvent[];
  /** Reported here, not yet acknowledged; oldest first. */
  readonly pending: readonly JobEvent[];
  /** How far the server's clock is ahead of this device's, ms: what decides safety is timed by the server's. */
  readonly clockAheadMs: number;
  readonly problem: string | null;
  /** The last event that another device told while this page watched; null before one. */
  readonly elsewhere: JobEvent | null;
}

export const JobActions = createActionGroup({
  source: 'Job',
  events: {
    Opened: props<{ jobId: string }>(),
    Left: emptyProps(),
    Loaded: props<{ jobId: string; detail: JobDetail; waiting: readonly JobEvent[] }>(),
    /** As this device last knew it, before the server has said anything. */
    Restored: props<{
      jobId: string;
      detail: Omit<JobDetail, 'events'>;
      logged: readonly LoggedEvent[];
      waiting: readonly JobEvent[];
    }>(),
    Failed: props<{ problem: string }>(),
    /** Something happened, reported on this screen. */
    Reported: props<{ event: JobEvent }>(),
    Acknowledged: props<{ event: JobEvent; revision: number; at: string }>(),
    Refused: props<{ event: JobEvent; why: string }>(),
    'Refusal Read': props<{ eventId: string }>(),
    /** An event was taken out unsent: dropped by hand, or nothing that the log keeps any more. */
    'Left Unsent': props<{ event: JobEvent }>(),
    /** The server sent an event, from this screen or another. */
    Received: props<{ event: JobEvent; revision: number }>(),
    /**
     * How far the server's clock is ahead of this device's, at least and at most, ms: it said its time between a question and an answer.
     */
    'Clock Told': props<{ leastMs: number; mostMs: number }>(),
    'Connection Changed': props<{ connected: boolean }>(),
    /** The job goes on with another machine, which is known here. */
    'Machine Known': props<{ jobId: string; machine: Machine; confidence: Confidence }>(),
    /** The stream came back: what was missed must be fetched. */
    'Caught Up Wanted': props<{ jobId: string }>(),
  },
});

const initial: JobState = {
  jobId: null,
  detail: null,
  logged: [],
  pending: [],
  clockAheadMs: 0,
  problem: null,
  elsewhere: null,
};

const reducer = createReducer(
  initial,
  on(
    JobActions.opened,
    (state, { jobId }): JobState =>
      state.jobId === jobId ? state : { ...initial, jobId, clockAheadMs: state.clockAheadMs },
  ),
  on(JobActions.left, (state): JobState => ({ ...initial, clockAheadMs: state.clockAheadMs })),
  on(JobActions.loaded, (state, { jobId, detail, waiting }): JobState => {
    if (state.jobId !== jobId) return state;
    const { events, ...rest } = detail;
    const fetched = loggedFrom(events);
    // An event that arrived while it was on its way is newer than the answer.
    const newer = state.logged.filter((l) => l.revision > fetched.length);
    return { ...withHeld(state, [...fetched, ...newer], waiting), detail: rest, problem: null };
  }),
  on(JobActions.restored, (state, { jobId, detail, logged, waiting }): JobState => {
    if (state.jobId !== jobId || state.detail !== null) return state;
    return { ...withHeld(state, logged, waiting), detail };
  }),
  on(
    JobActions.machineKnown,
    (state, { jobId, machine, confidence }): JobState =>
      state.jobId === jobId && state.detail
        ? { ...state, detail: { ...state.detail, machine, confidence } }
        : state,
  ),
  on(JobActions.failed, (state, { problem }): JobState => ({ ...state, problem })),
  on(
    JobActions.reported,
    (state, { event }): JobState =>
      // A job that opens here is not on screen yet; what is reported of another is not of this one.
      state.jobId !== event.jobId || state.pending.some((e) => e.id === event.id)
        ? state
        : { ...withBatteriesInDoubt(state, event), pending: [...state.pending, event] },
  ),
  on(
    JobActions.acknowledged,
    (state, { event, revision }): JobState => withLogged(state, { event, revision }),
  ),
  // The known revision moves only as far as the answer proves: one that was long on its way says little.
  on(JobActions.clockTold, (state, { leastMs, mostMs }): JobState => {
    const clockAheadMs = Math.min(mostMs, Math.max(leastMs, state.clockAheadMs));
    return clockAheadMs === state.clockAheadMs ? state : { ...state, clockAheadMs };
  }),
  on(JobActions.received, (state, { event, revision }): JobState => {
    const isOurs = [...state.pending, ...state.logged.map((l) => l.event)].some(({ id }) => id === event.id);
    const known = withLogged(withBatteriesInDoubt(state, event), { event, revision });
    return isOurs || state.jobId !== event.jobId ? known : { ...known, elsewhere: event };
  }),
  on(
    JobActions.refused,
    JobActions.leftUnsent,
    (state, { event }): JobState => ({
      ...state,
      pending: state.pending.filter((e) => e.id !== event.id),
    }),
  ),
);

/** The job on screen. */
export const jobFeature = createFeature({ name: 'job', reducer: acrossPages<JobState>(reducer) });

/** The batteries of the vehicle are unknown between a change of battery, or its undoing, and the server's answer. */
function withBatteriesInDoubt(state: JobState, event: JobEvent): JobState {
  const changed =
    event.type === 'event.undone'
      ? state.logged.find((l) => l.event.id === event.data.eventId)?.event.type
      : event.type;
  return state.detail &&
    state.jobId === event.jobId &&
    (changed === 'battery.replaced' || changed === 'battery.found')
    ? { ...state, detail: { ...state.detail, batteries: [] } }
    : state;
}

/** The log as it is known now, and what of it is still to be taken: no tap is lost by what was fetched, received or held. */
function withHeld(state: JobState, logged: readonly LoggedEvent[], waiting: readonly JobEvent[]): JobState {
  const known = new Set(logged.map((l) => l.event.id));
  const held = [...waiting, ...state.pending.filter((p) => !waiting.some((w) => w.id === p.id))];
  return { ...state, logged, pending: held.filter((e) => !known.has(e.id)) };
}

/** A whole log as the server sends it, each event with its place. */
export const loggedFrom = (events: readonly JobEvent[]): LoggedEvent[] =>
  events.map((event, i) => ({ event, revision: i + 1 }));

/** Something between two events that are known here is not. */
export const hasGap = (logged: readonly LoggedEvent[]): boolean =>
  logged.some((entry, i) => entry.revision !== i + 1);

/** The server's order is the order: an event received early takes its own place. */
function withLogged(state: JobState, entry: LoggedEvent): JobState {
  if (state.jobId !== entry.event.jobId) return state;
  const pending = state.pending.filter((e) => e.id !== entry.event.id);
  if (state.logged.some((l) => l.event.id === entry.event.id)) return { ...state, pending };
  const logged = [...state.logged, entry].sort((a, b) => a.revision - b.revision);
  return { ...state, pending, logged };
}
