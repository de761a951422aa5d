import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { fixed } from '@words/numbers';
import { RouterLink } from '@angular/router';
import { chargeSeen, underCharge } from '@voltrek/core/job';
import { voltsRange } from '@voltrek/core/quantities';
import { Store } from '@ngrx/store';
import type { Work } from '../../shared/job/job-selectors';
import { Reporter } from '../../shared/job/reporter';
import { boardCopy } from '../../shared/data/board';
import { CHARGE_STATE_TONES, CHARGE_STATE_WORDS, stillToGo } from '@words/charge-words';
import { When } from '../../shared/ui/when';
import { CHARGE_WATCH as T } from '@words/screens/job-charge';
import { withPlace } from '@words/call-words';
import { type Look, WatchFields } from './watch-fields';

/** A charge under way: until when, what was seen of it, what that means, and what waits meanwhile. */
@Component({
  selector: 'vt-charge-watch',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [RouterLink, WatchFields, When],
  template: `
    @if (charge(); as c) {
      <section [attr.aria-label]="t.title">
        <p class="until">
          {{
            t.since({
              since: c.since | when: 'time',
              toBeTriedAt: c.isToFull ? t.fullAbout : t.toBeTriedAt,
            })
          }}
          <strong>{{ c.dueAt | when: 'weekdayTime' }}</strong>
        </p>
        <vt-watch-fields [range]="range()" [asksAmps]="true" [count]="count()" (noted)="note($event)" />
        @for (line of lines(); track line.at) {
          <p class="line" [class.older]="!$first">
            <span>{{ line.at | when: 'time' }}</span>
            <span>{{ fixed(line.volts, 2) }} V, {{ fixed(line.amps, 1) }} A</span>
            <strong [class]="'tone-' + line.tone">{{ line.words.name }}</strong>
            @if ($first) {
              <span class="now" role="status">{{ line.words.now || left(line.hoursLeft) }}</span>
            }
          </p>
        }
        @if (isFullAtOnce()) {
          <button type="button" class="key strong" (click)="found()">{{ t.noteFullAtOnce }}</button>
        }
        <p class="dim">
          @if (waiting()[0]; as call) {
            {{ t.nextCall({ call: call.number, title: withPlace(call) }) }}
          } @else {
            {{ t.noCall }}
          }
          <a class="key" routerLink="/board">{{ t.toTheBoard }}</a>
        </p>
      </section>
    }
  `,
  styles: `
    :host:empty {
      display: none;
    }
    section {
      display: grid;
      gap: 10px;
      margin-top: 12px;
    }
    .until {
      font-size: var(--text-m);
    }
    .line {
      display: grid;
      grid-template-columns: 64px 150px 1fr;
      gap: 2px 12px;
      align-items: baseline;
      line-height: 1.2;
    }
    .line .now {
      grid-column: 2 / -1;
    }
    .older {
      color: var(--dim);
    }
    .dim {
      display: flex;
      flex-wrap: wrap;
      align-items: center;
      gap: 10px;
    }
    a.key {
      display: inline-grid;
      place-items: center;
      color: inherit;
      text-decoration: none;
    }
  `,
})
export class ChargeWatch {
  protected readonly fixed = fixed;
  protected readonly t = T;
  protected readonly withPlace = withPlace;

  readonly work = input.required<Work>();

  private readonly reporter = inject(Reporter);
  private readonly calls = inject(Store).selectSignal(boardCopy.selectCopy);

  protected readonly left = stillToGo;
  protected readonly charge = computed(() => underCharge(this.work().job));
  protected readonly count = computed(() => this.work().job.chargeReadings.length);
  protected readonly range = computed(() => voltsRange(this.work().machine.systemVolts / 12, true));
  /** The readings of this charge, newest first, each with its meaning. */
  protected readonly lines = computed(() => {
    const { job, situation } = this.work();
    const charge = this.charge();
    if (!charge) return [];
    return job.chargeReadings
      .filter(({ at }) => at >= charge.since)
      .map((reading) => {
        const { state, hoursLeft } = chargeSeen(job, situation, reading, reading.at)!;
        return {
          ...reading,
          state,
          hoursLeft,
          words: CHARGE_STATE_WORDS[state],
          tone: CHARGE_STATE_TONES[state],
        };
      })
      .reverse();
  });
  protected readonly isFullAtOnce = computed(
    () => this.lines()[0]?.state === 'full-at-once' && this.work().job.findings.acceptance !== 'full-at-once',
  );
  /** The waiting calls: urgent first, as the board has them. */
  protected readonly waiting = computed(() =>
    this.calls().filter(({ state, job }) => state === 'waiting' && job === null),
  );

  protected note(look: Look): void {
    this.reporter.report('charge.read', look);
  }

  protected found(): void {
    const isString = this.work().machine.batteries.length > 1;
    this.reporter.report('finding.recorded', {
      check: 'acceptance',
      found: 'full-at-once',
      ...(isString && { battery: this.charge()!.battery }),
    });
  }
}
