import { showUnits } from '@words/units';
import { ChangeDetectionStrategy, Component, effect, inject, untracked } from '@angular/core';
import { RouterOutlet } from '@angular/router';
import { NgbModal } from '@ng-bootstrap/ng-bootstrap/modal';
import { Store } from '@ngrx/store';
import { KeyHelp } from './shell/key-help';
import { Refusals } from './shell/refusals';
import { TopBar } from './shell/top-bar';
import { Versions } from './shell/versions';
import { WhoWorks } from './shell/who-works';
import { ticker } from './shared/job/ticker';
import { lightAt } from './shared/state/light-by-clock';
import { SessionActions, sessionFeature } from './shared/state/session';
import { settingsFeature } from './shared/state/settings';
import { DeviceStore } from './shared/sync/device-store';
import { APP as T } from '@words/screens/app';

/** How often it is looked what light the hour asks for, ms. */
const CLOCK_MS = 60_000;

/** The frame around every screen. */
@Component({
  selector: 'vt-root',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Refusals, RouterOutlet, TopBar],
  host: { '(document:keydown)': 'onKey($event)' },
  template: `
    <vt-top-bar />
    @if (versions.wanted(); as why) {
      <div class="bar" role="status">
        <span>{{ why === 'newer' ? t.aNewerVersionIsHereReload : t.aPartOfTheApplicationCould }}</span>
        <button type="button" class="key" (click)="versions.reload()">{{ t.reload }}</button>
        <button type="button" class="key" (click)="versions.later()">{{ t.later }}</button>
      </div>
    }
    @if (!canKeep()) {
      <div class="bar" role="alert">
        {{ t.thisDeviceCannotKeepTapsThey }}
      </div>
    }
    <main><router-outlet /></main>
    <vt-refusals />
  `,
  styles: `
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

  protected readonly versions = inject(Versions);
  protected readonly canKeep = inject(DeviceStore).canKeep;
  private readonly modals = inject(NgbModal);
  private readonly store = inject(Store);
  private readonly light = this.store.selectSignal(sessionFeature.selectLight);
  private readonly settings = this.store.selectSignal(settingsFeature.selectSettingsState);
  private readonly asksWho = this.store.selectSignal(sessionFeature.selectAsksWho);
  private readonly now = ticker(CLOCK_MS);

  constructor() {
    const root = document.documentElement;
    effect(() => root.setAttribute('data-light', this.light()));
    effect(() => root.toggleAttribute('data-large', this.settings().largeType));
    effect(() => showUnits(this.settings()));
    effect(() => root.toggleAttribute('data-left-hand', this.settings().leftHand));
    effect(() => {
      if (!this.settings().lightByClock) return;
      const light = lightAt(new Date(this.now()).getHours());
      if (light !== untracked(this.light))
        this.store.dispatch(SessionActions.lightChosen({ light, byClock: true }));
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
