import { inject } from '@angular/core';
import type { BoardCall } from '@voltrek/contracts';
import { Actions, createEffect, ofType } from '@ngrx/effects';
import { createActionGroup, emptyProps } from '@ngrx/store';
import { EMPTY, filter, map, merge, switchMap } from 'rxjs';
import { StreamLine } from './stream-line';
import { serverCopy } from './server-copy';

/** Tonight's calls. */
export const boardCopy = serverCopy<readonly BoardCall[]>('board', [], { ask: (api) => api.board() });

/** Returns the ids of the jobs that the board shows. */
export const jobsOn = (calls: readonly BoardCall[]): readonly string[] =>
  calls.flatMap(({ job }) => (job ? [job.id] : []));

export const BoardActions = createActionGroup({
  source: 'Board',
  events: { Opened: emptyProps(), Left: emptyProps() },
});

/** Follows the board while it is on screen. Fetches it again when the line comes back: the server does not repeat missed messages. */
export const hearBoard = createEffect(
  (actions = inject(Actions), line = inject(StreamLine)) =>
    actions.pipe(
      ofType(BoardActions.opened, BoardActions.left),
      switchMap(({ type }) =>
        type === BoardActions.left.type
          ? EMPTY
          : merge([null], line.messages.pipe(filter(({ kind }) => kind === 'board')), line.cameBack),
      ),
      map(() => boardCopy.requested()),
    ),
  { functional: true },
);
