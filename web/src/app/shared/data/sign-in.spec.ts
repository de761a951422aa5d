import { HttpClient, HttpErrorResponse, provideHttpClient, withInterceptors } from '@angular/common/http';
import { HttpTestingController, provideHttpClientTesting } from '@angular/common/http/testing';
import { provideZonelessChangeDetection } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { provideEffects } from '@ngrx/effects';
import { provideState, provideStore, ScannedActionsSubject, Store } from '@ngrx/store';
import { filter } from 'rxjs';
import { signInState } from '../../../testing/fixtures';
import { JobActions, jobFeature } from '../model/job-state';
import { kitCopy } from './kit';
import { crewCopy } from './crew';
import { SessionActions, sessionFeature } from './session';
import { askLate, askSignIn, goOn, catchUnauthorized, SignInActions, signInFeature } from './sign-in';

describe('a shut door', () => {
  let store: Store;
  let http: HttpTestingController;
  let done: string[];

  beforeEach(() => {
    TestBed.configureTestingModule({
      providers: [
        provideZonelessChangeDetection(),
        provideStore(),
        provideState(sessionFeature),
        provideState(crewCopy),
        provideState(signInFeature),
        provideState(jobFeature),
        provideState(kitCopy),
        provideHttpClient(withInterceptors([catchUnauthorized])),
        provideHttpClientTesting(),
        provideEffects({ askLate, askSignIn, goOn }),
      ],
    });
    store = TestBed.inject(Store) as Store;
    http = TestBed.inject(HttpTestingController);
    done = [];
    TestBed.inject(ScannedActionsSubject)
      .pipe(filter(({ type }) => type.startsWith('[Job]') || type.startsWith('[Session]')))
      .subscribe(({ type }) => done.push(type));
    http.expectOne('/api/sign-in').flush(signInState({}));
  });
  const slice = () => store.selectSignal(signInFeature.selectSignInState)();
  const shut = (): void => {
    const asked = http.expectOne(
      (request) => request.url.startsWith('/api/jobs') || request.url === '/api/board',
    );
    asked.flush({ status: 401 }, { status: 401, statusText: 'Unauthorized' });
  };

  it('is told at the start to a device that nobody is in on', () => {
    expect(slice()).toEqual({
      state: signInState({}),
      isSettled: true,
      request: { crewId: null },
      chosenEarly: null,
    });
    store.dispatch(SignInActions.putOff());
    expect(slice().request).toBeNull();
  });

  it('keeps everything back until somebody is in, and nothing because somebody else is wanted', () => {
    const isShut = store.selectSignal(signInFeature.selectIsShut);
    expect(isShut()).toBeTrue();
    store.dispatch(SignInActions.putOff());
    expect(isShut()).toBeTrue();
    store.dispatch(SignInActions.cameIn({ state: signInState({ crewId: 'crew-1', signedIn: ['crew-1'] }) }));
    expect(isShut()).toBeFalse();
    store.dispatch(SignInActions.requested({ crewId: 'crew-2' }));
    expect(isShut()).toBeFalse();
    store.dispatch(SignInActions.answered({ state: signInState({ required: false }) }));
    expect(isShut()).toBeFalse();
  });

  it('asks nobody who is in: a request of before is answered late, and the server tells how the device stands', () => {
    const state = signInState({ crewId: 'crew-1', signedIn: ['crew-1'] });
    const asked = TestBed.inject(HttpClient).get('/api/board');
    asked.subscribe({ error: () => undefined });
    store.dispatch(SignInActions.cameIn({ state }));
    expect(slice().request).toBeNull();
    shut();
    expect(slice().request).withContext('until the server told').not.toBeNull();
    http.expectOne('/api/sign-in').flush(state);
    expect(slice().request).toBeNull();
  });

  it('is told by any answer, with whose tap it was; a later one without a name does not forget that', () => {
    const send = (url: string, by?: string): void => {
      TestBed.inject(HttpClient)
        .post(url, { by })
        .subscribe({ error: (error: unknown) => expect(error).toBeInstanceOf(HttpErrorResponse) });
      shut();
      for (const asked of http.match('/api/sign-in')) asked.flush(signInState({}));
    };
    send('/api/jobs/j/events', 'crew-2');
    expect(slice().request).toEqual({ crewId: 'crew-2' });
    send('/api/board');
    expect(slice().request).toEqual({ crewId: 'crew-2' });
  });

  it('lets what waited go on when somebody has come in, under their name', () => {
    store.dispatch(JobActions.opened({ jobId: 'job-1' }));
    done = [];
    store.dispatch(SignInActions.cameIn({ state: signInState({ crewId: 'crew-1', signedIn: ['crew-1'] }) }));
    expect(slice().request).toBeNull();
    expect(done).toContain(JobActions.connectionChanged.type);
    expect(done).toContain(JobActions.caughtUpWanted.type);
    expect(done).toContain(SessionActions.crewChosen.type);
    expect(store.selectSignal(sessionFeature.selectCrewId)()).toBe('crew-1');
  });

  it('still wants whoever tapped when somebody else came in', () => {
    store.dispatch(SignInActions.requested({ crewId: 'crew-2' }));
    store.dispatch(SignInActions.cameIn({ state: signInState({ crewId: 'crew-1', signedIn: ['crew-1'] }) }));
    expect(slice().request).toEqual({ crewId: 'crew-2' });
    store.dispatch(
      SignInActions.cameIn({ state: signInState({ crewId: 'crew-2', signedIn: ['crew-1', 'crew-2'] }) }),
    );
    expect(slice().request).toBeNull();
  });

  it('is not asked of whoever reaches an open one', () => {
    store.dispatch(SignInActions.putOff());
    store.dispatch(SignInActions.answered({ state: signInState({ required: false }) }));
    expect(slice().request).toBeNull();
  });
});

describe('a device that is started with no network', () => {
  it('learns how it stands once there is one, and asks no more when it knows', () => {
    TestBed.configureTestingModule({
      providers: [
        provideZonelessChangeDetection(),
        provideStore(),
        provideState(signInFeature),
        provideHttpClient(),
        provideHttpClientTesting(),
        provideEffects({ askLate, askSignIn }),
      ],
    });
    const store = TestBed.inject(Store) as Store;
    const http = TestBed.inject(HttpTestingController);
    const comes = (connected: boolean): void => store.dispatch(JobActions.connectionChanged({ connected }));
    http.expectOne('/api/sign-in').error(new ProgressEvent('error'));
    comes(false);
    http.expectNone('/api/sign-in');
    comes(true);
    http.expectOne('/api/sign-in').flush(signInState({ crewId: 'crew-1', role: 'technician' }));
    expect(store.selectSignal(signInFeature.selectState)()?.role).toBe('technician');
    comes(false);
    comes(true);
    http.expectNone('/api/sign-in');
  });
});

describe('a name that is chosen before the door told how it stands', () => {
  const { reducer } = signInFeature;
  const fresh = reducer(undefined, { type: 'begin' });
  const chosen = SessionActions.crewChosen({ crewId: 'crew-1' });
  const told = (state: Parameters<typeof signInState>[0]) =>
    SignInActions.answered({ state: signInState(state) });
  const heldBy2 = told({ crewId: 'crew-2' });

  it('is asked for its PIN once that is known, and once only', () => {
    const slice = [chosen, heldBy2].reduce(reducer, fresh);
    expect(slice.request).toEqual({ crewId: 'crew-1' });
    expect([SignInActions.putOff(), heldBy2].reduce(reducer, slice).request).toBeNull();
  });

  it('is asked nothing where it holds the device already, or where no PIN is taken', () => {
    expect([chosen, told({ crewId: 'crew-1' })].reduce(reducer, fresh).request).toBeNull();
    expect([chosen, told({ required: false })].reduce(reducer, fresh).request).toBeNull();
  });

  it('is forgotten where the server does not answer, and one that comes later is no early one', () => {
    expect([chosen, SignInActions.unanswered(), heldBy2].reduce(reducer, fresh).request).toBeNull();
    expect([heldBy2, chosen, heldBy2].reduce(reducer, fresh).request).toBeNull();
  });
});
