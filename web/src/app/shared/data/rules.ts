import { inject } from '@angular/core';
import type { RuleSetting, RulesPage } from '@voltrek/contracts';
import { Actions, createEffect, ofType, ROOT_EFFECTS_INIT } from '@ngrx/effects';
import { createActionGroup, createFeature, createReducer, emptyProps, on, props } from '@ngrx/store';
import { concatMap, switchMap } from 'rxjs';
import { answered } from './answered';
import { Api } from './api';

interface RulesState {
  /** Null until they are here. */
  readonly page: RulesPage | null;
  readonly problem: string | null;
}

export const RulesActions = createActionGroup({
  source: 'Rules',
  events: {
    Opened: emptyProps(),
    Set: props<{ setting: RuleSetting }>(),
    Loaded: props<{ page: RulesPage }>(),
    Failed: props<{ problem: string }>(),
  },
});

const initial: RulesState = { page: null, problem: null };

/** Settings only grow: an answer that tells of less was asked before a change that is here already. */
const isNews = ({ page: known }: RulesState, page: RulesPage): boolean =>
  known === null || page.settings.length >= known.settings.length;

/** The house rules, and how they came to stand as they do. */
export const rulesFeature = createFeature({
  name: 'rules',
  reducer: createReducer(
    initial,
    on(
      RulesActions.loaded,
      (state, { page }): RulesState => (isNews(state, page) ? { page, problem: null } : state),
    ),
    on(RulesActions.failed, (state, { problem }): RulesState => ({ ...state, problem })),
  ),
});

/** At the start too: a job is opened under them, also where the line gets thin after that. */
export const loadRules = createEffect(
  (actions = inject(Actions), api = inject(Api)) =>
    actions.pipe(
      ofType(ROOT_EFFECTS_INIT, RulesActions.opened),
      switchMap(() => answered(api.rules(), (page) => RulesActions.loaded({ page }), RulesActions.failed)),
    ),
  { functional: true },
);

export const setRule = createEffect(
  (actions = inject(Actions), api = inject(Api)) =>
    actions.pipe(
      ofType(RulesActions.set),
      concatMap(({ setting }) =>
        answered(api.setRule(setting), (page) => RulesActions.loaded({ page }), RulesActions.failed),
      ),
    ),
  { functional: true },
);
