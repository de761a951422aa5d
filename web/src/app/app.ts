import { ChangeDetectionStrategy, Component, effect, inject } from '@angular/core';
import { RouterOutlet } from '@angular/router';
import { NgbModal } from '@ng-bootstrap/ng-bootstrap/modal';
import { Store } from '@ngrx/store';
import { KeyHelp } from './shell/key-help';
import { Refusals } from './shell/refusals';
import { TopBar } from './shell/top-bar';
import { sessionFeature } from './shared/state/session';

/** The frame around every screen. */
@Component({
  selector: 'vt-root',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Refusals, RouterOutlet, TopBar],
  host: { '(document:keydown)': 'onKey($event)' },
  template: `
    <vt-top-bar />
    <main><router-outlet /></main>
    <vt-refusals />
  `,
  styles: `
    main {
      flex: 1;
      min-height: 0;
      display: flex;
      flex-direction: column;
    }
  `,
})
export class App {
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
