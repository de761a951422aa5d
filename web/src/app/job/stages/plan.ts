import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  input,
  linkedSignal,
  output,
  untracked,
} from '@angular/core';
import {
  clampsOn,
  DEFAULT_RULES,
  type KitItem,
  type Odds,
  planRecord,
  type RankedOption,
  type Unknown,
  UNKNOWNS,
} from '@voltrek/core';
import { Store } from '@ngrx/store';
import { inHundred, percent, volts } from '../../shared/words/figures';
import { LIMIT_WORDS, OUTLOOK_WORDS, UNKNOWN_WORDS, unfitWords } from '../../shared/words/words';
import { NextAction } from '../next-action';
import { optionName } from '../option-name';
import { selectOddsInputs, selectOptions, type Work } from '../state/job-selectors';
import { Reporter } from '../state/reporter';
import { OddsStore } from './odds-store';

interface Row {
  readonly ranked: RankedOption;
  readonly name: string;
  readonly outlook: string;
  readonly tone: string;
  /** Length of the bar and the place of the needed mark, per cent of its track. */
  readonly bar: number;
  readonly mark: number;
  readonly figure: string;
}

/** A bar's full track stands for this many times the needed speed (or the least wake volts). */
const TRACK_RATIO = 3;
const WAKE_TRACK_RATIO = 1.4;
/** Odds nearer to certainty than this leave no doubt worth naming. */
const SURE_SHARE = 0.99;

/** What is on the van, ranked by what the circuit says it will do here. */
@Component({
  selector: 'vt-plan',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [NextAction],
  providers: [OddsStore],
  template: `
    <section class="stage" aria-labelledby="stage-title">
      <header>
        <h1 id="stage-title">Plan</h1>
        <span class="dim">{{ basis() }}</span>
      </header>
      <div class="options" role="radiogroup" aria-label="Sources, best first">
        @for (row of fitting(); track row.ranked.option.id) {
          <button
            type="button"
            role="radio"
            class="option"
            [attr.aria-checked]="row.ranked.option.id === chosen()?.ranked?.option?.id"
            (click)="chosenId.set(row.ranked.option.id)"
          >
            <span class="name">{{ row.name }}</span>
            <span class="outlook" [class]="'tone-' + row.tone">{{ row.outlook }}</span>
            <span class="track" aria-hidden="true">
              <span class="bar" [class]="'bar-' + row.tone" [style.width.%]="row.bar"></span>
              <span class="mark" [style.left.%]="row.mark"></span>
            </span>
            <span class="number">{{ oddsOf(row)?.text ?? row.figure }}</span>
          </button>
        } @empty {
          <p class="problem">Nothing on this van fits. Call for a matching source, or recover.</p>
        }
      </div>
      @if (chosen(); as c) {
        <dl class="figures">
          @if (c.ranked.crank; as crank) {
            <div>
              <dt>at the starter</dt>
              <dd class="figure">{{ crank.starterVolts.toFixed(1) }} <small>V</small></dd>
            </div>
            <div>
              <dt>crank, needs {{ crank.neededRpm.toFixed(0) }}</dt>
              <dd class="figure">{{ crank.rpm.toFixed(0) }} <small>rpm</small></dd>
            </div>
            <div>
              <dt>starter draws</dt>
              <dd class="figure">{{ crank.starterAmps.toFixed(0) }} <small>A</small></dd>
            </div>
            <div>
              <dt>lost in the leads</dt>
              <dd class="figure">{{ crank.leadLossVolts.toFixed(2) }} <small>V</small></dd>
            </div>
          }
          @if (c.ranked.wake; as wake) {
            <div>
              <dt>at the posts</dt>
              <dd class="figure">{{ wake.postVolts.toFixed(2) }} <small>V</small></dd>
            </div>
            <div>
              <dt>while it wakes</dt>
              <dd class="figure">{{ wakeAmps }} <small>A</small></dd>
            </div>
            <div>
              <dt>lost in the leads</dt>
              <dd class="figure">{{ wake.leadLossVolts.toFixed(2) }} <small>V</small></dd>
            </div>
          }
        </dl>
        @if (oddsOf(c); as odds) {
          <p class="odds">
            Odds of a start <strong>{{ odds.text }}</strong
            >, {{ odds.band }}.
            @if (odds.doubt) {
              Most of the doubt is {{ odds.doubt }}.
            }
          </p>
        } @else if (odds.progress() !== null) {
          <p class="odds" role="status">
            Odds of a start: {{ progress() }} drawn.
            <button type="button" class="key" (click)="odds.cancel()">Stop</button>
          </p>
        } @else if (odds.problem(); as problem) {
          <p class="problem" role="alert">
            {{ problem }} <button type="button" class="key" (click)="drawOdds()">Try again</button>
          </p>
        }
        @if (c.ranked.crank) {
          <p>
            Held back most by <strong>{{ limitWords[c.ranked.limitedBy] }}</strong
            >.
          </p>
        }
      }
      @if (unfit().length) {
        <div>
          <h3>Not here</h3>
          <ul class="ruled unfit">
            @for (row of unfit(); track row.ranked.option.id) {
              <li>
                <span>{{ row.name }}</span
                ><span class="dim">{{ row.outlook }}</span>
              </li>
            }
          </ul>
        </div>
      }
    </section>
    <vt-next-action [label]="label()" [disabled]="!chosen()" (go)="take()" />
  `,
  styles: `
    :host {
      display: contents;
    }
    .options {
      display: grid;
      gap: 6px;
    }
    .option {
      display: grid;
      grid-template-columns: 1fr auto;
      gap: 2px 14px;
      width: 100%;
      min-height: 56px;
      padding: 7px 12px;
      border: 2px solid var(--line);
      border-radius: 5px;
      background: var(--sheet);
      text-align: left;
    }
    .option[aria-checked='true'] {
      border-color: var(--ink);
      box-shadow: inset 8px 0 0 var(--lamp);
      padding-left: 20px;
    }
    .name {
      font-weight: 700;
    }
    .outlook,
    .number {
      text-align: right;
      font-weight: 600;
    }
    .number {
      font-size: 15px;
      color: var(--dim);
    }
    .track {
      position: relative;
      align-self: center;
      height: 8px;
      background: var(--body);
    }
    .bar {
      display: block;
      height: 100%;
      background: var(--bad);
    }
    .bar-good {
      background: var(--ok);
    }
    .bar-watch {
      background: var(--watch);
    }
    .mark {
      position: absolute;
      top: -4px;
      bottom: -4px;
      width: 3px;
      background: var(--ink);
    }
    .figures {
      display: grid;
      grid-template-columns: repeat(4, auto);
      justify-content: space-between;
      gap: 12px;
      padding-top: 10px;
      border-top: 1px solid var(--line);
    }
    .odds {
      font-size: 18px;
    }
    .odds strong {
      font-size: 22px;
    }
    .unfit li {
      display: flex;
      justify-content: space-between;
      gap: 16px;
      padding: 6px 0;
      font-size: 16px;
    }
    @media (max-width: 720px) {
      .figures {
        grid-template-columns: repeat(2, auto);
      }
      .unfit li {
        display: block;
      }
    }
  `,
})
export class Plan {
  readonly work = input.required<Work>();
  readonly next = output();

  private readonly reporter = inject(Reporter);
  private readonly options = inject(Store).selectSignal(selectOptions);

  protected readonly odds = inject(OddsStore);
  private readonly oddsInputs = inject(Store).selectSignal(selectOddsInputs);
  protected readonly progress = computed(() => percent(this.odds.progress() ?? 0));

  protected readonly limitWords = LIMIT_WORDS;
  protected readonly wakeAmps = DEFAULT_RULES.wakeAmps;
  /** The option in the log; a value of its own, so that other events do not move what is being looked at. */
  private readonly loggedId = computed(() => this.work().job.plan?.optionId ?? null);
  protected readonly chosenId = linkedSignal<string | null>(() => this.loggedId());
  private readonly rows = computed(() => this.options().map((o) => rowOf(o, this.work().kit)));
  protected readonly fitting = computed(() => this.rows().filter((r) => !r.ranked.unfit));
  protected readonly unfit = computed(() => this.rows().filter((r) => r.ranked.unfit));
  protected readonly chosen = computed(
    () => this.fitting().find((r) => r.ranked.option.id === this.chosenId()) ?? this.fitting()[0] ?? null,
  );
  protected readonly basis = computed(() =>
    this.work().job.readings.some((r) => r.kind === 'rest')
      ? 'from the readings taken'
      : 'assumes a block at 10 %: not measured',
  );
  private readonly isTaken = computed(
    () => this.work().job.plan?.optionId === this.chosen()?.ranked.option.id,
  );
  protected readonly label = computed(() => {
    const name = this.chosen()?.name;
    return !name ? 'Nothing fits' : this.isTaken() ? 'Go on to Hook up' : `Take: ${name}`;
  });

  constructor() {
    // New readings or a new scene make what was drawn stale: draw again from what is known now.
    effect(() => {
      this.oddsInputs();
      untracked(() => this.drawOdds());
    });
  }

  protected drawOdds(): void {
    void this.odds.ask(this.oddsInputs());
  }

  protected oddsOf(row: Row): { text: string; band: string; doubt: string | null } | null {
    const odds = this.odds.byOption()[row.ranked.option.id];
    if (!odds) return null;
    const band = `${Math.floor(odds.low * 100)} to ${Math.ceil(odds.high * 100)} by ${odds.samples} draws`;
    const isDoubtful = odds.start > 1 - SURE_SHARE && odds.start < SURE_SHARE;
    return {
      text: inHundred(odds.start),
      band,
      doubt: isDoubtful ? UNKNOWN_WORDS[largestDoubt(odds)] : null,
    };
  }

  protected take(): void {
    const chosen = this.chosen();
    if (!chosen) return;
    const plan = planRecord(chosen.ranked, this.odds.byOption()[chosen.ranked.option.id]?.start ?? null);
    if (!this.isTaken() && plan) {
      this.reporter.report('plan.chosen', plan);
      // Refused while clamps are on: stay, the reason is on screen.
      if (clampsOn(this.work().job.hookup).length > 0) return;
    }
    this.next.emit();
  }
}

/** The unknown that moves the outcome most. */
function largestDoubt({ matters }: Odds): Unknown {
  return UNKNOWNS.reduce((a, b) => (matters[b] > matters[a] ? b : a));
}

function rowOf(ranked: RankedOption, kit: readonly KitItem[]): Row {
  const { crank, wake, outlook, unfit } = ranked;
  const track = wake ? WAKE_TRACK_RATIO : TRACK_RATIO;
  const ratio = crank && !crank.turns ? 0 : ranked.score;
  return {
    ranked,
    name: optionName(ranked, kit),
    outlook: unfit ? unfitWords(unfit) : outlook ? OUTLOOK_WORDS[outlook] : '',
    tone: outlook === 'cranks' || outlook === 'wakes' ? 'good' : outlook === 'marginal' ? 'watch' : 'bad',
    bar: Math.min(100, (ratio / track) * 100),
    mark: 100 / track,
    figure: crank ? `${crank.rpm.toFixed(0)} rpm` : wake ? volts(wake.postVolts) : '',
  };
}
