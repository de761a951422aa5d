import { inject } from '@angular/core';
import type { AtlasEntry, MachineSummary } from '@voltrek/contracts';
import type { Machine } from '@voltrek/core/machine';
import { Actions, createEffect, ofType } from '@ngrx/effects';
import { createActionGroup, createFeature, createReducer, on, props } from '@ngrx/store';
import { concatMap, map, debounceTime, switchMap } from 'rxjs';
import { Api } from './api';
import { answered } from './answered';

interface AtlasState {
  readonly typed: string;
  readonly found: readonly MachineSummary[];
  /** Machines in the whole atlas. */
  readonly total: number;
  readonly entry: AtlasEntry | null;
  readonly problem: string | null;
}

const initial: AtlasState = { typed: '', found: [], total: 0, entry: null, problem: null };

export const AtlasActions = createActionGroup({
  source: 'Atlas',
  events: {
    Searched: props<{ typed: string }>(),
    Found: props<{ found: readonly MachineSummary[]; total: number }>(),
    Chosen: props<{ modelId: string }>(),
    'Entry Loaded': props<{ entry: AtlasEntry }>(),
    Confirmed: props<{ modelId: string; by: string }>(),
    'Photo Sent': props<{ modelId: string; by: string; photo: File }>(),
    /** A new entry when it is based on nothing. */
    Saved: props<{ machine: Machine; by: string; note: string; basedOn: number | null }>(),
    Failed: props<{ problem: string }>(),
  },
});

/** Machines and their points. */
export const atlasFeature = createFeature({
  name: 'atlas',
  reducer: createReducer(
    initial,
    on(AtlasActions.searched, (state, { typed }): AtlasState => ({ ...state, typed })),
    on(
      AtlasActions.found,
      (state, { found, total }): AtlasState => ({ ...state, found, total, problem: null }),
    ),
    on(AtlasActions.entryLoaded, (state, { entry }): AtlasState => ({ ...state, entry, problem: null })),
    on(AtlasActions.failed, (state, { problem }): AtlasState => ({ ...state, problem })),
  ),
});

/** Typing pauses this long before the server is asked. */
const PAUSE_MS = 80;

export const searchAtlas = createEffect(
  (actions = inject(Actions), api = inject(Api)) =>
    actions.pipe(
      ofType(AtlasActions.searched),
      debounceTime(PAUSE_MS),
      switchMap(({ typed }) =>
        answered(
          api.machines(typed),
          ({ machines, total }) => AtlasActions.found({ found: machines, total }),
          AtlasActions.failed,
        ),
      ),
    ),
  { functional: true },
);

const loaded = (entry: AtlasEntry) => AtlasActions.entryLoaded({ entry });

export const loadEntry = createEffect(
  (actions = inject(Actions), api = inject(Api)) =>
    actions.pipe(
      ofType(AtlasActions.chosen),
      switchMap(({ modelId }) => answered(api.entry(modelId), loaded, AtlasActions.failed)),
    ),
  { functional: true },
);

export const changeEntry = createEffect(
  (actions = inject(Actions), api = inject(Api)) =>
    actions.pipe(
      ofType(AtlasActions.confirmed, AtlasActions.photoSent, AtlasActions.saved),
      map((action) => {
        if (action.type === AtlasActions.confirmed.type) return api.confirmEntry(action.modelId, action.by);
        if (action.type === AtlasActions.photoSent.type)
          return api.addPhoto(action.modelId, action.by, action.photo);
        const { machine, by, note, basedOn } = action;
        return basedOn === null
          ? api.addEntry(machine, by, note)
          : api.correctEntry(machine, by, note, basedOn);
      }),
      concatMap((request) => answered(request, loaded, AtlasActions.failed)),
    ),
  { functional: true },
);
