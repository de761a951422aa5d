import { ChangeDetectionStrategy, Component, computed, inject, Injectable, signal } from '@angular/core';
import { type Consumer, CONSUMERS, leftOn } from '@voltrek/core/charging';
import { type CheckId, checkOf, VOLUNTEERED } from '@voltrek/core/diagnosis';
import { profileOfJob } from '@voltrek/core/job';
import { NgbActiveModal, NgbModal } from '@ng-bootstrap/ng-bootstrap/modal';
import { Store } from '@ngrx/store';
import { selectWork } from '../shared/job/job-selectors';
import { Reporter } from '../shared/job/reporter';
import { Stepper } from '../shared/ui/stepper';
import { FINDING_NAMES, outcomesNamed } from '@words/diagnosis-words';
import { CONSUMER_WORDS, leftOnLine } from '@words/left-on-words';
import { Choices } from '../shared/ui/choices';
import { DRIVER_SAYS_DIALOG as T } from '@words/screens/job';

/** The driver's account as it comes up: consumers left on, use, and earlier trouble. */
const DRIVER_CHECKS: readonly CheckId[] = [
  'ask-left-on',
  'ask-use',
  'ask-flats',
  ...VOLUNTEERED,
  'ask-replaced',
  'look-date',
  'ask-warm',
];

/** Hours that something may have been left on, in steps that a driver remembers. */
const HOURS_MOST = 72;

/** Takes what the driver says in any order, each with one tap; a second tap on the same takes it back. */
@Component({
  selector: 'vt-driver-says-dialog',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Choices, Stepper],
  template: `
    <div class="sheet">
      <h1 id="driver-says-title">{{ t.title }}</h1>
      <div class="ruled rows">
        @for (row of rows(); track row.check) {
          <div role="group" [attr.aria-label]="row.ask">
            <span>{{ row.ask }}</span>
            <div class="answers">
              @for (o of row.outcomes; track o.found) {
                <button
                  type="button"
                  class="key"
                  [attr.aria-pressed]="row.given === o.found"
                  (click)="tap(row.check, o.found, row.given)"
                >
                  {{ o.name }}
                </button>
              }
            </div>
          </div>
          @if (row.check === 'ask-left-on' && row.given === 'yes') {
            <div class="left-on">
              <div class="answers" role="radiogroup" [attr.aria-label]="t.leftOnLabel">
                @for (c of consumers; track c) {
                  <button
                    type="button"
                    class="key"
                    role="radio"
                    [attr.aria-checked]="consumer() === c"
                    (click)="consumer.set(c)"
                  >
                    {{ consumerWords[c] }}
                  </button>
                }
              </div>
              @if (consumer() !== null) {
                <div class="hours">
                  <span id="hours-on">{{ t.hoursOn }}</span>
                  <vt-stepper
                    [value]="hours()"
                    [lessName]="t.fewerHours"
                    [moreName]="t.moreHours"
                    [least]="1"
                    [most]="hoursMost"
                    labelledBy="hours-on"
                    (changed)="hours.set($event)"
                  />
                </div>
                <p role="status">{{ took() }}</p>
              }
            </div>
          }
        }
      </div>
      <div class="keys">
        <button type="button" class="key strong" (click)="modal.close()">{{ t.done }}</button>
      </div>
    </div>
  `,
  styles: `
    @use 'media';

    .rows > div {
      padding: 2px 0;
    }
    .rows > [role='group'] {
      display: grid;
      grid-template-columns: minmax(0, 1fr) auto;
      align-items: center;
      gap: 8px;
      font-size: var(--text-s);
      line-height: 1.15;
    }
    .answers {
      display: flex;
      flex-wrap: wrap;
      justify-content: flex-end;
      gap: 6px;
    }
    .answers .key {
      padding: 4px 8px;
      font-size: var(--text-xs);
    }
    .left-on {
      display: grid;
      gap: 6px;
    }
    .left-on .answers {
      justify-content: flex-start;
    }
    .hours {
      display: flex;
      align-items: center;
      gap: 12px;
    }
    @include media.phone {
      .rows > [role='group'] {
        grid-template-columns: 1fr;
        gap: 2px;
      }
      .answers {
        justify-content: flex-start;
      }
    }
  `,
})
export class DriverSaysDialog {
  protected readonly t = T;

  protected readonly modal = inject(NgbActiveModal);
  private readonly reporter = inject(Reporter);
  private readonly work = inject(Store).selectSignal(selectWork);

  protected readonly consumers = CONSUMERS;
  protected readonly consumerWords = CONSUMER_WORDS;
  protected readonly hoursMost = HOURS_MOST;
  protected readonly consumer = signal<Consumer | null>(null);
  protected readonly hours = signal(8);

  protected readonly rows = computed(() => {
    const work = this.work();
    if (!work) return [];
    const profile = profileOfJob(work.job, work.machine);
    return DRIVER_CHECKS.filter((check) => checkOf(check).fits?.(profile) ?? true).map((check) => ({
      check,
      ask: FINDING_NAMES[check],
      given: work.job.findings[check] ?? null,
      outcomes: outcomesNamed(check),
    }));
  });

  protected readonly took = computed(() => {
    const [consumer, work] = [this.consumer(), this.work()];
    if (consumer === null || !work) return '';
    const { machine } = work;
    const { rating } = machine.batteries[0]!;
    return leftOnLine(leftOn(rating, machine, consumer, this.hours()), rating.capacityAh);
  });

  /** The same tap again takes it back. */
  protected tap(check: CheckId, found: string, given: unknown): void {
    if (given === found) this.reporter.report('finding.withdrawn', { check });
    else this.reporter.report('finding.recorded', { check, found });
  }
}

/** Opens the page of what the driver says. */
@Injectable({ providedIn: 'root' })
export class DriverSays {
  private readonly modals = inject(NgbModal);

  open(): void {
    this.modals.open(DriverSaysDialog, {
      ariaLabelledBy: 'driver-says-title',
      scrollable: true,
      size: 'lg',
    });
  }
}
