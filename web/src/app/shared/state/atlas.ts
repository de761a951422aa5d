import { inject } from '@angular/core';
import type { Machine } from '@voltrek/core';
import { Actions, createEffect, ofType } from '@ngrx/effects';
import { createEntityAdapter, type EntityState } from '@ngrx/entity';
import { createActionGroup, createFeature, createReducer, emptyProps, on, props } from '@ngrx/store';
import { switchMap } from 'rxjs';
import { Api } from './api';
import { answered } from './answered';

interface AtlasState extends EntityState<Machine> {
  readonly problem: string | null;
}

const adapter = createEntityAdapter<Machine>({
  sortComparer: (a, b) => `${a.maker} ${a.model}`.localeCompare(`${b.maker} ${b.model}`),
});

const initial: AtlasState = adapter.getInitialState({ problem: null });

export const AtlasActions = createActionGroup({
  source: 'Atlas',
  events: {
    Opened: emptyProps(),
    Loaded: props<{ machines: Machine[] }>(),
    Failed: props<{ problem: string }>(),
  },
});

/** Machines and their points. */
export const atlasFeature = createFeature({
  name: 'atlas',
  reducer: createReducer(
    initial,
    on(AtlasActions.loaded, (state, { machines }) => adapter.setAll(machines, { ...state, problem: null })),
    on(AtlasActions.failed, (state, { problem }) => ({ ...state, problem })),
  ),
  extraSelectors: ({ selectAtlasState }) => adapter.getSelectors(selectAtlasState),
});

export const loadAtlas = createEffect(
  (actions = inject(Actions), api = inject(Api)) =>
    actions.pipe(
      ofType(AtlasActions.opened),
      switchMap(() =>
        answered(api.machines(), (machines) => AtlasActions.loaded({ machines }), AtlasActions.failed),
      ),
    ),
  { functional: true },
);
