import { inject } from '@angular/core';
import type { JobSummary } from '@voltrek/contracts';
import type { VerdictKind } from '@voltrek/core/verdict';
import { Actions, createEffect, ofType } from '@ngrx/effects';
import { createActionGroup, createFeature, createReducer, on, props } from '@ngrx/store';
import { switchMap } from 'rxjs';
import { Api } from './api';
import { answered } from './answered';

export interface LogQuery {
  readonly text: string;
  readonly verdict: VerdictKind | null;
  /** The beginning of each page gone through; the last is the one on screen, the first begins at the newest. */
  readonly pages: readonly string[];
}

interface LogState {
  readonly query: LogQuery;
  readonly jobs: readonly JobSummary[];
  /** The beginning of the next page; null on the last. */
  readonly next: string | null;
  readonly status: 'loading' | 'ready' | 'failed';
  readonly problem: string | null;
}

export const LOG_PAGE = 25;

export const LogActions = createActionGroup({
  source: 'Log',
  events: {
    Asked: props<{ query: LogQuery }>(),
    Loaded: props<{ jobs: readonly JobSummary[]; next: string | null }>(),
    Failed: props<{ problem: string }>(),
  },
});

const initial: LogState = {
  query: { text: '', verdict: null, pages: [''] },
  jobs: [],
  next: null,
  status: 'loading',
  problem: null,
};

/** Closed jobs. */
export const logFeature = createFeature({
  name: 'log',
  reducer: createReducer(
    initial,
    on(LogActions.asked, (state, { query }): LogState => ({ ...state, query, problem: null })),
    on(LogActions.loaded, (state, { jobs, next }): LogState => ({ ...state, jobs, next, status: 'ready' })),
    on(LogActions.failed, (state, { problem }): LogState => ({ ...state, problem, status: 'failed' })),
  ),
});

export const askLog = createEffect(
  (actions = inject(Actions), api = inject(Api)) =>
    actions.pipe(
      ofType(LogActions.asked),
      switchMap(({ query }) =>
        answered(
          api.log(query.text, query.verdict, query.pages.at(-1) ?? '', LOG_PAGE),
          ({ jobs, next }) => LogActions.loaded({ jobs, next }),
          LogActions.failed,
        ),
      ),
    ),
  { functional: true },
);
