import { ChangeDetectionStrategy, Component, computed, effect, inject, untracked } from '@angular/core';
import { RouterOutlet } from '@angular/router';
import { NgbModal, type NgbModalRef } from '@ng-bootstrap/ng-bootstrap/modal';
import { Store } from '@ngrx/store';
import { KeyHelp } from './shell/key-help';
import { Refusals } from './shell/refusals';
import { TopBar } from './shell/top-bar';
import { Versions } from './shell/versions';
import { WhoWorks } from './shell/who-works';
import { language, languageBy } from './shared/model/language';
import { Languages } from './shared/data/languages';
import { jobFeature } from './shared/model/job-state';
import { ticker } from './shared/job/ticker';
import { lightAt } from './shared/data/light-by-clock';
import { followLight, hasLightSensor, lightFor } from './shared/data/light-by-sensor';
import { crewCopy } from './shared/data/crew';
import { type Light, SessionActions, sessionFeature } from './shared/data/session';
import { signInFeature } from './shared/data/sign-in';
import { settingsFeature } from './shared/data/settings';
import { deviceFeature } from './shared/sync/device-state';
import { DeviceStore } from './shared/sync/device-store';
import { Frames } from './shared/model/frames';
import { timeOfDay } from './shared/model/dates';
import { APP as T } from '@words/screens/app';
import { SIGN_IN_BAR } from '@words/screens/sign-in';
import { areLoaded } from '@words/messages-of';
import { showUnits } from '@words/units';
import { LanguageActions } from './shared/model/shown-language';

/** The messages of the other pages are loaded so long after the first page, ms: its own parts come first. */
const REST_AFTER_MS = 4_000;

/** How often it is looked what light the hour asks for, ms. */
const CLOCK_MS = 60_000;

/** The frame around every screen. */
@Component({
  selector: 'vt-root',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Refusals, RouterOutlet, TopBar],
  host: { '(document:keydown)': 'onKey($event)' },
  template: `
    <button type="button" class="key skip" (click)="skip()">{{ t.skip }}</button>
    @for (spoken of [language()]; track spoken) {
      <vt-top-bar />
    }
    @if (versions.reloadReason(); as why) {
      <div class="bar" role="status">
        <span>{{ why === 'newer' ? t.newerVersion : t.partMissing }}</span>
        <button type="button" class="key" (click)="versions.reload()">{{ t.reload }}</button>
        <button type="button" class="key" (click)="versions.later()">{{ t.later }}</button>
      </div>
    }
    @if (!canKeep()) {
      <div class="bar" role="alert">
        {{ t.storageUnavailable }}
      </div>
    }
    @if (signInRequest()) {
      <div class="bar" role="alert">
        <span>{{ signInText() }}</span>
        <button type="button" class="key" (click)="signIn()">{{ signInBar.signIn }}</button>
      </div>
    }
    <!-- A page that reads its words once, as it is made, is made anew in another language. -->
    @for (spoken of [language()]; track spoken) {
      <main><router-outlet /></main>
    }
    <vt-refusals />
  `,
  styles: `
    /* Seen where a keyboard reaches it: the first stop of every page. */
    .skip:not(:focus) {
      position: absolute;
      transform: translateY(-200%);
    }
    .skip:focus {
      position: absolute;
      z-index: 10;
      inset: 4px auto auto 4px;
    }
    .bar {
      display: flex;
      flex-wrap: wrap;
      align-items: center;
      gap: 8px 14px;
      padding: 6px 18px;
      border-bottom: 3px solid var(--lamp);
      background: var(--sheet);
      font-weight: 600;
    }
    main {
      flex: 1;
      min-height: 0;
      display: flex;
      flex-direction: column;
    }
  `,
})
export class App {
  protected readonly t = T;
  protected readonly signInBar = SIGN_IN_BAR;
  protected readonly language = language;

  protected readonly versions = inject(Versions);
  protected readonly canKeep = inject(DeviceStore).canKeep;
  private readonly modals = inject(NgbModal);
  private readonly store = inject(Store);
  private readonly light = this.store.selectSignal(sessionFeature.selectLight);
  private readonly settings = this.store.selectSignal(settingsFeature.selectSettingsState);
  private readonly hasNoName = this.store.selectSignal(sessionFeature.selectAsksWho);
  private readonly crew = this.store.selectSignal(crewCopy.selectCopy);
  private readonly signInSlice = this.store.selectSignal(signInFeature.selectSignInState);
  private readonly jobId = this.store.selectSignal(jobFeature.selectJobId);
  private readonly waiting = this.store.selectSignal(deviceFeature.selectWaiting);
  protected readonly signInRequest = this.store.selectSignal(signInFeature.selectRequest);
  /** A device of a house without sign-in learns once whose hands it is in. */
  private readonly asksWho = computed(() => {
    const { isSettled, state } = this.signInSlice();
    return this.hasNoName() && isSettled && !state?.required;
  });
  protected readonly signInText = computed(() => {
    const member = this.crew().find(({ id }) => id === this.signInRequest()?.crewId);
    const isHere = this.signInSlice().state?.crewId != null;
    if (!member || !isHere) return SIGN_IN_BAR.signInToGoOn;
    const hasTaps = this.waiting().some(({ by }) => by === member.id);
    return hasTaps
      ? SIGN_IN_BAR.signInAs({ name: member.name })
      : SIGN_IN_BAR.takesDevice({ name: member.name });
  });
  private readonly now = ticker(CLOCK_MS);
  private readonly isBySensor = computed(() => this.settings().lightBySensor && hasLightSensor());

  /** Open while a sign-in is asked for. */
  private signInDialog: NgbModalRef | null = null;

  constructor() {
    // The browser takes as long for the first time of day as for a whole screen: before a tap wants to say when it was saved.
    void inject(Frames)
      .after('idle')
      .then(() => timeOfDay(Date.now()));
    const languages = inject(Languages);
    setTimeout(() => void languages.whole(), REST_AFTER_MS);
    effect(() => void languages.show(languageBy(this.settings().language, navigator.languages)));
    effect(() =>
      this.store.dispatch(
        LanguageActions.shown({ language: language(), isWhole: areLoaded('templateEntry') }),
      ),
    );
    const root = document.documentElement;
    effect(() => root.setAttribute('data-light', this.light()));
    effect(() => root.toggleAttribute('data-large', this.settings().largeType));
    effect(() => showUnits(this.settings()));
    effect(() => root.toggleAttribute('data-left-hand', this.settings().leftHand));
    effect(() => {
      if (!this.settings().lightByClock || this.isBySensor()) return;
      this.setLight(lightAt(new Date(this.now()).getHours()));
    });
    effect((onCleanup) => {
      if (!this.isBySensor()) return;
      onCleanup(followLight((lux) => this.setLight(lightFor(lux, untracked(this.light)))));
    });
    // Outside a job nothing goes on before; in one the bar waits until the hands are free.
    effect(() => {
      if (!this.signInRequest()) this.signInDialog?.close();
      else if (untracked(this.jobId) === null) untracked(() => void this.signIn());
    });
    effect(() => {
      if (!this.asksWho()) return;
      untracked(() =>
        this.modals.open(WhoWorks, {
          ariaLabelledBy: 'who-title',
          centered: true,
          backdrop: 'static',
          keyboard: false,
        }),
      );
    });
  }

  /** Not by hand: what sets it goes on. */
  private setLight(light: Light): void {
    if (light !== untracked(this.light))
      this.store.dispatch(SessionActions.lightChosen({ light, byItself: true }));
  }

  /** Moves the focus past the bar and the rail, to the page or the stage itself. */
  protected skip(): void {
    const page =
      document.querySelector<HTMLElement>('main .stage') ?? document.querySelector<HTMLElement>('main');
    page?.setAttribute('tabindex', '-1');
    page?.focus();
  }

  protected async signIn(): Promise<void> {
    // The first page does without requests that few devices make, each once a day.
    const { SignInDialog } = await import('./shell/sign-in-dialog');
    // Somebody may have come in while it was fetched.
    if (this.signInRequest() && !this.modals.hasOpenModals())
      this.signInDialog = this.modals.open(SignInDialog, {
        ariaLabelledBy: 'sign-in-title',
        centered: true,
        keyboard: false,
      });
  }

  protected onKey(event: KeyboardEvent): void {
    const isTyping = event.target instanceof HTMLElement && event.target.matches('input, textarea, select');
    if (isTyping || this.modals.hasOpenModals() || !this.settings().letterKeys) return;
    if (event.key === '?') this.modals.open(KeyHelp, { ariaLabelledBy: 'keys-title', centered: true });
    if (event.key === '/') {
      const search = document.querySelector<HTMLInputElement>('input[type=search]');
      if (search) {
        event.preventDefault();
        search.focus();
      }
    }
  }
}
