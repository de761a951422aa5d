import { inject } from '@angular/core';
import type { JobSummary } from '@voltrek/contracts';
import type { VerdictKind } from '@voltrek/core';
import { Actions, createEffect, ofType } from '@ngrx/effects';
import { createActionGroup, createFeature, createReducer, on, props } from '@ngrx/store';
import { switchMap } from 'rxjs';
import { Api } from './api';
import { answered } from './answered';

export interface LogQuery {
  readonly text: string;
  readonly verdict: VerdictKind | null;
  readonly offset: number;
}

interface LogState {
  readonly query: LogQuery;
  readonly jobs: readonly JobSummary[];
  readonly total: number;
  readonly status: 'loading' | 'ready' | 'failed';
  readonly problem: string | null;
}

export const LOG_PAGE = 25;

export const LogActions = createActionGroup({
  source: 'Log',
  events: {
    Asked: props<{ query: LogQuery }>(),
    Loaded: props<{ jobs: readonly JobSummary[]; total: number }>(),
    Failed: props<{ problem: string }>(),
  },
});

const initial: LogState = {
  query: { text: '', verdict: null, offset: 0 },
  jobs: [],
  total: 0,
  status: 'loading',
  problem: null,
};

/** Closed jobs. */
export const logFeature = createFeature({
  name: 'log',
  reducer: createReducer(
    initial,
    on(LogActions.asked, (state, { query }): LogState => ({ ...state, query, problem: null })),
    on(LogActions.loaded, (state, { jobs, total }): LogState => ({ ...state, jobs, total, status: 'ready' })),
    on(LogActions.failed, (state, { problem }): LogState => ({ ...state, problem, status: 'failed' })),
  ),
});

export const askLog = createEffect(
  (actions = inject(Actions), api = inject(Api)) =>
    actions.pipe(
      ofType(LogActions.asked),
      switchMap(({ query }) =>
        answered(
          api.log(query.text, query.verdict, query.offset, LOG_PAGE),
          ({ jobs, total }) => LogActions.loaded({ jobs, total }),
          LogActions.failed,
        ),
      ),
    ),
  { functional: true },
);
