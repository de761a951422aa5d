import { ChangeDetectionStrategy, Component, computed, inject, input, linkedSignal } from '@angular/core';
import { fixed } from '@words/numbers';
import { RouterLink } from '@angular/router';
import { chargeSeen, underCharge } from '@voltrek/core/job';
import { TYPED_RANGES, voltsRange } from '@voltrek/core/quantities';
import { outOfRange } from '@words/range-words';
import { Store } from '@ngrx/store';
import type { Work } from '../../shared/job/job-selectors';
import { Reporter } from '../../shared/job/reporter';
import { boardCopy } from '../../shared/data/board';
import { typedFigure } from '../../shared/ui/typed-figure';
import { typedVolts } from '../../shared/ui/typed-volts';
import { CHARGE_STATE_TONES, CHARGE_STATE_WORDS, stillToGo } from '@words/charge-words';
import { When } from '../../shared/ui/when';
import { CHARGE_WATCH as T } from '@words/screens/job-charge';
import { withPlace } from '@words/call-words';

/** A charge under way: until when, what was seen of it, what that means, and what waits meanwhile. */
@Component({
  selector: 'vt-charge-watch',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [RouterLink, When],
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
        <div class="fields">
          <label
            ><span>{{ t.atItsPostsV }}</span
            ><input
              class="field"
              inputmode="decimal"
              autocomplete="off"
              [value]="voltsText()"
              #volts
              (input)="voltsText.set(volts.value)"
          /></label>
          <label
            ><span>{{ t.ampsLabel }}</span
            ><input
              class="field"
              inputmode="decimal"
              autocomplete="off"
              [value]="ampsText()"
              #amps
              (input)="ampsText.set(amps.value)"
          /></label>
          <button type="button" class="key" [attr.aria-pressed]="isWarm()" (click)="isWarm.set(!isWarm())">
            {{ t.caseIsWarm }}
          </button>
          <button type="button" class="key strong" [disabled]="reading() === null" (click)="note()">
            {{ t.noteIt }}
          </button>
        </div>
        @if (fault(); as text) {
          <p class="problem" role="alert">{{ text }}</p>
        }
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
    @use 'media';

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
    .fields {
      display: grid;
      grid-template-columns: 1fr 1fr auto auto;
      align-items: end;
      gap: 10px;
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
    @include media.narrow {
      .fields {
        grid-template-columns: 1fr 1fr;
      }
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
  private readonly count = computed(() => this.work().job.chargeReadings.length);
  protected readonly voltsText = linkedSignal({ source: this.count, computation: () => '' });
  protected readonly ampsText = linkedSignal({ source: this.count, computation: () => '' });
  protected readonly isWarm = linkedSignal({ source: this.count, computation: () => false });

  private readonly range = computed(() => voltsRange(this.work().machine.systemVolts / 12, true));
  private readonly typed = computed(() => ({
    volts: typedVolts(this.voltsText(), this.range().max) ?? NaN,
    amps: typedFigure(this.ampsText()),
  }));
  protected readonly fault = computed(() => {
    const { volts, amps } = this.typed();
    return (
      (Number.isNaN(volts) ? null : outOfRange(T.volts, volts, this.range())) ??
      (Number.isNaN(amps) ? null : outOfRange(T.amps, amps, TYPED_RANGES.chargeAmps))
    );
  });
  /** The typed values, whole and in range; null until they are. */
  protected readonly reading = computed(() => {
    const { volts, amps } = this.typed();
    const isWhole = !Number.isNaN(volts) && !Number.isNaN(amps) && this.fault() === null;
    return isWhole ? { volts, amps, isWarm: this.isWarm() } : null;
  });
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

  protected note(): void {
    const reading = this.reading();
    if (reading) this.reporter.report('charge.read', reading);
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
