import { inject } from '@angular/core';
import type { AtlasEntry, MachineSummary } from '@voltrek/contracts';
import type { Machine } from '@voltrek/core/machine';
import { Actions, createEffect, ofType } from '@ngrx/effects';
import { createActionGroup, createFeature, createReducer, emptyProps, on, props } from '@ngrx/store';
import { concatMap, debounceTime, from, map, switchMap } from 'rxjs';
import { SendPhoto } from './send-photo';
import { Api } from '../data/api';
import { answered } from '../data/answered';
import { Finder } from '../data/finder';

interface AtlasState {
  readonly typed: string;
  readonly found: readonly MachineSummary[];
  /** Machines in the whole atlas. */
  readonly total: number;
  /** The machine that is looked at. */
  readonly chosenId: string | null;
  /** Its entry, once it has come. */
  readonly entry: AtlasEntry | null;
  readonly problem: string | null;
}

const initial: AtlasState = {
  typed: '',
  found: [],
  total: 0,
  chosenId: null,
  entry: null,
  problem: null,
};

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
    'Photo Kept': emptyProps(),
    Failed: props<{ problem: string }>(),
  },
});

/** An answer may come late: to what was sent of a machine that was left since, or asked before a change that is here already. */
const isNews = ({ chosenId, entry: known }: AtlasState, entry: AtlasEntry): boolean =>
  entry.machine.id === chosenId && (known === null || entry.revision >= known.revision);

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
    on(
      AtlasActions.chosen,
      (state, { modelId }): AtlasState => ({
        ...state,
        chosenId: modelId,
        entry: state.entry?.machine.id === modelId ? state.entry : null,
      }),
    ),
    on(
      AtlasActions.entryLoaded,
      (state, { entry }): AtlasState => ({
        ...state,
        entry: isNews(state, entry) ? entry : state.entry,
        problem: null,
      }),
    ),
    on(AtlasActions.photoKept, (state): AtlasState => ({ ...state, problem: null })),
    on(AtlasActions.failed, (state, { problem }): AtlasState => ({ ...state, problem })),
  ),
});

/** Typing pauses this long before the server is asked. */
const PAUSE_MS = 80;

export const searchAtlas = createEffect(
  (actions = inject(Actions), finder = inject(Finder)) =>
    actions.pipe(
      ofType(AtlasActions.searched),
      debounceTime(PAUSE_MS),
      switchMap(({ typed }) =>
        answered(
          finder.machines(typed),
          ({ machines, total }) => AtlasActions.found({ found: machines, total }),
          AtlasActions.failed,
        ),
      ),
    ),
  { functional: true },
);

const loaded = (entry: AtlasEntry) => AtlasActions.entryLoaded({ entry });

export const loadEntry = createEffect(
  (actions = inject(Actions), finder = inject(Finder)) =>
    actions.pipe(
      ofType(AtlasActions.chosen),
      switchMap(({ modelId }) => answered(finder.entry(modelId), loaded, AtlasActions.failed)),
    ),
  { functional: true },
);

export const changeEntry = createEffect(
  (actions = inject(Actions), api = inject(Api)) =>
    actions.pipe(
      ofType(AtlasActions.confirmed, AtlasActions.saved),
      map((action) => {
        if (action.type === AtlasActions.confirmed.type) return api.confirmEntry(action.modelId, action.by);
        const { machine, by, note, basedOn } = action;
        return basedOn === null
          ? api.addEntry(machine, by, note)
          : api.correctEntry(machine, by, note, basedOn);
      }),
      concatMap((request) => answered(request, loaded, AtlasActions.failed)),
    ),
  { functional: true },
);

/** A photo that no server takes now waits on this device. */
export const sendPhoto = createEffect(
  (actions = inject(Actions), photos = inject(SendPhoto)) =>
    actions.pipe(
      ofType(AtlasActions.photoSent),
      concatMap(({ modelId, by, photo }) =>
        answered(
          from(photos.send(modelId, by, photo)),
          (entry) => (entry ? loaded(entry) : AtlasActions.photoKept()),
          AtlasActions.failed,
        ),
      ),
    ),
  { functional: true },
);
