import { shownUnit } from '@words/units';
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  input,
  linkedSignal,
  signal,
} from '@angular/core';
import { type Recheck, recheckQuestion, toolsOfKit } from '@voltrek/core/job';
import { TYPED_RANGES, voltsRange } from '@voltrek/core/quantities';
import { outOfRange } from '@words/range-words';
import type { Work } from '../../../shared/job/job-selectors';
import { Reporter } from '../../../shared/job/reporter';
import { Stepper } from '../../../shared/ui/stepper';
import { typedFigure } from '../../../shared/ui/typed-figure';
import { typedVolts } from '../../../shared/ui/typed-volts';
import { CHECK_WORDS, GROUND_WORDS } from '@words/diagnosis-words';
import { withinSentence } from '@words/numbers';
import { volts } from '@words/figures';
import { batteryWord } from '@words/words';
import { sureWords } from '@words/certainty-words';
import { VERDICT_WORDS } from '@words/verdict-words';
import { verdictTitle } from '@words/verdict-title';
import { PlanRunner } from '../../../workers/plan-runner';
import { workerAnswer } from '../../../workers/worker-answer';
import { RECHECK as T } from '@words/screens/job-stages-verdict';

/** A tester's share may be typed as it shows it, in per cent. */
const PERCENT = 100;
/** Of each battery. */
const REST_RANGE = voltsRange(1);
/** Nothing tests better than this share of its rating. */
const TESTED_MOST = 2;

/** The recheck that a verdict promised: what the charged and rested batteries read, and the verdict over all of it. */
@Component({
  selector: 'vt-recheck',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Stepper],
  providers: [PlanRunner],
  template: `
    <div class="keys">
      <button
        type="button"
        class="key"
        [attr.aria-pressed]="isCharged()"
        (click)="isCharged.set(!isCharged())"
      >
        {{ t.restedTitle }}
      </button>
    </div>
    @if (!isCharged()) {
      <p class="dim">
        {{ t.restedWhy }}
      </p>
    } @else {
      <div class="temp">
        <span id="recheck-temp">{{ t.tempLabel({ unit: unit().unit }) }}</span>
        <vt-stepper
          [value]="tempC()"
          [shown]="shownTemp()"
          [lessName]="t.colder"
          [moreName]="t.warmer"
          [least]="range.min"
          [most]="range.max"
          labelledBy="recheck-temp"
          (changed)="tempC.set($event)"
        />
      </div>
      <div class="fields">
        @for (b of work().machine.batteries; track $index) {
          <label>
            <span>{{ many() ? batteryWord($index) + t.rest : t.restLabel }}, V</span>
            <input
              class="field"
              inputmode="decimal"
              autocomplete="off"
              [value]="restTexts()[$index]"
              #rest
              (input)="restTexts.set(put(restTexts(), $index, rest.value))"
            />
          </label>
          <label>
            <span>{{ t.ofRating({ what: many() ? batteryWord($index) + t.tested : t.testedLabel }) }}</span>
            <input
              class="field"
              inputmode="decimal"
              autocomplete="off"
              [value]="testedTexts()[$index]"
              #tested
              (input)="testedTexts.set(put(testedTexts(), $index, tested.value))"
            />
          </label>
        }
        @if (work().machine.engine) {
          <label>
            <span>{{ t.lowestLabel }}</span>
            <input
              class="field"
              inputmode="decimal"
              autocomplete="off"
              [value]="crankText()"
              #crank
              (input)="crankText.set(crank.value)"
            />
          </label>
        }
      </div>
      @if (fault(); as why) {
        <p class="problem" role="alert">{{ why }}</p>
      } @else if (record(); as v) {
        <div class="found" role="status">
          <strong>{{ title(v.verdict, v.suspect, v.repaired) }}</strong>
          <span>
            {{ words[v.verdict].means }} {{ sureWords(v) }}.
            {{ v.ground ? groundWords[v.ground] : '' }}
          </span>
          @if (v.verdict === 'not-known' && v.deciding; as d) {
            <strong class="decides">{{ t.decides({ ask: inSentence(checkWords[d.check].ask) }) }}</strong>
          }
        </div>
        <div class="keys">
          <button type="button" class="key strong" [disabled]="isStale()" (click)="give()">
            {{ t.give({ name: words[v.verdict].name }) }}
          </button>
        </div>
      } @else {
        <p class="dim" role="status">
          {{ t.hint }}
        </p>
      }
    }
  `,
  styles: `
    @use 'media';

    :host {
      display: grid;
      gap: 10px;
    }
    .temp {
      display: flex;
      align-items: center;
      gap: 14px;
    }
    .fields {
      display: grid;
      grid-template-columns: repeat(3, 1fr);
      gap: 8px;
    }
    .found {
      padding: 8px 14px;
      border: 2px solid var(--ink);
      border-radius: 6px;
      background: var(--sheet);
    }
    .found strong {
      display: block;
      font-size: var(--text-xl);
      line-height: 1.15;
    }
    @include media.narrow {
      .fields {
        grid-template-columns: 1fr 1fr;
      }
    }
  `,
})
export class RecheckPart {
  protected readonly t = T;

  readonly work = input.required<Work>();

  private readonly reporter = inject(Reporter);

  protected readonly range = TYPED_RANGES.ambientC;
  protected readonly words = VERDICT_WORDS;
  protected readonly title = verdictTitle;
  protected readonly sureWords = sureWords;
  protected readonly groundWords = GROUND_WORDS;
  protected readonly checkWords = CHECK_WORDS;
  protected readonly inSentence = withinSentence;
  protected readonly batteryWord = batteryWord;

  private readonly count = computed(() => this.work().machine.batteries.length);
  protected readonly many = computed(() => this.count() > 1);
  protected readonly isCharged = signal(false);
  private readonly jobTempC = computed(() => this.work().situation.tempC);
  protected readonly tempC = linkedSignal(() => this.jobTempC());
  protected readonly unit = computed(() => shownUnit('°C'));
  protected readonly shownTemp = computed(() => Math.round(this.unit().show(this.tempC())));
  protected readonly restTexts = linkedSignal(() => Array.from({ length: this.count() }, () => ''));
  protected readonly testedTexts = linkedSignal(() => Array.from({ length: this.count() }, () => ''));
  protected readonly crankText = signal('');

  private readonly rest = computed(() => this.restTexts().map((text) => typedVolts(text, REST_RANGE.max)));
  private readonly tested = computed(() => this.testedTexts().map(shareOf));
  private readonly crank = computed(() => typedVolts(this.crankText(), REST_RANGE.max * this.count()));

  protected readonly fault = computed(() => {
    const wrong = this.rest().find((v) => v !== null && outOfRange('', v, REST_RANGE) !== null);
    if (wrong !== undefined) return outOfRange(T.restVolts, wrong!, REST_RANGE);
    if (this.restTexts().some((text, i) => text.trim() && this.rest()[i] === null)) return T.restMissing;
    if (this.tested().some((share) => share !== null && !(share > 0 && share <= TESTED_MOST)))
      return T.testedRange;
    const sum = this.rest().reduce<number>((a, b) => a + (b ?? 0), 0);
    const lowest = this.crank();
    return lowest !== null && this.rest().every((v) => v !== null) && lowest > sum
      ? T.lowestRange({ volts: volts(sum) })
      : null;
  });

  private readonly recheck = computed((): Recheck | null => {
    const restVolts = this.rest().filter((v) => v !== null);
    if (this.fault() !== null || restVolts.length < this.count() || !this.isCharged()) return null;
    return { tempC: this.tempC(), restVolts, tested: this.tested(), crankVolts: this.crank() };
  });
  private readonly question = computed(() => {
    const recheck = this.recheck();
    if (!recheck) return null;
    const { job, kit, situation, earlierFlatCalls, rules } = this.work();
    const { facts, ...findings } = recheckQuestion(job, situation.record.machine, earlierFlatCalls, recheck);
    return { findings, facts, tools: toolsOfKit(kit), rules };
  });
  private readonly answer = workerAnswer(this.question, (worker, { findings, facts, tools, rules }) =>
    worker.conclude(findings, facts, tools, rules),
  );
  protected readonly record = this.answer.result;
  protected readonly isStale = this.answer.isStale;

  protected put(texts: readonly string[], at: number, text: string): string[] {
    return texts.map((t, i) => (i === at ? text : t));
  }

  protected give(): void {
    const [recheck, verdict] = [this.recheck(), this.record()];
    if (recheck && verdict) this.reporter.report('recheck.taken', { ...recheck, verdict });
  }
}

/** A share of the rating from per cent, as a tester shows it; null where nothing is typed. */
function shareOf(text: string): number | null {
  return text.trim() === '' ? null : typedFigure(text) / PERCENT;
}
