import type { JobEvent } from '@voltrek/core/job';
import { createActionGroup, createFeature, createReducer, createSelector, on, props } from '@ngrx/store';
import { acrossPages } from '../model/across-pages';
import { JobActions, type RefusedEvent } from '../model/job-state';
import type { ParkedEvent } from './device-store';
import type { Errand } from '../model/errand';

/** The data of this device, over all its jobs, that the server has not taken, or would not. */
export interface DeviceState {
  /** Reported here or found waiting, oldest first. */
  readonly waiting: readonly JobEvent[];
  readonly parked: readonly ParkedEvent[];
  readonly refused: readonly RefusedEvent[];
  /** Calls, entries and photos that wait beside the events, oldest first. */
  readonly errands: readonly Errand[];
  readonly savedAt: string | null;
  readonly connected: boolean;
  /** True once the taps of an earlier page were looked for: before that nobody knows whether something waits. */
  readonly isLookedFor: boolean;
}

export const DeviceActions = createActionGroup({
  source: 'Device',
  events: {
    /** The taps that an earlier page left waiting, parked or unread. */
    Restored: props<{
      waiting: readonly JobEvent[];
      parked: readonly ParkedEvent[];
      refused: readonly RefusedEvent[];
      errands: readonly Errand[];
    }>(),
    /** An event failed too often; its job waits. */
    Parked: props<ParkedEvent>(),
    'Send Again': props<{ event: JobEvent }>(),
    /** Taken out unsent, by hand. */
    Dropped: props<RefusedEvent>(),
    'Errand Kept': props<{ errand: Errand }>(),
    /** The server has it, or it was dropped by hand. */
    'Errand Gone': props<{ id: string }>(),
    /** The server's refusal; null: it is sent again. */
    'Errand Told': props<{ id: string; why: string | null }>(),
  },
});

const initial: DeviceState = {
  waiting: [],
  parked: [],
  refused: [],
  errands: [],
  savedAt: null,
  connected: true,
  isLookedFor: false,
};

const without = (state: DeviceState, id: string): DeviceState => ({
  ...state,
  waiting: state.waiting.filter((e) => e.id !== id),
  parked: state.parked.filter((p) => p.eventId !== id),
});
const withAll = <T>(list: readonly T[], more: readonly T[], idOf: (item: T) => string): readonly T[] => [
  ...list,
  ...more.filter((m) => !list.some((l) => idOf(l) === idOf(m))),
];
const refusedWith = (state: DeviceState, refusal: RefusedEvent): DeviceState => ({
  ...without(state, refusal.event.id),
  refused: withAll(state.refused, [refusal], (r) => r.event.id),
});

const reducer = createReducer(
  initial,
  on(
    DeviceActions.restored,
    (state, { waiting, parked, refused, errands }): DeviceState => ({
      ...state,
      isLookedFor: true,
      waiting: withAll(waiting, state.waiting, (e) => e.id),
      parked: withAll(state.parked, parked, (p) => p.eventId),
      refused: withAll(state.refused, refused, (r) => r.event.id),
      errands: withAll(errands, state.errands, (e) => e.id),
    }),
  ),
  on(
    JobActions.reported,
    (state, { event }): DeviceState => ({
      ...state,
      waiting: withAll(state.waiting, [event], (e) => e.id),
    }),
  ),
  on(
    JobActions.acknowledged,
    (state, { event, at }): DeviceState => ({
      ...without(state, event.id),
      savedAt: at,
      connected: true,
    }),
  ),
  on(JobActions.received, JobActions.leftUnsent, (state, { event }): DeviceState => without(state, event.id)),
  on(
    JobActions.refused,
    (state, { event, why }): DeviceState => ({ ...refusedWith(state, { event, why }), connected: true }),
  ),
  on(DeviceActions.dropped, (state, { event, why }): DeviceState => refusedWith(state, { event, why })),
  on(
    JobActions.refusalRead,
    (state, { eventId }): DeviceState => ({
      ...state,
      refused: state.refused.filter((r) => r.event.id !== eventId),
    }),
  ),
  on(
    DeviceActions.parked,
    (state, parked): DeviceState => ({
      ...state,
      parked: [
        ...state.parked.filter((p) => p.eventId !== parked.eventId),
        { eventId: parked.eventId, why: parked.why },
      ],
    }),
  ),
  on(
    DeviceActions.sendAgain,
    (state, { event }): DeviceState => ({
      ...state,
      parked: state.parked.filter((p) => p.eventId !== event.id),
    }),
  ),
  on(
    DeviceActions.errandKept,
    (state, { errand }): DeviceState => ({
      ...state,
      connected: false,
      errands: withAll(state.errands, [errand], (e) => e.id),
    }),
  ),
  on(
    DeviceActions.errandGone,
    (state, { id }): DeviceState => ({ ...state, errands: state.errands.filter((e) => e.id !== id) }),
  ),
  on(
    DeviceActions.errandTold,
    (state, { id, why }): DeviceState => ({
      ...state,
      errands: state.errands.map((e) => (e.id === id ? { ...e, why } : e)),
    }),
  ),
  on(JobActions.connectionChanged, (state, { connected }): DeviceState => ({ ...state, connected })),
);

export const deviceFeature = createFeature({
  name: 'device',
  reducer: acrossPages<DeviceState>(reducer),
  extraSelectors: ({ selectWaiting, selectParked, selectErrands }) => ({
    /** The waiting data: how many taps and errands, of how many jobs, and since when; null when all is saved. */
    selectBacklog: createSelector(selectWaiting, selectErrands, (waiting, errands) => {
      const since = [...waiting, ...errands].map((e) => e.at).sort()[0];
      return since === undefined
        ? null
        : {
            taps: waiting.length + errands.length,
            jobs: new Set(waiting.map((e) => e.jobId)).size,
            since,
          };
    }),
    /** Each that waits, with why it is parked where it is. */
    selectLines: createSelector(selectWaiting, selectParked, (waiting, parked) =>
      waiting.map((event) => ({ event, why: parked.find((p) => p.eventId === event.id)?.why ?? null })),
    ),
  }),
});
