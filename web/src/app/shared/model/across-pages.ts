import { type Action, type ActionReducer, createActionGroup, props } from '@ngrx/store';

export const PageActions = createActionGroup({
  source: 'Page',
  events: {
    /** Another page of this device did this: what all pages show changes here as well, and nothing is sent twice. */
    'Done Elsewhere': props<{ action: Action }>(),
  },
});

const isDoneElsewhere = (action: Action): action is ReturnType<typeof PageActions.doneElsewhere> =>
  action.type === PageActions.doneElsewhere.type;

/** Returns a reducer that takes what another page did like what was done here. Effects see only what was done here. */
export const acrossPages =
  <S>(reducer: ActionReducer<S>): ActionReducer<S> =>
  (state, action) =>
    reducer(state, isDoneElsewhere(action) ? action.action : action);
