import type { HttpInterceptorFn } from '@angular/common/http';
import { inject } from '@angular/core';
import type { SignInState } from '@voltrek/contracts';
import { Actions, createEffect, ofType, ROOT_EFFECTS_INIT } from '@ngrx/effects';
import {
  createActionGroup,
  createFeature,
  createReducer,
  createSelector,
  emptyProps,
  on,
  props,
  Store,
} from '@ngrx/store';
import { catchError, EMPTY, exhaustMap, filter, map, mergeMap, of, throwError } from 'rxjs';
import { JobActions, jobFeature } from '../model/job-state';
import { Api } from './api';
import { kitCopy } from './kit';
import { isSignInRequired } from './problem';
import { rulesCopy } from './rules';
import { crewCopy } from './crew';
import { SessionActions } from './session';

/** The requested person: by id, or anybody. */
export interface SignInRequest {
  readonly crewId: string | null;
}

interface SignInSlice {
  /** Null until the server said how this device stands with it. */
  readonly state: SignInState | null;
  /** The server does not know, or that nobody can be asked: until then nobody is asked who works here. */
  readonly isSettled: boolean;
  /** Something waits for somebody to sign in. */
  readonly request: SignInRequest | null;
  /** The person chosen on this device before the server answered whether that takes a PIN. */
  readonly chosenEarly: string | null;
}

export const SignInActions = createActionGroup({
  source: 'Sign In',
  events: {
    /** The server is asked how this device stands with it. */
    Asked: emptyProps(),
    Answered: props<{ state: SignInState }>(),
    Unanswered: emptyProps(),
    /** Somebody came in on this device. */
    'Came In': props<{ state: SignInState }>(),
    /** The server would not answer before somebody signs in. */
    Requested: props<SignInRequest>(),
    /** It waits. */
    'Put Off': emptyProps(),
  },
});

const initial: SignInSlice = { state: null, isSettled: false, request: null, chosenEarly: null };

/** Asks for sign-in, after the server answered how this device stands. */
function requestNow(
  { request, chosenEarly }: SignInSlice,
  { required, crewId, signedIn }: SignInState,
): SignInRequest | null {
  if (!required) return request;
  // The choice was made: it only waits for the PIN that it takes.
  if (chosenEarly !== null && chosenEarly !== crewId) return { crewId: chosenEarly };
  if (crewId === null) return request ?? { crewId: null };
  // A request that went out before somebody came in is answered late: the requested person is here.
  return openRequest(request, signedIn);
}

/** Returns the person whose taps still wait for them; null where that person is signed in. */
const openRequest = (
  request: SignInRequest | null,
  signedIn: SignInState['signedIn'],
): SignInRequest | null => (request?.crewId != null && !signedIn.includes(request.crewId) ? request : null);

/** The sign-in state of this device. */
export const signInFeature = createFeature({
  name: 'signIn',
  reducer: createReducer(
    initial,
    on(
      SessionActions.crewChosen,
      (slice, { crewId }): SignInSlice => (slice.isSettled ? slice : { ...slice, chosenEarly: crewId }),
    ),
    on(
      SignInActions.answered,
      (slice, { state }): SignInSlice => ({
        state,
        isSettled: true,
        request: requestNow(slice, state),
        chosenEarly: null,
      }),
    ),
    on(SignInActions.unanswered, (slice): SignInSlice => ({ ...slice, isSettled: true, chosenEarly: null })),
    on(
      SignInActions.cameIn,
      (slice, { state }): SignInSlice => ({
        ...slice,
        state,
        isSettled: true,
        request: openRequest(slice.request, state.signedIn),
      }),
    ),
    on(
      SignInActions.requested,
      (slice, { crewId }): SignInSlice => ({
        ...slice,
        request: { crewId: crewId ?? slice.request?.crewId ?? null },
      }),
    ),
    on(SignInActions.putOff, (slice): SignInSlice => ({ ...slice, request: null })),
  ),
  extraSelectors: ({ selectState }) => ({
    /** Nothing goes to the server or comes from it before somebody signs in. */
    selectIsShut: createSelector(
      selectState,
      (state) => state !== null && state.required && state.crewId === null,
    ),
  }),
});

export const askSignIn = createEffect(
  (actions = inject(Actions), api = inject(Api)) =>
    actions.pipe(
      ofType(ROOT_EFFECTS_INIT, SignInActions.asked),
      exhaustMap(() =>
        api.signIn().pipe(
          map((state) => SignInActions.answered({ state })),
          catchError(() => of(SignInActions.unanswered())),
        ),
      ),
    ),
  { functional: true },
);

/** A device that was started with no network learns how it stands once there is one. */
export const askLate = createEffect(
  (actions = inject(Actions), store = inject(Store)) => {
    const slice = store.selectSignal(signInFeature.selectSignInState);
    return actions.pipe(
      ofType(JobActions.connectionChanged),
      filter(({ connected }) => connected && slice().isSettled && slice().state === null),
      map(() => SignInActions.asked()),
    );
  },
  { functional: true },
);

/** The holder of the device works on it; taps that waited for them go on. */
export const goOn = createEffect(
  (actions = inject(Actions), store = inject(Store)) => {
    const jobId = store.selectSignal(jobFeature.selectJobId);
    return actions.pipe(
      ofType(SignInActions.answered, SignInActions.cameIn),
      mergeMap(({ type, state: { crewId } }) => {
        if (crewId === null) return EMPTY;
        const chosen = SessionActions.crewChosen({ crewId });
        if (type === SignInActions.answered.type) return of(chosen);
        const open = jobId();
        return of(
          chosen,
          crewCopy.requested(),
          kitCopy.requested(),
          rulesCopy.requested(),
          JobActions.connectionChanged({ connected: true }),
          ...(open ? [JobActions.caughtUpWanted({ jobId: open })] : []),
        );
      }),
    );
  },
  { functional: true },
);

/** Tells once of a request that the server will not answer before somebody signs in, whoever made it; how the device stands is asked anew. */
export const catchUnauthorized: HttpInterceptorFn = (request, next) => {
  const store = inject(Store);
  return next(request).pipe(
    catchError((error: unknown) => {
      if (isSignInRequired(error) && !request.url.startsWith('/api/sign-in')) {
        const { by } = (request.body ?? {}) as { readonly by?: unknown };
        store.dispatch(SignInActions.requested({ crewId: typeof by === 'string' ? by : null }));
        store.dispatch(SignInActions.asked());
      }
      return throwError(() => error);
    }),
  );
};
