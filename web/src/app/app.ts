import { ChangeDetectionStrategy, Component, effect, inject } from '@angular/core';
import { RouterOutlet } from '@angular/router';
import { NgbModal } from '@ng-bootstrap/ng-bootstrap/modal';
import { Store } from '@ngrx/store';
import { KeyHelp } from './shell/key-help';
import { Refusals } from './shell/refusals';
import { TopBar } from './shell/top-bar';
import { Versions } from './shell/versions';
import { sessionFeature } from './shared/state/session';
import { DeviceStore } from './shared/sync/device-store';

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
        <span>{{
          why === 'newer'
            ? 'A newer version is here. Reload when the work allows.'
            : 'A part of the application could not be loaded. Reload it.'
        }}</span>
        <button type="button" class="key" (click)="versions.reload()">Reload</button>
        <button type="button" class="key" (click)="versions.later()">Later</button>
      </div>
    }
    @if (!canKeep()) {
      <div class="bar" role="alert">
        This device cannot keep taps: they go straight to the server, and only there.
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
  protected readonly versions = inject(Versions);
  protected readonly canKeep = inject(DeviceStore).canKeep;
  private readonly modals = inject(NgbModal);
  private readonly light = inject(Store).selectSignal(sessionFeature.selectLight);

  constructor() {
    effect(() => document.documentElement.setAttribute('data-light', this.light()));
  }

  protected onKey(event: KeyboardEvent): void {
    const isTyping = event.target instanceof HTMLElement && event.target.matches('input, textarea, select');
    if (isTyping || this.modals.hasOpenModals()) return;
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
