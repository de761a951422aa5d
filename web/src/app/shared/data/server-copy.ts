import { inject } from '@angular/core';
import { Actions, createEffect, ofType } from '@ngrx/effects';
import {
  type Action,
  createAction,
  createFeatureSelector,
  createReducer,
  createSelector,
  on,
  Store,
} from '@ngrx/store';
import { catchError, concatMap, map, type Observable, of, switchMap } from 'rxjs';
import { Api } from './api';
import { problemText } from './problem';

/** The store's copy of one thing that the server holds. */
export interface CopyState<T> {
  readonly copy: T;
  /** The server answered at least once. */
  readonly isKnown: boolean;
  readonly status: 'idle' | 'loading' | 'ready' | 'failed';
  readonly problem: string | null;
  /** Counts the changes sent and answered. An answer asked at another count is out of date and dropped. */
  readonly changes: number;
}

interface Source<T, C> {
  readonly ask: (api: Api) => Observable<T>;
  /** Sends a change. The server answers with the whole, as it is after it. */
  readonly send?: (api: Api, change: C) => Observable<T>;
}

/**
 * Makes the store slice of something that the server holds: actions, reducer, selectors and effects. Changes are sent one after another. No
 * answer that was asked before a change puts the copy back.
 *
 * @param none the copy until the server answered
 * @example
 * export const rulesCopy = serverCopy<RulesPage | null, RuleSetting>('rules', null, {
 *   ask: (api) => api.rules(),
 *   send: (api, setting) => api.setRule(setting),
 * });
 */
export function serverCopy<T, C = never>(name: string, none: T, { ask, send }: Source<T, C>) {
  const requested = createAction(`[${name}] Requested`);
  const loaded = createAction(`[${name}] Loaded`, (copy: T, changes: number) => ({ copy, changes }));
  const changeSent = createAction(`[${name}] Change Sent`, (change: C) => ({ change }));
  const changed = createAction(`[${name}] Changed`, (copy: T) => ({ copy }));
  const failed = createAction(`[${name}] Failed`, (problem: string) => ({ problem }));

  const initial: CopyState<T> = { copy: none, isKnown: false, status: 'idle', problem: null, changes: 0 };
  const ready = { isKnown: true, status: 'ready', problem: null } as const;
  const reducer = createReducer(
    initial,
    on(
      requested,
      (state): CopyState<T> => ({ ...state, problem: null, status: state.isKnown ? 'ready' : 'loading' }),
    ),
    on(changeSent, (state): CopyState<T> => ({ ...state, changes: state.changes + 1 })),
    on(
      loaded,
      (state, { copy, changes }): CopyState<T> =>
        changes === state.changes ? { ...state, ...ready, copy } : state,
    ),
    on(
      changed,
      (state, { copy }): CopyState<T> => ({ ...state, ...ready, copy, changes: state.changes + 1 }),
    ),
    on(failed, (state, { problem }): CopyState<T> => ({ ...state, problem, status: 'failed' })),
  );

  const select = createFeatureSelector<CopyState<T>>(name);
  const selectChanges = createSelector(select, ({ changes }) => changes);
  const tried = (answer: Observable<Action>): Observable<Action> =>
    answer.pipe(catchError((error: unknown) => of(failed(problemText(error)))));
  const load = createEffect(
    (actions = inject(Actions), api = inject(Api), store = inject(Store)) => {
      const changes = store.selectSignal(selectChanges);
      return actions.pipe(
        ofType(requested),
        switchMap(() => {
          const asked = changes();
          return tried(ask(api).pipe(map((copy) => loaded(copy, asked))));
        }),
      );
    },
    { functional: true },
  );
  const change = createEffect(
    (actions = inject(Actions), api = inject(Api)) =>
      actions.pipe(
        ofType(changeSent),
        concatMap((action) => tried(send!(api, action.change).pipe(map((copy) => changed(copy))))),
      ),
    { functional: true },
  );

  return {
    ...{ name, reducer, requested, loaded, changeSent, changed, failed, selectChanges },
    selectCopy: createSelector(select, ({ copy }) => copy),
    selectIsKnown: createSelector(select, ({ isKnown }) => isKnown),
    selectStatus: createSelector(select, ({ status }) => status),
    selectProblem: createSelector(select, ({ problem }) => problem),
    effects: { load, change },
  };
}
