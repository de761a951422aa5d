import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import type { JobEvent } from '@voltrek/core/job';
import { NgbActiveModal } from '@ng-bootstrap/ng-bootstrap/modal';
import { Store } from '@ngrx/store';
import { ReasonPrompt } from '../shared/ui/reason-prompt';
import { DeviceActions, deviceFeature } from '../shared/sync/device-state';
import { DeviceStore } from '../shared/sync/device-store';
import type { Errand } from '../shared/model/errand';
import { Errands } from '../shared/sync/errands';
import { EVENT_WORDS } from '@words/event-words';
import { errandWords } from '@words/saved-words';
import { When } from '../shared/ui/when';
import { ReadyList } from './ready-list';
import { WAITING_DIALOG as T } from '@words/screens/shell';

/** The unsent data of this device, since when it waits, and the choices where the server refuses it. */
@Component({
  selector: 'vt-waiting-dialog',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [ReadyList, When],
  template: `
    <div class="sheet">
      <h1 id="waiting-title">{{ t.title }}</h1>
      @if (!canKeep()) {
        <p class="problem">
          {{ t.storageUnavailable }}
        </p>
      }
      @if (!connected()) {
        <p>{{ t.offline }}</p>
      }
      <ul class="ruled">
        @for (errand of errands(); track errand.id) {
          <li>
            <span class="what">
              <strong>{{ errandWords(errand) }}</strong>
              <span class="dim">{{ errand.at | when: 'seconds' }}</span>
              @if (errand.why; as why) {
                <span class="why">{{ t.notTaken({ why }) }}</span>
              }
            </span>
            @if (errand.why) {
              <button type="button" class="key" (click)="errandSender.again(errand)">
                {{ t.sendAgain }}
              </button>
              <button type="button" class="key" (click)="dropErrand(errand)">{{ t.dropIt }}</button>
            }
          </li>
        }
        @for (line of lines(); track line.event.id) {
          <li>
            <span class="what">
              <strong>{{ words[line.event.type] }}</strong>
              <span class="dim">{{ line.event.at | when: 'seconds' }}</span>
              @if (line.why; as why) {
                <span class="why">{{ t.parked({ why }) }}</span>
              }
            </span>
            @if (line.why) {
              <button type="button" class="key" (click)="again(line.event)">{{ t.sendAgain }}</button>
              <button type="button" class="key" (click)="drop(line.event)">{{ t.dropIt }}</button>
            }
          </li>
        }
        @if (lines().length + errands().length === 0) {
          <li class="dim">{{ t.nothingWaits }}</li>
        }
      </ul>
      <vt-ready-list />
      <div class="keys">
        <button type="button" class="key strong" (click)="modal.dismiss()">{{ t.close }}</button>
      </div>
    </div>
  `,
  styles: `
    .sheet {
      gap: 14px;
    }
    ul {
      max-height: 34vh;
      overflow: auto;
    }
    li {
      display: flex;
      align-items: center;
      gap: 8px;
      min-height: 48px;
      padding: 4px 0;
    }
    .what {
      flex: 1;
    }
    .why {
      display: block;
      color: var(--bad);
    }
  `,
})
export class WaitingDialog {
  protected readonly t = T;

  protected readonly modal = inject(NgbActiveModal);
  private readonly store = inject(Store);
  private readonly reasons = inject(ReasonPrompt);
  protected readonly canKeep = inject(DeviceStore).canKeep;
  protected readonly lines = this.store.selectSignal(deviceFeature.selectLines);
  protected readonly connected = this.store.selectSignal(deviceFeature.selectConnected);
  protected readonly errands = this.store.selectSignal(deviceFeature.selectErrands);
  protected readonly errandSender = inject(Errands);
  protected readonly words = EVENT_WORDS;
  protected readonly errandWords = errandWords;

  protected async dropErrand(errand: Errand): Promise<void> {
    const reason = await this.reasons.ask(T.whyDropped({ what: errandWords(errand) }));
    if (reason) await this.errandSender.drop(errand);
  }

  protected again(event: JobEvent): void {
    this.store.dispatch(DeviceActions.sendAgain({ event }));
  }

  protected async drop(event: JobEvent): Promise<void> {
    const reason = await this.reasons.ask(T.whyDropped({ what: EVENT_WORDS[event.type] }));
    if (reason) this.store.dispatch(DeviceActions.dropped({ event, why: T.droppedHere({ reason }) }));
  }
}
