import { HttpErrorResponse } from '@angular/common/http';
import { inject } from '@angular/core';
import type { JobEvent } from '@voltrek/core/job';
import { Actions, createEffect, ofType } from '@ngrx/effects';
import { type Action, Store } from '@ngrx/store';
import {
  catchError,
  concatMap,
  defer,
  EMPTY,
  filter,
  from,
  map,
  mergeMap,
  Observable,
  of,
  retry,
  switchMap,
  take,
  throwError,
  timer,
} from 'rxjs';
import { Api } from '../state/api';
import { Outbox } from '../state/outbox';
import { isTransient, problemText } from '../state/problem';
import { JobActions, jobFeature, type LoggedEvent } from './job-state';

/** Waits between tries to reach the server: short at first, then steady. */
const RETRY_FIRST_MS = 400;
const RETRY_MOST_MS = 4_000;

export const loadJob = createEffect(
  (actions = inject(Actions), api = inject(Api), outbox = inject(Outbox)) =>
    actions.pipe(
      ofType(JobActions.opened, JobActions.caughtUpWanted),
      switchMap(({ jobId }) =>
        from(outbox.waitingFor(jobId)).pipe(
          switchMap((waiting) =>
            api.job(jobId).pipe(
              retry({ delay: (error: unknown, n) => waitToRetry(error, n) }),
              map((detail) => JobActions.loaded({ jobId, detail, waiting })),
            ),
          ),
          catchError((error: unknown) => of(JobActions.failed({ problem: problemText(error) }))),
        ),
      ),
    ),
  { functional: true },
);

/** Keeps what is reported on the device until the server has it. */
export const keepPending = createEffect(
  (actions = inject(Actions), outbox = inject(Outbox)) =>
    actions.pipe(
      ofType(JobActions.reported),
      mergeMap(({ event }) => outbox.keep(event)),
    ),
  { functional: true, dispatch: false },
);

export const dropAcknowledged = createEffect(
  (actions = inject(Actions), outbox = inject(Outbox)) =>
    actions.pipe(
      ofType(JobActions.acknowledged, JobActions.heard, JobActions.refused),
      mergeMap(({ event }) => outbox.drop(event.id)),
    ),
  { functional: true, dispatch: false },
);

/** Sends pending events one after another, oldest first, and keeps trying while the server is away. */
export const sendPending = createEffect(
  (actions = inject(Actions), store = inject(Store), api = inject(Api), outbox = inject(Outbox)) =>
    actions.pipe(
      ofType(JobActions.reported, JobActions.loaded),
      mergeMap((action) =>
        action.type === JobActions.loaded.type ? from(action.waiting) : of(action.event),
      ),
      concatMap(() =>
        defer(() =>
          store.select(jobFeature.selectPending).pipe(
            take(1),
            switchMap(([head]) =>
              head
                ? send(head, api, outbox, () =>
                    store.dispatch(JobActions.connectionChanged({ connected: false })),
                  )
                : EMPTY,
            ),
          ),
        ),
      ),
    ),
  { functional: true },
);

function send(event: JobEvent, api: Api, outbox: Outbox, onLost: () => void): Observable<Action> {
  return defer(() => api.append(event, outbox.heldMs(event))).pipe(
    retry({
      delay: (error: unknown, n) => {
        if (isTransient(error)) onLost();
        return waitToRetry(error, n);
      },
    }),
    // As the server has it, with the moment it heard of it.
    map(({ event: taken, revision }) =>
      JobActions.acknowledged({ event: taken, revision, at: new Date().toISOString() }),
    ),
    // The server's log may hold what this screen has not seen: fetch it too.
    catchError((error: unknown) =>
      of(
        JobActions.refused({ event, why: refusalText(error) }),
        JobActions.caughtUpWanted({ jobId: event.jobId }),
      ),
    ),
  );
}

function waitToRetry(error: unknown, attempt: number): Observable<unknown> {
  return isTransient(error)
    ? timer(Math.min(RETRY_MOST_MS, RETRY_FIRST_MS * 2 ** (attempt - 1)))
    : throwError(() => error);
}

function refusalText(error: unknown): string {
  return error instanceof HttpErrorResponse ? problemText(error) : 'It could not be sent.';
}

/** Events after which what came with the job is another: its machine and points, the batteries that sit in it. */
const REFETCHED: readonly JobEvent['type'][] = ['model.identified', 'battery.replaced', 'event.undone'];

/** What came with the job is fetched again when an event made it another. */
export const fetchIdentified = createEffect(
  (actions = inject(Actions)) =>
    actions.pipe(
      ofType(JobActions.acknowledged, JobActions.heard),
      filter(({ event }) => REFETCHED.includes(event.type)),
      map(({ event }) => JobActions.caughtUpWanted({ jobId: event.jobId })),
    ),
  { functional: true },
);

/** Listens to the job's stream while it is open. */
export const hearJob = createEffect(
  (actions = inject(Actions)) =>
    actions.pipe(
      ofType(JobActions.opened, JobActions.left),
      switchMap((action) => (action.type === JobActions.opened.type ? listen(action.jobId) : EMPTY)),
    ),
  { functional: true },
);

function listen(jobId: string): Observable<Action> {
  return new Observable<Action>((out) => {
    const source = new EventSource(`/api/jobs/${jobId}/stream`);
    let wasLost = false;
    source.onmessage = ({ data }) => {
      const { event, revision } = JSON.parse(String(data)) as LoggedEvent;
      out.next(JobActions.heard({ event, revision }));
    };
    source.onerror = () => {
      wasLost = true;
      out.next(JobActions.connectionChanged({ connected: false }));
    };
    source.onopen = () => {
      out.next(JobActions.connectionChanged({ connected: true }));
      if (wasLost) out.next(JobActions.caughtUpWanted({ jobId }));
      wasLost = false;
    };
    return () => source.close();
  });
}
