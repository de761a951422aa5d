import { inject } from '@angular/core';
import type { CrewMember } from '@voltrek/contracts';
import { Actions, createEffect, ofType, ROOT_EFFECTS_INIT } from '@ngrx/effects';
import {
  createActionGroup,
  createFeature,
  createReducer,
  createSelector,
  emptyProps,
  on,
  props,
} from '@ngrx/store';
import { concatMap, EMPTY, switchMap, tap } from 'rxjs';
import { Api } from './api';
import { answered } from './answered';
import { keepText, keptText } from './kept';

export const LIGHTS = ['day', 'dusk', 'night'] as const;
export type Light = (typeof LIGHTS)[number];

interface SessionState {
  readonly light: Light;
  readonly crew: readonly CrewMember[];
  readonly crewId: string;
  /** The van that new jobs are worked from; empty until one is chosen. */
  readonly vanId: string;
  /** The server told who works here. */
  readonly crewKnown: boolean;
  readonly problem: string | null;
}

const LIGHT_KEY = 'voltrek.light';
const CREW_KEY = 'voltrek.crew';
const VAN_KEY = 'voltrek.van';

export const SessionActions = createActionGroup({
  source: 'Session',
  events: {
    'Light Chosen': props<{ light: Light; byItself?: boolean }>(),
    'Crew Chosen': props<{ crewId: string }>(),
    'Van Chosen': props<{ vanId: string }>(),
    'Crew Wanted': emptyProps(),
    'Crew Loaded': props<{ crew: readonly CrewMember[] }>(),
    /** Somebody comes, goes, or is called otherwise. */
    'Crew Changed': props<{ member: Omit<CrewMember, 'id'> & { readonly id: string | null } }>(),
    'Crew Failed': props<{ problem: string }>(),
  },
});

/** The crew of now. */
export const atWork = (crew: readonly CrewMember[]): readonly CrewMember[] => crew.filter((c) => !c.retired);

/** Returns the person chosen on this device, or the only one there is; null until somebody says so. */
function whoIs(chosen: string, crew: readonly CrewMember[]): string {
  if (crew.some((c) => c.id === chosen)) return chosen;
  return crew.length === 1 ? crew[0]!.id : '';
}

function storedLight(): Light {
  const stored = keptText(LIGHT_KEY);
  return LIGHTS.find((light) => light === stored) ?? 'day';
}

const initial: SessionState = {
  light: storedLight(),
  crew: [],
  crewId: keptText(CREW_KEY) ?? '',
  vanId: keptText(VAN_KEY) ?? '',
  crewKnown: false,
  problem: null,
};

/** The person at work and the light. */
export const sessionFeature = createFeature({
  name: 'session',
  extraSelectors: ({ selectCrew, selectCrewId, selectCrewKnown }) => ({
    /** Somebody works here, and nobody has said who holds this device. */
    selectAsksWho: createSelector(
      selectCrew,
      selectCrewId,
      selectCrewKnown,
      (crew, crewId, isKnown) => isKnown && crewId === '' && atWork(crew).length > 0,
    ),
    /** True where the holder of this device leads the crew. */
    selectIsLead: createSelector(
      selectCrew,
      selectCrewId,
      (crew, crewId) => crew.find(({ id }) => id === crewId)?.role === 'crew-lead',
    ),
  }),
  reducer: createReducer(
    initial,
    on(SessionActions.lightChosen, (state, { light }) => ({ ...state, light })),
    on(SessionActions.crewChosen, (state, { crewId }) => ({ ...state, crewId })),
    on(SessionActions.vanChosen, (state, { vanId }) => ({ ...state, vanId })),
    on(SessionActions.crewLoaded, (state, { crew }) => ({
      ...state,
      crew,
      crewKnown: true,
      problem: null,
      crewId: whoIs(state.crewId, atWork(crew)),
    })),
    on(SessionActions.crewFailed, (state, { problem }) => ({ ...state, problem })),
  ),
});

/** A change answers with the whole crew: what was asked before it would only put it back. */
export const loadCrew = createEffect(
  (actions = inject(Actions), api = inject(Api)) =>
    actions.pipe(
      ofType(ROOT_EFFECTS_INIT, SessionActions.crewWanted, SessionActions.crewChanged),
      switchMap(({ type }) =>
        type === SessionActions.crewChanged.type
          ? EMPTY
          : answered(api.crew(), (crew) => SessionActions.crewLoaded({ crew }), SessionActions.crewFailed),
      ),
    ),
  { functional: true },
);

export const changeCrew = createEffect(
  (actions = inject(Actions), api = inject(Api)) =>
    actions.pipe(
      ofType(SessionActions.crewChanged),
      concatMap(({ member: { id, ...member } }) =>
        answered(
          id === null ? api.addCrew(member) : api.changeCrew({ id, ...member }),
          (crew) => SessionActions.crewLoaded({ crew }),
          SessionActions.crewFailed,
        ),
      ),
    ),
  { functional: true },
);

export const keepLight = createEffect(
  (actions = inject(Actions)) =>
    actions.pipe(
      ofType(SessionActions.lightChosen),
      tap(({ light }) => keepText(LIGHT_KEY, light)),
    ),
  { functional: true, dispatch: false },
);

export const keepVan = createEffect(
  (actions = inject(Actions)) =>
    actions.pipe(
      ofType(SessionActions.vanChosen),
      tap(({ vanId }) => keepText(VAN_KEY, vanId)),
    ),
  { functional: true, dispatch: false },
);

export const keepCrew = createEffect(
  (actions = inject(Actions)) =>
    actions.pipe(
      ofType(SessionActions.crewChosen),
      tap(({ crewId }) => keepText(CREW_KEY, crewId)),
    ),
  { functional: true, dispatch: false },
);
