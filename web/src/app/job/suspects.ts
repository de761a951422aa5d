import { ChangeDetectionStrategy, Component, computed, inject, input, output, signal } from '@angular/core';
import { Store } from '@ngrx/store';
import { fixed, withinSentence } from '@words/numbers';
import { STAYING_CAUSES } from '@voltrek/core/belief';
import { type CheckId, checkOf, DRAWS_PER_CAUSE, LEAST_GAIN_BITS } from '@voltrek/core/diagnosis';
import { repairsOfJob, type Stage } from '@voltrek/core/job';
import {
  askWords,
  CAUSE_WORDS,
  mayOccurTogether,
  CHECK_UNITS,
  FINDING_NAMES,
  outcomesNamed,
} from '@words/diagnosis-words';
import { percent } from '@words/figures';
import { batteryWord } from '@words/words';
import { PlanRunner } from '../workers/plan-runner';
import { workerAnswer } from '../workers/worker-answer';
import { selectDiagnosis, type Work } from '../shared/job/job-selectors';
import { Reporter } from '../shared/job/reporter';
import { Arms } from './arms';
import { SUSPECTS as T } from '@words/screens/job';

const SHOWN = 4;
/** A part that the last job held less likely is not worth a line. */
const EARLIER_TOLD_SHARE = 0.3;
/** Checks that have a stage of their own, where they are recorded. */
const ELSEWHERE: Partial<Record<CheckId, Stage>> = {
  rest: 'measure',
  'string-balance': 'measure',
  crank: 'measure',
  charging: 'measure',
  converter: 'measure',
  'with-help': 'plan',
  promise: 'plan',
};

/** The suspects, likeliest first, and the check that would tell most for its time, answered on the spot. */
@Component({
  selector: 'vt-suspects',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Arms],
  providers: [PlanRunner],
  template: `
    <section [attr.aria-label]="t.suspects">
      <h2>
        {{ t.suspects }}
        @if (isStale()) {
          <span class="dim" role="status">{{ t.working }}</span>
        }
      </h2>
      <ol>
        @for (s of shown(); track s.cause) {
          <li>
            <span>{{ causeWords[s.cause] }}</span>
            <span class="bar" aria-hidden="true"><i [style.width.%]="s.share * 100"></i></span>
            <strong>{{ percent(s.share) }}</strong>
          </li>
        }
      </ol>
      @if (mayMeet()) {
        <p class="dim why">{{ t.together }}</p>
      }
      @if (earlier(); as text) {
        <p class="dim why">{{ text }}</p>
      }
      @if (misfit(); as text) {
        <p class="problem why" role="status">{{ text }}</p>
      } @else if (why(); as text) {
        <p class="dim why">{{ text }}</p>
      }
    </section>
    <section [attr.aria-label]="t.nextCheck">
      <h2>
        {{ t.nextCheck }}
        @if (best(); as b) {
          <span class="dim">{{ t.min({ minutes: b.minutes < 1 ? t.under1 : fixed(b.minutes) }) }}</span>
        }
      </h2>
      @if (best(); as b) {
        <p class="ask">
          {{ asked(b.check) }}
          @if (b.battery !== undefined) {
            ({{ batteryWord(b.battery) }})
          }
        </p>
        <div class="keys">
          @if (stageOf(b.check); as stage) {
            <button type="button" class="key strong" (click)="opened.emit(stage)">
              {{ stage === 'plan' ? t.goOnToPlan : t.readOnMeasure }}
            </button>
          } @else if (b.check === 'symptom') {
            <span>{{ t.tapItAbove }}</span>
          } @else if (outcomes().length) {
            @for (o of outcomes(); track o.found) {
              <button type="button" class="key" [vtArms]="askedFor()" (click)="record(b.check, o.found)">
                {{ o.name }}
              </button>
            }
          } @else {
            <input
              class="field"
              inputmode="decimal"
              autocomplete="off"
              [attr.aria-label]="asked(b.check)"
              [placeholder]="units[b.check] ?? ''"
              [value]="typed()"
              #figure
              (input)="typed.set(figure.value)"
            />
            <button
              type="button"
              class="key strong"
              [vtArms]="askedFor()"
              [disabled]="value() === null"
              (click)="recordFigure(b.check)"
            >
              {{ t.take }}
            </button>
          }
          <button type="button" class="key" [vtArms]="askedFor()" (click)="skip(b.check)">
            {{ t.skip }}
          </button>
        </div>
        <p class="dim why">{{ t.between({ causes: settles() }) }}</p>
      } @else if (result()) {
        <p class="dim">{{ mendFirst() ? t.mendFirst : t.nothingLeft }}</p>
      }
    </section>
  `,
  styles: `
    @use 'media';

    :host {
      display: grid;
      grid-template-columns: 1fr 1fr;
      gap: 18px;
    }
    section {
      min-width: 0;
    }
    h2 {
      display: flex;
      justify-content: space-between;
      font-size: var(--text-s);
    }
    h2 .dim {
      font-size: var(--text-xs);
      font-weight: 500;
    }
    li {
      display: grid;
      grid-template-columns: minmax(0, 1fr) 70px 44px;
      align-items: center;
      gap: 8px;
      font-size: var(--text-s);
      line-height: 1.3;
    }
    ol {
      min-height: 84px;
    }
    li strong {
      text-align: right;
    }
    .bar {
      height: 9px;
      background: var(--line);
    }
    .bar i {
      display: block;
      height: 100%;
      background: var(--ink);
    }
    .ask {
      font-size: var(--text-s);
      font-weight: 600;
      line-height: 1.2;
      margin-bottom: 6px;
    }
    .why {
      margin-top: 4px;
      font-size: var(--text-xs);
      line-height: 1.2;
    }
    .keys {
      gap: 6px;
    }
    .keys .key {
      padding: 4px 8px;
      font-size: var(--text-s);
    }
    .keys > span {
      align-self: center;
    }
    .field {
      width: 96px;
    }
    @include media.narrow {
      :host {
        grid-template-columns: 1fr;
      }
    }
  `,
})
export class Suspects {
  protected readonly fixed = fixed;
  protected readonly t = T;

  readonly work = input.required<Work>();
  readonly opened = output<Stage>();

  private readonly reporter = inject(Reporter);

  protected readonly causeWords = CAUSE_WORDS;
  protected readonly units = CHECK_UNITS;
  protected readonly asked = (check: CheckId) => askWords(check, this.work().machine);
  protected readonly percent = percent;
  protected readonly batteryWord = batteryWord;
  protected readonly typed = signal('');
  private readonly skipped = signal<readonly CheckId[]>([]);

  private readonly question = inject(Store).selectSignal(selectDiagnosis);
  private readonly answer = workerAnswer(this.question, (worker, { findings, tools, moment }) =>
    worker.suspect(findings, tools, moment, DRAWS_PER_CAUSE),
  );
  protected readonly result = this.answer.result;
  protected readonly isStale = this.answer.isStale;
  protected readonly shown = computed(() => this.result()?.suspicions.slice(0, SHOWN) ?? []);
  /** The question of an answer. */
  protected readonly askedFor = computed(() => `${this.best()?.check} ${this.best()?.battery ?? ''}`);
  protected readonly best = computed(
    () =>
      this.result()?.proposals.find(
        (p) => p.gainBits >= LEAST_GAIN_BITS && !this.skipped().includes(p.check),
      ) ?? null,
  );
  protected readonly mendFirst = computed(() => {
    const { job, machine } = this.work();
    return repairsOfJob(job, machine).length > 0;
  });
  protected readonly outcomes = computed(() => {
    const best = this.best();
    return best ? outcomesNamed(best.check) : [];
  });
  protected readonly settles = computed(() =>
    (this.best()?.settles ?? [])
      .slice(0, 2)
      .map((cause) => CAUSE_WORDS[cause])
      .join(' and '),
  );
  protected readonly mayMeet = computed(() => mayOccurTogether(this.shown()));
  /** The likeliest part and the strength that earlier jobs of this vehicle left. */
  protected readonly earlier = computed(() => {
    const { earlier } = this.work().situation.record;
    if (!earlier) return '';
    const part = earlier.causes.find(
      ({ cause, share }) => STAYING_CAUSES.includes(cause) && share >= EARLIER_TOLD_SHARE,
    );
    const known = earlier.strengths.flatMap((strength) => strength?.share ?? []);
    return [
      part &&
        T.earlierPart({
          days: Math.floor(earlier.days),
          cause: withinSentence(CAUSE_WORDS[part.cause]),
          share: percent(part.share),
        }),
      known.length > 0 && T.earlierStrength({ count: known.length, share: percent(Math.min(...known)) }),
    ]
      .filter(Boolean)
      .join(' ');
  });
  /** The finding to take again, where no machine shows all of them. */
  protected readonly misfit = computed(() => {
    const piece = this.result()?.misfit;
    return piece ? T.misfit({ finding: withinSentence(FINDING_NAMES[piece.check]) }) : null;
  });
  /** The finding that raised the first suspect most. */
  protected readonly why = computed(() => {
    const [push] = this.result()?.suspicions[0]?.pushes ?? [];
    if (!push || push.factor < 1 || push.check === 'symptom') return null;
    return T.raisedMostBy({ finding: FINDING_NAMES[push.check] });
  });
  protected readonly value = computed(() => {
    const text = this.typed().trim().replace(',', '.');
    const value = Number(text);
    return text === '' || Number.isNaN(value) || Math.abs(value) > 100 ? null : value;
  });

  /** The stage that records a check, if not here; of a string each battery has its own place on Measure. */
  protected stageOf(check: CheckId): Stage | null {
    const isString = this.work().machine.batteries.length > 1;
    return ELSEWHERE[check] ?? (isString && checkOf(check).isOfBattery ? 'measure' : null);
  }

  protected record(check: CheckId, found: string): void {
    this.reporter.report('finding.recorded', { check, found });
  }

  protected recordFigure(check: CheckId): void {
    const found = this.value();
    if (found === null) return;
    this.reporter.report('finding.recorded', { check, found });
    this.typed.set('');
  }

  protected skip(check: CheckId): void {
    this.skipped.update((list) => [...list, check]);
  }
}
