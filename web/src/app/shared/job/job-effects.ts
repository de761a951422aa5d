import { inject } from '@angular/core';
import type { JobEvent } from '@voltrek/core/job';
import { Actions, createEffect, ofType } from '@ngrx/effects';
import { type Action, Store } from '@ngrx/store';
import {
  catchError,
  defer,
  EMPTY,
  filter,
  map,
  merge,
  mergeMap,
  Observable,
  of,
  retry,
  switchMap,
  throwError,
  timeout,
  timer,
  withLatestFrom,
} from 'rxjs';
import type { AtlasEntry } from '@voltrek/contracts';
import { Api } from '../data/api';
import { Finder } from '../data/finder';
import { deviceFeature } from '../sync/device-state';
import { DeviceStore } from '../sync/device-store';
import { StreamLine } from '../data/stream-line';
import { isSignInRequired, isTransient, problemText } from '../data/problem';
import { hasGap, JobActions, jobFeature, type JobState } from '../model/job-state';

/** Waits between tries to reach the server: short at first, then steady. */
const RETRY_FIRST_MS = 400;
const RETRY_MOST_MS = 4_000;
/** A fetch that takes longer is begun anew, ms. */
const FETCH_MS = 15_000;

/** Shows the device's copy of the job at once. Nothing but leaving breaks it off: without a network nothing else brings the job. */
export const restoreJob = createEffect(
  (actions = inject(Actions), device = inject(DeviceStore)) =>
    actions.pipe(
      ofType(JobActions.opened, JobActions.left),
      switchMap((action) => (action.type === JobActions.opened.type ? heldJob(action.jobId, device) : EMPTY)),
    ),
  { functional: true },
);

/** Fetches the job from the server, however long that takes. */
export const loadJob = createEffect(
  (actions = inject(Actions), store = inject(Store), api = inject(Api), device = inject(DeviceStore)) =>
    actions.pipe(
      ofType(JobActions.opened, JobActions.caughtUpWanted),
      // Messages of another job must not break off what this one waits for.
      withLatestFrom(store.select(jobFeature.selectJobId)),
      filter(([{ jobId }, onScreen]) => jobId === onScreen),
      switchMap(([{ jobId }]) => fetchedJob(jobId, api, device)),
    ),
  { functional: true },
);

function heldJob(jobId: string, device: DeviceStore): Observable<Action> {
  return defer(async () => ({
    held: await device.held(jobId),
    waiting: await device.waitingFor(jobId),
  })).pipe(
    mergeMap(({ held, waiting }) =>
      held ? of(JobActions.restored({ jobId, detail: held.detail, logged: held.logged, waiting })) : EMPTY,
    ),
  );
}

function fetchedJob(jobId: string, api: Api, device: DeviceStore): Observable<Action> {
  return new Observable<Action>((out) =>
    defer(() => api.job(jobId).pipe(timeout(FETCH_MS)))
      .pipe(
        retry({
          delay: (error: unknown, n) => {
            if (!isTransient(error)) return throwError(() => error);
            out.next(JobActions.connectionChanged({ connected: false }));
            return timer(Math.min(RETRY_MOST_MS, RETRY_FIRST_MS * 2 ** (n - 1)));
          },
        }),
        switchMap((detail) =>
          defer(() => device.waitingFor(jobId)).pipe(
            map((waiting) => JobActions.loaded({ jobId, detail, waiting })),
          ),
        ),
        catchError((error: unknown) => {
          // The sign-in bar shows it once; the job is fetched when somebody has signed in.
          if (isSignInRequired(error)) return EMPTY;
          return defer(() => device.waitingFor(jobId)).pipe(
            mergeMap((waiting) =>
              // Opened here while no server answered: it is fetched when the server has taken it.
              waiting.some(({ type }) => type === 'job.opened')
                ? EMPTY
                : of(JobActions.failed({ problem: problemText(error) })),
            ),
          );
        }),
      )
      .subscribe(out),
  );
}

/** Fetches the events that were missed between two that arrived. */
export const fetchGap = createEffect(
  (actions = inject(Actions), store = inject(Store)) =>
    actions.pipe(
      ofType(JobActions.received, JobActions.acknowledged),
      withLatestFrom(store.select(jobFeature.selectLogged), store.select(jobFeature.selectJobId)),
      filter(([{ event }, logged, jobId]) => event.jobId === jobId && hasGap(logged)),
      map(([{ event }]) => JobActions.caughtUpWanted({ jobId: event.jobId })),
    ),
  { functional: true },
);

/** Events after which what came with the job is another: its machine and points, the batteries that sit in it. */
const REFETCHED: readonly JobEvent['type'][] = [
  'job.opened',
  'model.identified',
  'battery.found',
  'battery.replaced',
  'van.arrived',
  'event.undone',
];

/** Fetches the record of the job again when an event changed it. */
export const fetchIdentified = createEffect(
  (actions = inject(Actions)) =>
    actions.pipe(
      ofType(JobActions.acknowledged, JobActions.received),
      filter(({ event }) => REFETCHED.includes(event.type)),
      map(({ event }) => JobActions.caughtUpWanted({ jobId: event.jobId })),
    ),
  { functional: true },
);

/** A machine that was recognised on the spot is worked with at once: as the server has it, or this device. */
export const knowMachine = createEffect(
  (actions = inject(Actions), store = inject(Store), finder = inject(Finder)) =>
    actions.pipe(
      ofType(JobActions.reported),
      withLatestFrom(store.select(deviceFeature.selectErrands)),
      mergeMap(([{ event }, errands]) => {
        if (event.type !== 'model.identified') return EMPTY;
        const { modelId } = event.data;
        const made = errands.find((e) => e.kind === 'entry' && e.machine.id === modelId);
        const known: Observable<Pick<AtlasEntry, 'machine' | 'confidence'>> =
          made?.kind === 'entry'
            ? of({ machine: made.machine, confidence: 'found-once' })
            : finder.entry(modelId);
        return known.pipe(
          map(({ machine, confidence }) =>
            JobActions.machineKnown({ jobId: event.jobId, machine, confidence }),
          ),
          // Then it comes with the job, when the server answers.
          catchError(() => EMPTY),
        );
      }),
    ),
  { functional: true },
);

/** Receives the server's messages of the job while it is open. */
export const hearJob = createEffect(
  (actions = inject(Actions), line = inject(StreamLine), store = inject(Store)) =>
    actions.pipe(
      ofType(JobActions.opened, JobActions.left),
      switchMap((action) =>
        action.type === JobActions.opened.type
          ? messageOf(action.jobId, line, store.select(jobFeature.selectDetail))
          : EMPTY,
      ),
    ),
  { functional: true },
);

function messageOf(
  jobId: string,
  line: StreamLine,
  detail: Observable<JobState['detail']>,
): Observable<Action> {
  return merge(
    line.messages.pipe(
      withLatestFrom(detail),
      mergeMap(([message, known]) => {
        if (message.kind === 'logged' && message.event.jobId === jobId)
          return of(JobActions.received({ event: message.event, revision: message.revision }));
        // The entry of its machine was corrected: it is worked with as it now is.
        const isOfIt = [known?.machine.id, known?.donorMachine?.id].some(
          (id) => message.kind === 'entry' && (message.modelId === null || message.modelId === id),
        );
        return isOfIt ? of(JobActions.caughtUpWanted({ jobId })) : EMPTY;
      }),
    ),
    line.changes.pipe(map((connected) => JobActions.connectionChanged({ connected }))),
    line.cameBack.pipe(map(() => JobActions.caughtUpWanted({ jobId }))),
  );
}
