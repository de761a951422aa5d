import { ChangeDetectionStrategy, Component, inject, signal } from '@angular/core';
import { messagesOf } from '@words/messages-of';
import { JobSync } from '../shared/sync/job-sync';
import { Readiness } from '../shared/sync/readiness';
import { When } from '../shared/ui/when';

const T = messagesOf('readiness');

/** Shows all that a time without network needs, and of when it is. A button fetches it. */
@Component({
  selector: 'vt-ready-list',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [When],
  template: `
    <h2 id="ready-title">{{ isReady() ? t.ready : t.notReady }}</h2>
    <ul class="ruled" aria-labelledby="ready-title">
      @for (need of needs(); track need.name) {
        <li>
          <i
            class="bi"
            [class.bi-check-lg]="need.isHere"
            [class.bi-x-lg]="!need.isHere"
            aria-hidden="true"
          ></i>
          <strong>{{ t[need.name] }}</strong>
          <span class="dim">
            @if (!need.isHere) {
              {{ t.missing }}
            } @else if (need.at; as at) {
              {{ at | when: 'dateTime' }}
            } @else {
              {{ t.here }}
            }
          </span>
        </li>
      }
    </ul>
    <p class="dim">{{ isPersisted() === true ? t.persisted : t.notPersisted }}</p>
    <div class="keys">
      <button type="button" class="key" [disabled]="isFetching()" (click)="fetch()">
        {{ isFetching() ? t.fetching : t.fetch }}
      </button>
    </div>
  `,
  styles: `
    :host {
      display: grid;
      gap: 8px;
    }
    li {
      display: grid;
      grid-template-columns: 24px 1fr auto;
      align-items: center;
      gap: 8px;
      min-height: 36px;
    }
  `,
})
export class ReadyList {
  protected readonly t = T;

  private readonly sync = inject(JobSync);
  private readonly readiness = inject(Readiness);
  protected readonly needs = this.readiness.needs;
  protected readonly isReady = this.readiness.isReady;
  protected readonly isPersisted = this.readiness.isPersisted;
  protected readonly isFetching = signal(false);

  constructor() {
    void this.readiness.look();
  }

  protected async fetch(): Promise<void> {
    this.isFetching.set(true);
    await this.sync.prepareAnew();
    await this.readiness.look();
    this.isFetching.set(false);
  }
}
