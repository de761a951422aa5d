import { inject } from '@angular/core';
import type { Van } from '@voltrek/contracts';
import { Actions, createEffect, ofType } from '@ngrx/effects';
import { createActionGroup, createFeature, createReducer, emptyProps, on, props } from '@ngrx/store';
import { concatMap, switchMap } from 'rxjs';
import { Api } from './api';
import { answered } from './answered';

interface KitState {
  readonly vans: readonly Van[];
  readonly problem: string | null;
}

export const KitActions = createActionGroup({
  source: 'Kit',
  events: {
    Opened: emptyProps(),
    Loaded: props<{ vans: readonly Van[] }>(),
    /** What a mark asks for is done. */
    'Mark Finished': props<{ markId: string; by: string }>(),
    Failed: props<{ problem: string }>(),
  },
});

const initial: KitState = { vans: [], problem: null };

/** The vans and what they carry. */
export const kitFeature = createFeature({
  name: 'kit',
  reducer: createReducer(
    initial,
    on(KitActions.loaded, (_, { vans }): KitState => ({ vans, problem: null })),
    on(KitActions.failed, (state, { problem }): KitState => ({ ...state, problem })),
  ),
});

export const loadKit = createEffect(
  (actions = inject(Actions), api = inject(Api)) =>
    actions.pipe(
      ofType(KitActions.opened),
      switchMap(() => answered(api.vans(), (vans) => KitActions.loaded({ vans }), KitActions.failed)),
    ),
  { functional: true },
);

export const finishMark = createEffect(
  (actions = inject(Actions), api = inject(Api)) =>
    actions.pipe(
      ofType(KitActions.markFinished),
      concatMap(({ markId, by }) =>
        answered(api.finishMark(markId, by), (vans) => KitActions.loaded({ vans }), KitActions.failed),
      ),
    ),
  { functional: true },
);
