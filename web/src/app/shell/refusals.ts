import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { NgbToast } from '@ng-bootstrap/ng-bootstrap/toast';
import { Store } from '@ngrx/store';
import { EVENT_WORDS } from '@words/event-words';
import { JobActions } from '../shared/model/job-state';
import { deviceFeature } from '../shared/sync/device-state';
import { REFUSALS as T } from '@words/screens/shell';

/** Taps that were refused, each kept in sight with its reason until it is read. */
@Component({
  selector: 'vt-refusals',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [NgbToast],
  template: `
    @for (r of refused(); track r.event.id) {
      <ngb-toast [header]="t.notDone + words[r.event.type]" [autohide]="false" (hidden)="read(r.event.id)">{{
        r.why
      }}</ngb-toast>
    }
  `,
  styles: `
    :host {
      position: fixed;
      z-index: 1090;
      right: 18px;
      bottom: calc(var(--bar-height) + 14px);
      display: grid;
      gap: 10px;
      max-width: calc(100vw - 24px);
    }
  `,
})
export class Refusals {
  protected readonly t = T;

  private readonly store = inject(Store);
  protected readonly refused = this.store.selectSignal(deviceFeature.selectRefused);
  protected readonly words = EVENT_WORDS;

  protected read(eventId: string): void {
    this.store.dispatch(JobActions.refusalRead({ eventId }));
  }
}
