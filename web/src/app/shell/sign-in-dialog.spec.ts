import { HttpErrorResponse } from '@angular/common/http';
import { provideZonelessChangeDetection } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import type { SignInState } from '@voltrek/contracts';
import { NgbActiveModal } from '@ng-bootstrap/ng-bootstrap/modal';
import { provideState, provideStore, Store } from '@ngrx/store';
import { type Observable, of, throwError } from 'rxjs';
import { signInState } from '../../testing/fixtures';
import { jobFeature } from '../shared/model/job-state';
import { Api } from '../shared/data/api';
import { crewCopy } from '../shared/data/crew';
import { sessionFeature } from '../shared/data/session';
import { SignInActions, signInFeature } from '../shared/data/sign-in';
import { isNamedHost } from '../shared/ui/named-host';
import { SignInDialog } from './sign-in-dialog';
import { Versions } from './versions';

const NAMES = [
  { id: 'crew-1', name: 'Ana', hasPin: true },
  { id: 'crew-2', name: 'Bo', hasPin: true },
  { id: 'crew-3', name: 'Cy', hasPin: false },
];
describe('signing in', () => {
  let asked: string[][];
  let answer: Observable<SignInState>;
  let reloads: number;
  let root: HTMLElement;
  let settle: () => Promise<void>;

  async function show(at: SignInState, wanted: string | null = null): Promise<void> {
    [asked, reloads] = [[], 0];
    answer = of(signInState({ crewId: 'crew-1', signedIn: ['crew-1'] }));
    TestBed.configureTestingModule({
      providers: [
        provideZonelessChangeDetection(),
        provideStore(),
        provideState(sessionFeature),
        provideState(crewCopy),
        provideState(signInFeature),
        provideState(jobFeature),
        { provide: NgbActiveModal, useValue: { close: () => undefined, dismiss: () => undefined } },
        { provide: Versions, useValue: { reload: () => reloads++ } },
        {
          provide: Api,
          useValue: {
            signInByPin: (named: string, pin: string) => {
              asked.push([named, pin]);
              return answer;
            },
          },
        },
      ],
    });
    const store = TestBed.inject(Store);
    store.dispatch(SignInActions.answered({ state: at }));
    if (wanted) store.dispatch(SignInActions.requested({ crewId: wanted }));
    const fixture = TestBed.createComponent(SignInDialog);
    root = fixture.nativeElement as HTMLElement;
    settle = async () => {
      await fixture.whenStable();
    };
    await settle();
  }
  const keys = (text: string): HTMLButtonElement[] =>
    [...root.querySelectorAll('button')].filter((key) => key.textContent.trim() === text);
  async function tap(...texts: readonly string[]): Promise<void> {
    for (const text of texts) {
      keys(text)[0]!.click();
      await settle();
    }
  }
  const pressed = (): string[] =>
    [...root.querySelectorAll('[aria-pressed=true]')].map((key) => key.textContent.trim());

  it('is a tap on the name and a PIN by gloved fingers; who has no PIN is not offered', async () => {
    await show(signInState({ names: NAMES }));
    expect(keys('Cy')).toEqual([]);
    expect(keys('Sign in')[0]!.disabled).toBeTrue();
    await tap('Bo', '4', '8', '0', '2', '6', '3', 'Sign in');
    expect(asked).toEqual([['crew-2', '480263']]);
  });

  it('begins with whoever is wanted', async () => {
    await show(signInState({ names: NAMES }), 'crew-2');
    expect(pressed()).toEqual(['Bo']);
    expect(root.textContent).toContain('taps wait on this device');
  });

  it('says that whoever is wanted has no PIN yet; while somebody holds the device no tap waits for this', async () => {
    await show(signInState({ names: NAMES, crewId: 'crew-1', signedIn: ['crew-1'] }), 'crew-3');
    expect(pressed()).toEqual([]);
    expect(root.textContent).toContain('Cy has no PIN yet');
    expect(root.textContent).not.toContain('taps wait');
    await tap('Bo');
    expect(root.textContent).not.toContain('Cy has no PIN yet');
  });

  it('tells a new device no names: one is typed', async () => {
    await show(signInState({}));
    const field = root.querySelector<HTMLInputElement>('input:not([type=password])')!;
    field.value = 'Ana';
    field.dispatchEvent(new Event('input'));
    await tap('1', '9', 'Sign in');
    expect(asked).toEqual([['Ana', '19']]);
  });

  it('says what was wrong, empties the PIN and stays; without a server it lets somebody known go on', async () => {
    await show(signInState({ names: NAMES }));
    const problem = { status: 401, detail: 'That name and PIN do not belong together.' };
    answer = throwError(() => new HttpErrorResponse({ status: 401, error: problem }));
    await tap('Ana', '1', 'Sign in');
    expect(root.querySelector('[role=alert]')!.textContent).toContain('do not belong together');
    expect(root.querySelector<HTMLInputElement>('[type=password]')!.value).toBe('');
    expect(keys('Go on under this name')).toEqual([]);
    answer = throwError(() => new HttpErrorResponse({ status: 0 }));
    await tap('1', 'Sign in', 'Go on under this name');
    expect(TestBed.inject(Store).selectSignal(sessionFeature.selectCrewId)()).toBe('crew-1');
  });

  it('starts the page anew where nobody was in, and not where the device is handed over', async () => {
    await show(signInState({ names: NAMES }));
    await tap('Ana', '1', 'Sign in');
    expect(reloads).toBe(1);
    TestBed.resetTestingModule();
    await show(signInState({ names: NAMES, crewId: 'crew-2', signedIn: ['crew-2'] }));
    await tap('Ana', '1', 'Sign in');
    expect(reloads).toBe(0);
  });

  it('offers passkeys only where the server has a name', () => {
    for (const host of ['localhost', 'depot.test', 'van7']) expect(isNamedHost(host)).toBeTrue();
    for (const host of ['127.0.0.1', '10.0.0.7', '[::1]']) expect(isNamedHost(host)).toBeFalse();
  });
});
