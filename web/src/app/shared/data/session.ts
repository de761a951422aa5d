import { inject } from '@angular/core';
import type { CrewMember } from '@voltrek/contracts';
import { Actions, createEffect, ofType } from '@ngrx/effects';
import { createActionGroup, createFeature, createReducer, createSelector, on, props } from '@ngrx/store';
import { tap } from 'rxjs';
import { atWork, crewCopy } from './crew';
import { keepText, keptText } from './kept';

export const LIGHTS = ['day', 'dusk', 'night'] as const;
export type Light = (typeof LIGHTS)[number];

interface SessionState {
  readonly light: Light;
  /** The person chosen on this device; empty until one is. */
  readonly chosenCrewId: string;
  /** The van that new jobs are worked from; empty until one is chosen. */
  readonly vanId: string;
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
  },
});

/** Returns the person chosen on this device, or the only one there is; empty until somebody says so. */
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
  chosenCrewId: keptText(CREW_KEY) ?? '',
  vanId: keptText(VAN_KEY) ?? '',
};

/** The person at work and the light. */
export const sessionFeature = createFeature({
  name: 'session',
  extraSelectors: ({ selectChosenCrewId }) => {
    const selectCrewId = createSelector(
      selectChosenCrewId,
      crewCopy.selectCopy,
      crewCopy.selectIsKnown,
      (chosen, crew, isKnown) => (isKnown ? whoIs(chosen, atWork(crew)) : chosen),
    );
    return {
      selectCrewId,
      /** Somebody works here, and nobody has said who holds this device. */
      selectAsksWho: createSelector(
        crewCopy.selectCopy,
        selectCrewId,
        crewCopy.selectIsKnown,
        (crew, crewId, isKnown) => isKnown && crewId === '' && atWork(crew).length > 0,
      ),
      /** True where the holder of this device leads the crew. */
      selectIsLead: createSelector(
        crewCopy.selectCopy,
        selectCrewId,
        (crew, crewId) => crew.find(({ id }) => id === crewId)?.role === 'crew-lead',
      ),
    };
  },
  reducer: createReducer(
    initial,
    on(SessionActions.lightChosen, (state, { light }) => ({ ...state, light })),
    on(SessionActions.crewChosen, (state, { crewId }) => ({ ...state, chosenCrewId: crewId })),
    on(SessionActions.vanChosen, (state, { vanId }) => ({ ...state, vanId })),
  ),
});

/** Keeps the choices of this device over a restart. */
export const keepSession = createEffect(
  (actions = inject(Actions)) =>
    actions.pipe(
      ofType(SessionActions.lightChosen, SessionActions.crewChosen, SessionActions.vanChosen),
      tap((action) => {
        if (action.type === SessionActions.lightChosen.type) keepText(LIGHT_KEY, action.light);
        else if (action.type === SessionActions.crewChosen.type) keepText(CREW_KEY, action.crewId);
        else keepText(VAN_KEY, action.vanId);
      }),
    ),
  { functional: true, dispatch: false },
);
