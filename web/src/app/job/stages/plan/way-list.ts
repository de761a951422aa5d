import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { type Chosen, LIKELY_ODDS, type Way } from '@voltrek/core/plan';
import { Chart } from '../../../shared/ui/chart';
import type { ChartColours } from '../../../shared/ui/colours';
import { inHundred } from '@words/figures';
import { minutesWords, SURENESS, SURENESS_WORDS, wayName, wayStepWords } from '@words/way-words';
import { waysChart } from './ways-chart';
import { Choices } from '../../../shared/ui/choices';
import { inParts } from '../../../shared/ui/drawn-later';
import { WAY_LIST as T } from '@words/screens/job-stages-plan';

/** So many ways come with each frame. */
const ROWS_A_FRAME = 2;

/** Ways to get it going: how sure one wants to be, minutes against odds, and each way with its steps, soonest first. */
@Component({
  selector: 'vt-way-list',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Choices, Chart],
  template: `
    <label class="sure">
      <span>{{ t.asSureAs }}</span>
      <input
        #slider
        type="range"
        min="0"
        [max]="steps.length - 1"
        step="1"
        [value]="step()"
        [attr.aria-valuetext]="sureWords()"
        (input)="surenessPicked.emit(+steps[+slider.value]! / 100)"
      />
      <output>{{ sureWords() }}</output>
    </label>
    <div class="chart">
      @defer (on immediate) {
        <vt-chart [draw]="draw()" [summary]="summary()" />
      }
    </div>
    <div class="ways" role="radiogroup" [attr.aria-label]="t.title">
      @for (row of drawn(); track row.chosen.way.id) {
        @if (row.isFirstUnlikely) {
          <h2 class="part">{{ t.notLikely }}</h2>
        }
        <button
          type="button"
          role="radio"
          class="choice way"
          [class.thin]="row.isUnlikely"
          [attr.aria-checked]="row.chosen.way.id === chosenId()"
          (click)="picked.emit(row.chosen.way.id)"
        >
          <span class="minutes"
            ><strong>{{ row.minutes }}</strong> {{ row.unit }}</span
          >
          <span class="name">{{ row.name }}</span>
          <span class="odds" [class.tone-good]="row.isSure">{{ row.odds }}</span>
          @if (!row.isUnlikely) {
            <span class="steps">
              @for (step of row.steps; track $index) {
                <span class="step">{{ step }}</span>
              }
            </span>
          }
        </button>
      }
    </div>
    <ng-content />
  `,
  styles: `
    @use 'media';

    :host {
      flex: 1 1 0;
      min-height: 0;
      display: flex;
      flex-direction: column;
      gap: 8px;
      overflow: auto;
      padding: 0 4px 4px 0;
    }
    :host > * {
      flex: none;
    }
    .sure {
      display: grid;
      grid-template-columns: auto minmax(0, 1fr) 96px;
      align-items: center;
      gap: 14px;
    }
    .sure input {
      width: 100%;
      height: 48px;
      accent-color: var(--lamp);
      background: none;
    }
    output {
      font-size: var(--text-l);
      font-weight: 700;
      text-align: right;
      white-space: nowrap;
    }
    .chart {
      height: 158px;
    }
    .ways {
      display: grid;
      grid-template-columns: minmax(0, 1fr);
      gap: 6px;
    }
    .way {
      display: grid;
      grid-template-columns: 84px minmax(0, 1fr) auto;
      align-items: baseline;
      gap: 2px 10px;
      min-height: 56px;
    }
    .way.thin {
      min-height: 48px;
      padding-block: 4px;
      align-items: center;
    }
    .minutes {
      color: var(--dim);
      white-space: nowrap;
    }
    .minutes strong {
      font-size: var(--text-xl);
      color: var(--ink);
    }
    .thin .minutes strong {
      font-size: var(--text-m);
    }
    .name {
      font-weight: 700;
    }
    .odds {
      font-weight: 600;
      white-space: nowrap;
    }
    .odds:not(.tone-good) {
      color: var(--dim);
    }
    .steps {
      grid-column: 2 / -1;
      display: flex;
      flex-wrap: wrap;
      gap: 3px 16px;
    }
    .step {
      position: relative;
      font-size: var(--text-xs);
      color: var(--dim);
    }
    .step + .step::before {
      content: '›';
      position: absolute;
      left: -11px;
    }
    h2 {
      margin: 6px 0 0;
    }
    @include media.narrow {
      :host {
        overflow: visible;
        flex: none;
      }
      .way {
        grid-template-columns: 66px minmax(0, 1fr) auto;
      }
      .steps {
        grid-column: 1 / -1;
      }
    }
  `,
})
export class WayList {
  protected readonly t = T;

  readonly ways = input.required<readonly Way[]>();
  /** Each way at the wait that is looked at, in order. */
  readonly ranked = input.required<readonly Chosen[]>();
  readonly chosenId = input.required<string | null>();
  readonly sureness = input.required<number>();
  /** The odds from which a way is sure enough. */
  readonly bar = input.required<number>();
  /** The name of an option, or of a piece of kit. */
  readonly nameOf = input.required<(id: string) => string>();
  readonly picked = output<string>();
  readonly surenessPicked = output<number>();

  protected readonly steps = SURENESS;
  protected readonly step = computed(() => {
    const at = SURENESS.findIndex((percent) => Number(percent) / 100 >= this.sureness());
    return at < 0 ? SURENESS.length - 1 : at;
  });
  protected readonly sureWords = computed(() => SURENESS_WORDS[SURENESS[this.step()]!]);
  private readonly rows = computed(() => {
    const isUnlikely = (c: Chosen | undefined): boolean => (c?.point.start ?? 1) < LIKELY_ODDS;
    return this.ranked().map((chosen, i, all) => {
      const [minutes, unit] = minutesWords(chosen.point.minutes).split(' ');
      return {
        chosen,
        minutes,
        unit,
        name: wayName(chosen.way, this.nameOf()),
        odds: inHundred(chosen.point.start),
        isSure: chosen.point.start >= this.bar() && !isUnlikely(chosen),
        isUnlikely: isUnlikely(chosen),
        isFirstUnlikely: isUnlikely(chosen) && !isUnlikely(all[i - 1]),
        steps: chosen.point.steps.map((s) => wayStepWords(s, chosen.way, this.nameOf())),
      };
    });
  });
  protected readonly drawn = inParts(this.rows, ROWS_A_FRAME);
  private readonly chosen = computed(() => this.ranked().find((c) => c.way.id === this.chosenId()) ?? null);
  protected readonly draw = computed(() => {
    const [ways, chosen, bar] = [this.ways(), this.chosen(), this.bar()];
    return (c: ChartColours) => waysChart(ways, chosen, bar, c);
  });
  protected readonly summary = computed(() => {
    const chosen = this.chosen();
    return chosen
      ? T.summaryOf({
          name: wayName(chosen.way, this.nameOf()),
          minutes: minutesWords(chosen.point.minutes),
          odds: inHundred(chosen.point.start),
        })
      : T.summary;
  });
}
