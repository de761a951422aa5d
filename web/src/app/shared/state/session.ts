import { inject } from '@angular/core';
import type { CrewMember } from '@voltrek/contracts';
import { Actions, createEffect, ofType, ROOT_EFFECTS_INIT } from '@ngrx/effects';
import { createActionGroup, createFeature, createReducer, emptyProps, on, props } from '@ngrx/store';
import { switchMap, tap } from 'rxjs';
import { Api } from './api';
import { answered } from './answered';

export const LIGHTS = ['day', 'dusk', 'night'] as const;
export type Light = (typeof LIGHTS)[number];

interface SessionState {
  readonly light: Light;
  readonly crew: readonly CrewMember[];
  readonly crewId: string;
}

const LIGHT_KEY = 'voltrek.light';
const CREW_KEY = 'voltrek.crew';

export const SessionActions = createActionGroup({
  source: 'Session',
  events: {
    'Light Chosen': props<{ light: Light }>(),
    'Crew Chosen': props<{ crewId: string }>(),
    'Crew Wanted': emptyProps(),
    'Crew Loaded': props<{ crew: readonly CrewMember[] }>(),
    'Crew Failed': props<{ problem: string }>(),
  },
});

function storedLight(): Light {
  const stored = localStorage.getItem(LIGHT_KEY);
  return LIGHTS.find((light) => light === stored) ?? 'day';
}

const initial: SessionState = {
  light: storedLight(),
  crew: [],
  crewId: localStorage.getItem(CREW_KEY) ?? '',
};

/** Who works here and in what light. */
export const sessionFeature = createFeature({
  name: 'session',
  reducer: createReducer(
    initial,
    on(SessionActions.lightChosen, (state, { light }) => ({ ...state, light })),
    on(SessionActions.crewChosen, (state, { crewId }) => ({ ...state, crewId })),
    on(SessionActions.crewLoaded, (state, { crew }) => ({
      ...state,
      crew,
      crewId: crew.some((c) => c.id === state.crewId) ? state.crewId : (crew[0]?.id ?? ''),
    })),
  ),
});

export const loadCrew = createEffect(
  (actions = inject(Actions), api = inject(Api)) =>
    actions.pipe(
      ofType(ROOT_EFFECTS_INIT, SessionActions.crewWanted),
      switchMap(() =>
        answered(api.crew(), (crew) => SessionActions.crewLoaded({ crew }), SessionActions.crewFailed),
      ),
    ),
  { functional: true },
);

export const keepLight = createEffect(
  (actions = inject(Actions)) =>
    actions.pipe(
      ofType(SessionActions.lightChosen),
      tap(({ light }) => localStorage.setItem(LIGHT_KEY, light)),
    ),
  { functional: true, dispatch: false },
);

export const keepCrew = createEffect(
  (actions = inject(Actions)) =>
    actions.pipe(
      ofType(SessionActions.crewChosen),
      tap(({ crewId }) => localStorage.setItem(CREW_KEY, crewId)),
    ),
  { functional: true, dispatch: false },
);
