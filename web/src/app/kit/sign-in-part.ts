import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { faultAt, pinFault, type SignInHouse } from '@voltrek/contracts';
import { Store } from '@ngrx/store';
import { browserSupportsWebAuthn, startRegistration } from '@simplewebauthn/browser';
import { firstValueFrom, type Observable } from 'rxjs';
import { Api } from '../shared/data/api';
import { problemText } from '../shared/data/problem';
import { atWork, crewCopy } from '../shared/data/crew';
import { sessionFeature } from '../shared/data/session';
import { SignInActions } from '../shared/data/sign-in';
import { LeaveDevice } from '../shared/sync/leave-device';
import { PinField } from '../shared/ui/pin-field';
import { isNamedHost } from '../shared/ui/named-host';
import { nameOf } from '@words/figures';
import { When } from '../shared/ui/when';
import { AUDIT_WORDS, SIGN_IN_PART as T } from '@words/screens/sign-in';
import { faultText } from '@words/fault-words';

/** Sign-in of the house: whether it is required, who has a PIN or passkey, who is signed in, and the log of it. */
@Component({
  selector: 'vt-sign-in-part',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [PinField, When],
  template: `
    <section aria-labelledby="door-title">
      <h2 id="door-title">{{ t.signIn }}</h2>
      @if (problem(); as text) {
        <p class="problem" role="alert">{{ text }}</p>
      }
      @if (house(); as h) {
        <p>{{ h.required ? t.isRequired : t.isOpen }}</p>
        @if (isLead()) {
          @if (ownPinIsSet()) {
            <form class="line" (submit)="$event.preventDefault(); turn(!h.required)">
              <vt-pin-field [label]="t.leadsPin" [(pin)]="doorPin" />
              <button type="submit" class="key" [disabled]="isBusy() || doorPin() === ''">
                {{ h.required ? t.open : t.require }}
              </button>
            </form>
          } @else {
            <p class="dim">{{ t.leadPinFirst }}</p>
          }
        }
        <ul class="ruled">
          @for (one of people(); track one.crewId) {
            <li>
              <strong>{{ one.name }}</strong>
              <span class="dim">{{
                one.lockedUntil
                  ? t.lockedUntil({ time: one.lockedUntil | when: 'time' })
                  : one.hasPin
                    ? t.hasPin
                    : t.hasNoPin
              }}</span>
              @if (one.mayBeSet) {
                <button
                  type="button"
                  class="key"
                  [attr.aria-expanded]="setting() === one.crewId"
                  (click)="begin(one.crewId)"
                >
                  {{ t.setPin }}
                </button>
              }
              @if (setting() === one.crewId) {
                <form class="line" (submit)="$event.preventDefault(); savePin(one.crewId)">
                  <vt-pin-field
                    [label]="t.pinOf({ name: one.name })"
                    autocomplete="new-password"
                    [(pin)]="newPin"
                  />
                  @if (newPin().length > 5 && newPinFault(); as why) {
                    <span class="tone-bad" role="status">{{ why }}</span>
                  }
                  @if (ownPinIsSet()) {
                    <vt-pin-field [label]="t.ownPin" [(pin)]="ownPin" />
                  }
                  <button type="submit" class="key" [disabled]="isBusy() || newPinFault() !== null">
                    {{ t.save }}
                  </button>
                  <button type="button" class="key" (click)="setting.set(null)">{{ t.cancel }}</button>
                </form>
              }
            </li>
          }
        </ul>
        @if (h.required) {
          <h3>{{ t.devices }}</h3>
          <ul class="ruled">
            @for (s of h.sessions; track s.id) {
              <li>
                <strong>{{ nameOf(s.crewId) }}</strong>
                <span class="dim">
                  {{ s.isThisDevice ? t.thisDevice : s.device || t.unknownDevice }},
                  {{ s.handedOverAt ? t.handedOver : t.lastSeen({ time: s.seenAt | when: 'dayTime' }) }}
                </span>
                <button
                  type="button"
                  class="key"
                  [disabled]="isBusy()"
                  [attr.aria-label]="
                    t.endNamed({ name: nameOf(s.crewId), device: s.isThisDevice ? t.thisDevice : s.device })
                  "
                  (click)="end(s.id, s.isThisDevice)"
                >
                  {{ t.end }}
                </button>
              </li>
            }
          </ul>
          <h3>{{ t.passkeys }}</h3>
          <ul class="ruled">
            @for (key of h.passkeys; track key.id) {
              <li>
                <strong>{{ nameOf(key.crewId) }}</strong>
                <span class="dim">{{ key.name }}, {{ t.since({ time: key.createdAt | when: 'date' }) }}</span>
                <button
                  type="button"
                  class="key"
                  [disabled]="isBusy()"
                  [attr.aria-label]="t.removeNamed({ name: nameOf(key.crewId) })"
                  (click)="ask(api.removePasskey(key.id))"
                >
                  {{ t.remove }}
                </button>
              </li>
            } @empty {
              <li class="dim">{{ t.noPasskeys }}</li>
            }
          </ul>
          <div class="keys">
            @if (takesPasskeys) {
              <button type="button" class="key" [disabled]="isBusy()" (click)="addPasskey()">
                {{ t.addPasskey }}
              </button>
            } @else {
              <p class="dim">{{ t.passkeyNeedsName }}</p>
            }
            <button type="button" class="key" [disabled]="isBusy()" (click)="signOut()">
              {{ t.signOut }}
            </button>
          </div>
        }
        @if (h.audit.length > 0) {
          <details>
            <summary>{{ t.done }}</summary>
            <ul class="ruled audit">
              @for (line of h.audit; track line.position) {
                <li>
                  <span class="dim">{{ line.at | when: 'dayTime' }}</span>
                  <strong>{{ line.by === null ? t.nobody : nameOf(line.by) }}</strong>
                  <span>{{ words[line.kind] }}{{ about(line.by, line.about) }}</span>
                </li>
              }
            </ul>
          </details>
        }
      }
    </section>
  `,
  styles: `
    @use 'media';

    section {
      display: block;
      margin-top: 26px;
    }
    li {
      display: grid;
      grid-template-columns: 180px 1fr auto;
      align-items: center;
      gap: 8px 16px;
      padding: 8px 0;
    }
    li .line {
      grid-column: 1 / -1;
    }
    .line {
      display: flex;
      flex-wrap: wrap;
      align-items: end;
      gap: 10px 14px;
      margin: 6px 0;
    }
    h3 {
      margin: 18px 0 4px;
      font-size: var(--text-m);
    }
    .keys {
      margin-top: 10px;
    }
    summary {
      min-height: 48px;
      padding: 12px 0;
      font-weight: 600;
    }
    .audit {
      max-height: 40vh;
      overflow-y: auto;
    }
    @include media.phone {
      li {
        grid-template-columns: 1fr;
      }
    }
  `,
})
export class SignInPart {
  protected readonly t = T;
  protected readonly words = AUDIT_WORDS;

  protected readonly api = inject(Api);
  private readonly store = inject(Store);
  private readonly leaveDevice = inject(LeaveDevice);
  private readonly crew = this.store.selectSignal(crewCopy.selectCopy);
  private readonly crewId = this.store.selectSignal(sessionFeature.selectCrewId);

  protected readonly takesPasskeys = browserSupportsWebAuthn() && isNamedHost(location.hostname);
  protected readonly house = signal<SignInHouse | null>(null);
  protected readonly problem = signal<string | null>(null);
  protected readonly isBusy = signal(false);
  protected readonly setting = signal<string | null>(null);
  protected readonly newPin = signal('');
  protected readonly ownPin = signal('');
  protected readonly doorPin = signal('');
  protected readonly newPinFault = computed(() => {
    const code = pinFault(this.newPin());
    return code && faultText(faultAt('pin', code));
  });
  protected readonly isLead = this.store.selectSignal(sessionFeature.selectIsLead);
  protected readonly ownPinIsSet = computed(
    () => this.house()?.crew.some(({ crewId, hasPin }) => crewId === this.crewId() && hasPin) ?? false,
  );
  protected readonly people = computed(() =>
    (this.house()?.crew ?? [])
      .filter(({ crewId }) => atWork(this.crew()).some(({ id }) => id === crewId))
      .map((one) => ({
        ...one,
        name: this.nameOf(one.crewId),
        mayBeSet: this.isLead() || one.crewId === this.crewId(),
      })),
  );

  constructor() {
    this.ask(this.api.signInHouse());
  }

  protected nameOf(crewId: string): string {
    return nameOf(this.crew(), crewId);
  }

  /** Whom or what a line is about, where that is not whoever did it. */
  protected about(by: string | null, about: string): string {
    return about === by ? '' : `: ${this.nameOf(about)}`;
  }

  protected begin(crewId: string): void {
    this.newPin.set('');
    this.ownPin.set('');
    this.setting.set(this.setting() === crewId ? null : crewId);
  }

  protected savePin(crewId: string): void {
    const { newPin, ownPin } = this;
    const change = { by: this.crewId(), pin: newPin(), ...(this.ownPinIsSet() && { ownPin: ownPin() }) };
    this.ask(this.api.setPin(crewId, change), () => this.setting.set(null));
  }

  protected turn(required: boolean): void {
    this.ask(this.api.setSignInRule({ by: this.crewId(), required, pin: this.doorPin() }), () => {
      this.doorPin.set('');
      this.store.dispatch(SignInActions.asked());
    });
  }

  protected end(sessionId: string, isHere: boolean): void {
    this.ask(this.api.endSession(sessionId), () => {
      if (isHere) void this.leave();
    });
  }

  protected signOut(): void {
    this.api.signOut().subscribe({
      next: () => void this.leave(),
      error: (error: unknown) => this.problem.set(problemText(error)),
    });
  }

  /** Nobody is in on this device any more: what it kept goes, and what this page still shows with it. */
  private async leave(): Promise<void> {
    await this.leaveDevice.empty();
    location.assign('/');
  }

  protected async addPasskey(): Promise<void> {
    const by = this.crewId();
    try {
      const optionsJSON = await firstValueFrom(this.api.newPasskeyQuestion(by));
      this.ask(this.api.addPasskey(by, T.passkeyName, await startRegistration({ optionsJSON })));
    } catch (error) {
      this.problem.set(
        error instanceof Error && error.name === 'NotAllowedError' ? null : problemText(error),
      );
    }
  }

  protected ask(request: Observable<SignInHouse>, then: () => void = () => undefined): void {
    this.isBusy.set(true);
    this.problem.set(null);
    request.subscribe({
      next: (house) => {
        this.house.set(house);
        this.isBusy.set(false);
        then();
      },
      error: (error: unknown) => {
        this.problem.set(problemText(error));
        this.isBusy.set(false);
      },
    });
  }
}
