import { inject } from '@angular/core';
import type { KitEntry, Van } from '@voltrek/contracts';
import { Actions, createEffect, ofType, ROOT_EFFECTS_INIT } from '@ngrx/effects';
import { createActionGroup, createFeature, createReducer, emptyProps, on, props } from '@ngrx/store';
import { concatMap, EMPTY, type Observable, switchMap } from 'rxjs';
import { Api } from './api';
import { answered } from './answered';

interface KitState {
  readonly vans: readonly Van[];
  readonly problem: string | null;
}

/** Changes of vans and kit. */
export type KitChange =
  | { readonly what: 'add-van'; readonly name: string }
  | { readonly what: 'change-van'; readonly vanId: string; readonly name: string; readonly retired: boolean }
  | { readonly what: 'add-kit'; readonly vanId: string; readonly entry: KitEntry }
  | { readonly what: 'change-kit'; readonly itemId: string; readonly entry: KitEntry }
  | { readonly what: 'retire-kit'; readonly itemId: string; readonly by: string }
  | { readonly what: 'recharge-kit'; readonly itemId: string; readonly by: string };

export const KitActions = createActionGroup({
  source: 'Kit',
  events: {
    Opened: emptyProps(),
    Loaded: props<{ vans: readonly Van[] }>(),
    /** The care of a mark is done. */
    'Mark Finished': props<{ markId: string; by: string }>(),
    /** A van or its kit is changed on the server, which answers with all vans. */
    'Change Wanted': props<{ change: KitChange }>(),
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

/** A change answers with all vans: what was asked before it would only put them back. */
export const loadKit = createEffect(
  (actions = inject(Actions), api = inject(Api)) =>
    actions.pipe(
      ofType(ROOT_EFFECTS_INIT, KitActions.opened, KitActions.changeWanted, KitActions.markFinished),
      switchMap(({ type }) =>
        type === KitActions.changeWanted.type || type === KitActions.markFinished.type
          ? EMPTY
          : answered(api.vans(), (vans) => KitActions.loaded({ vans }), KitActions.failed),
      ),
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

export const changeKit = createEffect(
  (actions = inject(Actions), api = inject(Api)) =>
    actions.pipe(
      ofType(KitActions.changeWanted),
      concatMap(({ change }) =>
        answered(asked(api, change), (vans) => KitActions.loaded({ vans }), KitActions.failed),
      ),
    ),
  { functional: true },
);

function asked(api: Api, change: KitChange): Observable<Van[]> {
  switch (change.what) {
    case 'add-van':
      return api.addVan(change.name);
    case 'change-van':
      return api.changeVan(change.vanId, change.name, change.retired);
    case 'add-kit':
      return api.addKit(change.vanId, change.entry);
    case 'change-kit':
      return api.changeKit(change.itemId, change.entry);
    case 'retire-kit':
      return api.retireKit(change.itemId, change.by);
    case 'recharge-kit':
      return api.rechargeKit(change.itemId, change.by);
  }
}
