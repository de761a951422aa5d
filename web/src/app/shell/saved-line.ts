import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { NgbModal } from '@ng-bootstrap/ng-bootstrap/modal';
import { Store } from '@ngrx/store';
import { signInFeature } from '../shared/data/sign-in';
import { deviceFeature } from '../shared/sync/device-state';
import { DeviceStore } from '../shared/sync/device-store';
import { Readiness } from '../shared/sync/readiness';
import { messagesOf } from '@words/messages-of';
import { later } from '../shared/ui/drawn-later';
import { savedText } from '@words/saved-words';
import { WaitingDialog } from './waiting-dialog';

const T = messagesOf('readiness');

/** Whether everything reported on this device is with the server; opens what waits. */
@Component({
  selector: 'vt-saved-line',
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { '[class.waiting]': 'said()?.isOpen' },
  template: `
    @if (said(); as s) {
      <button type="button" (click)="show()">
        @if (s.isOpen) {
          <i class="bi bi-exclamation-triangle-fill" aria-hidden="true"></i>
        }
        @if (isReady() !== null) {
          <i
            class="bi ready"
            [class.bi-cloud-check]="isReady()"
            [class.bi-cloud-slash]="!isReady()"
            aria-hidden="true"
          ></i>
          <span class="visually-hidden">{{ isReady() ? t.ready : t.notReady }}</span>
        }
        @if (s.isOpen || !onlyTrouble()) {
          <span role="status">{{ s.text }}</span>
        }
      </button>
    }
  `,
  styles: `
    @use 'media';

    button {
      display: flex;
      align-items: center;
      gap: 6px;
      min-width: 48px;
      min-height: 48px;
      padding: 0 8px;
      border: 0;
      background: none;
      color: var(--on-road-dim);
      font-size: var(--text-xs);
      line-height: 1.1;
      text-align: left;
      text-wrap: balance;
    }
    :host(.waiting) button {
      padding: 0;
      color: var(--lamp);
      font-size: var(--text-xs);
      font-weight: 600;
    }
    .bi {
      flex: none;
    }
    .ready {
      font-size: var(--text-m);
    }
    @include media.phone {
      button {
        padding: 0 4px;
      }
      /* What waits, since when and why is three lines long in the bar of a job. */
      :host(.waiting) button {
        padding: 0 4px;
        line-height: 1.05;
      }
    }
  `,
})
export class SavedLine {
  protected readonly t = T;

  /** No words while all is well. */
  readonly onlyTrouble = input(false);

  private readonly store = inject(Store);
  private readonly modals = inject(NgbModal);
  private readonly canKeep = inject(DeviceStore).canKeep;
  private readonly state = this.store.selectSignal(deviceFeature.selectDeviceState);
  private readonly isShut = this.store.selectSignal(signInFeature.selectIsShut);
  protected readonly isReady = inject(Readiness).isReady;
  private readonly backlog = this.store.selectSignal(deviceFeature.selectBacklog);

  private readonly now = computed(() => {
    const { connected, savedAt, parked, isLookedFor } = this.state();
    const [backlog, canKeep, isShut] = [this.backlog(), this.canKeep(), this.isShut()];
    return {
      isOpen: backlog !== null || !connected || !canKeep || isShut,
      text: savedText({ connected, savedAt, parked: parked.length, backlog, canKeep, isLookedFor, isShut }),
    };
  });
  /** A tap draws what it is for first. */
  protected readonly said = later(this.now);

  protected show(): void {
    if (!this.modals.hasOpenModals())
      this.modals.open(WaitingDialog, { ariaLabelledBy: 'waiting-title', centered: true });
  }
}
