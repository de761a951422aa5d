import { ChangeDetectionStrategy, Component, computed, inject, model, signal } from '@angular/core';
import { PIN_DIGITS, type SignInState } from '@voltrek/contracts';
import { NgbActiveModal } from '@ng-bootstrap/ng-bootstrap/modal';
import { Store } from '@ngrx/store';
import { browserSupportsWebAuthn, startAuthentication } from '@simplewebauthn/browser';
import { firstValueFrom } from 'rxjs';
import { jobFeature } from '../shared/model/job-state';
import { Api } from '../shared/data/api';
import { isTransient, problemText } from '../shared/data/problem';
import { SessionActions, sessionFeature } from '../shared/data/session';
import { SignInActions, signInFeature } from '../shared/data/sign-in';
import { SIGN_IN_DIALOG as T } from '@words/screens/sign-in';
import { Versions } from './versions';
import { PinField } from '../shared/ui/pin-field';
import { isNamedHost } from '../shared/ui/named-host';

/** Sign-in: who takes this device, and their PIN or passkey. A device that nobody signed in on before gets no names. */
@Component({
  selector: 'vt-sign-in-dialog',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [PinField],
  template: `
    <form class="sheet" (submit)="$event.preventDefault(); enter()">
      <h1 id="sign-in-title">{{ t.signIn }}</h1>
      @if (names().length > 0) {
        <div class="names" role="group" [attr.aria-label]="t.whoAreYou">
          @for (one of names(); track one.id) {
            <button type="button" class="key" [attr.aria-pressed]="who() === one.id" (click)="choose(one.id)">
              {{ one.name }}
            </button>
          }
        </div>
      } @else {
        <label
          ><span>{{ t.yourName }}</span
          ><input
            class="field"
            autocomplete="username"
            maxlength="40"
            [value]="who()"
            #typed
            (input)="choose(typed.value)"
        /></label>
      }
      @if (lacksPin(); as name) {
        <p class="caution">{{ t.noPinYet({ name }) }}</p>
      }
      <vt-pin-field [label]="t.pin" autocomplete="current-password" [(pin)]="pin" />
      <div class="pad" role="group" [attr.aria-label]="t.digits">
        @for (digit of digits; track digit) {
          <button type="button" class="key" (click)="press(digit)">{{ digit }}</button>
        }
        <button
          type="button"
          class="key"
          [attr.aria-label]="t.deleteLast"
          (click)="pin.set(pin().slice(0, -1))"
        >
          <i class="bi bi-backspace" aria-hidden="true"></i>
        </button>
      </div>
      @if (problem(); as text) {
        <p class="problem" role="alert">{{ text }}</p>
      }
      <div class="keys">
        <button type="submit" class="key go" [disabled]="isBusy() || who() === '' || pin() === ''">
          {{ t.signIn }}
        </button>
        @if (takesPasskeys) {
          <button type="button" class="key" [disabled]="isBusy()" (click)="usePasskey()">
            {{ t.useAPasskey }}
          </button>
        }
        @if (mayGoOn()) {
          <button type="button" class="key" (click)="goOnWithout()">{{ t.goOnWithout }}</button>
        }
        <button type="button" class="key" (click)="putOff()">{{ t.later }}</button>
      </div>
      @if (!isHeld()) {
        <p class="dim">{{ t.tapsWait }}</p>
      }
    </form>
  `,
  styles: `
    .names {
      display: grid;
      grid-template-columns: repeat(auto-fill, minmax(140px, 1fr));
      gap: 8px;
    }
    .names .key {
      min-height: 56px;
      font-size: var(--text-m);
    }
    [aria-pressed='true'] {
      box-shadow: inset 7px 0 0 var(--lamp);
    }
    label {
      display: grid;
      gap: 4px;
    }
    .pad {
      display: grid;
      grid-template-columns: repeat(3, 1fr);
      gap: 6px;
    }
    .pad .key {
      min-height: 52px;
      font-size: var(--text-l);
    }
    .pad .key:last-child {
      grid-column: span 2;
    }
  `,
})
export class SignInDialog {
  protected readonly t = T;

  private readonly api = inject(Api);
  private readonly store = inject(Store);
  private readonly modal = inject(NgbActiveModal);
  private readonly state = this.store.selectSignal(signInFeature.selectState);
  private readonly crewId = this.store.selectSignal(sessionFeature.selectCrewId);
  private readonly jobId = this.store.selectSignal(jobFeature.selectJobId);
  private readonly versions = inject(Versions);
  private readonly request = this.store.selectSignal(signInFeature.selectRequest);

  protected readonly digits = ['1', '2', '3', '4', '5', '6', '7', '8', '9', '0'];
  protected readonly takesPasskeys = browserSupportsWebAuthn() && isNamedHost(location.hostname);
  protected readonly names = computed(() => (this.state()?.names ?? []).filter(({ hasPin }) => hasPin));
  private readonly chosen = signal<string | null>(null);
  /** The tapped person; before that the wanted one, or the one who worked here last. */
  protected readonly who = computed(() => {
    const meant = this.chosen() ?? this.request()?.crewId ?? this.crewId();
    const isListed = this.names().some(({ id }) => id === meant);
    return this.names().length === 0 ? (this.chosen() ?? '') : isListed ? meant : '';
  });
  /** Somebody holds the device, and hands it over. */
  protected readonly isHeld = computed(() => this.state()?.crewId != null);
  /** The name of whoever was asked for and cannot come in yet. */
  protected readonly lacksPin = computed(() => {
    const asked = this.request()?.crewId ?? null;
    const one = this.state()?.names.find(({ id }) => id === asked);
    return this.chosen() === null && one?.hasPin === false ? one.name : null;
  });
  protected readonly pin = model('');
  protected readonly isBusy = signal(false);
  protected readonly problem = signal<string | null>(null);
  /** No server answers, and it is known who asks: their taps wait here under their name. */
  protected readonly mayGoOn = signal(false);

  protected choose(who: string): void {
    this.chosen.set(who);
    this.problem.set(null);
  }

  protected press(digit: string): void {
    this.pin.update((pin) => (pin.length < PIN_DIGITS.max ? pin + digit : pin));
  }

  protected async enter(): Promise<void> {
    if (this.isBusy() || this.who() === '' || this.pin() === '') return;
    await this.come(() => firstValueFrom(this.api.signInByPin(this.who(), this.pin())));
    this.pin.set('');
  }

  protected usePasskey(): Promise<void> {
    return this.come(async () => {
      const optionsJSON = await firstValueFrom(this.api.passkeyQuestion());
      return firstValueFrom(this.api.signInByPasskey(await startAuthentication({ optionsJSON })));
    });
  }

  protected goOnWithout(): void {
    this.store.dispatch(SessionActions.crewChosen({ crewId: this.who() }));
    this.putOff();
  }

  protected putOff(): void {
    this.store.dispatch(SignInActions.putOff());
    this.modal.dismiss();
  }

  private async come(prove: () => Promise<SignInState>): Promise<void> {
    this.isBusy.set(true);
    this.problem.set(null);
    try {
      // Requests of a page before anybody was in stay unanswered: outside a job it starts anew.
      const startsAnew = this.state()?.crewId == null && this.jobId() === null;
      this.store.dispatch(SignInActions.cameIn({ state: await prove() }));
      this.modal.close();
      if (startsAnew) this.versions.reload();
    } catch (error) {
      // A passkey that was not shown is no error of anybody's.
      const isPutAway = error instanceof Error && error.name === 'NotAllowedError';
      this.problem.set(isPutAway ? T.noPasskeyShown : problemText(error));
      this.mayGoOn.set(isTransient(error) && this.names().some(({ id }) => id === this.who()));
    } finally {
      this.isBusy.set(false);
    }
  }
}
