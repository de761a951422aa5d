import { inject } from '@angular/core';
import type { BoardCall } from '@voltrek/contracts';
import { Actions, createEffect, ofType } from '@ngrx/effects';
import { createActionGroup, createFeature, createReducer, emptyProps, on, props } from '@ngrx/store';
import { EMPTY, filter, map, merge, switchMap } from 'rxjs';
import { Api } from './api';
import { answered } from './answered';
import { NewsLine } from './news-line';

interface BoardState {
  readonly calls: readonly BoardCall[];
  readonly status: 'idle' | 'loading' | 'ready' | 'failed';
  readonly problem: string | null;
}

export const BoardActions = createActionGroup({
  source: 'Board',
  events: {
    /** The board is on screen: it is fetched, and heard from then on. */
    Opened: emptyProps(),
    Left: emptyProps(),
    /** Something on it changed. */
    Changed: emptyProps(),
    Loaded: props<{ calls: readonly BoardCall[] }>(),
    Failed: props<{ problem: string }>(),
  },
});

const initial: BoardState = { calls: [], status: 'idle', problem: null };

/** Tonight's calls. */
export const boardFeature = createFeature({
  name: 'board',
  reducer: createReducer(
    initial,
    on(
      BoardActions.opened,
      (state): BoardState => ({
        ...state,
        status: state.calls.length > 0 ? 'ready' : 'loading',
        problem: null,
      }),
    ),
    on(BoardActions.loaded, (_, { calls }): BoardState => ({ calls, status: 'ready', problem: null })),
    on(BoardActions.failed, (state, { problem }): BoardState => ({ ...state, status: 'failed', problem })),
  ),
});

export const loadBoard = createEffect(
  (actions = inject(Actions), api = inject(Api)) =>
    actions.pipe(
      ofType(BoardActions.opened, BoardActions.changed),
      switchMap(() => answered(api.board(), (calls) => BoardActions.loaded({ calls }), BoardActions.failed)),
    ),
  { functional: true },
);

/** Listens while the board is on screen, and fetches it again when the line comes back: what was missed is not told twice. */
export const hearBoard = createEffect(
  (actions = inject(Actions), line = inject(NewsLine)) =>
    actions.pipe(
      ofType(BoardActions.opened, BoardActions.left),
      switchMap((action) =>
        action.type === BoardActions.opened.type
          ? merge(line.news.pipe(filter(({ kind }) => kind === 'board')), line.cameBack)
          : EMPTY,
      ),
      map(() => BoardActions.changed()),
    ),
  { functional: true },
);
