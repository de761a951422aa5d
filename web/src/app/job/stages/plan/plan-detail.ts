import { metres, section, unitWord } from '@words/units';
import { fixed } from '@words/numbers';
import { ChangeDetectionStrategy, Component, computed, input, output, signal } from '@angular/core';
import type { Odds, Unknown } from '@voltrek/core/belief';
import type { PlanChanges, PlanInput, RankedOption } from '@voltrek/core/plan';
import { UNKNOWNS } from '@voltrek/core/belief';
import { DEFAULT_RULES } from '@voltrek/core/rules';
import { Chart } from '../../../shared/ui/chart';
import type { ChartColours } from '../../../shared/ui/colours';
import { inHundred, percent } from '@words/figures';
import { helpWords, LIMIT_WORDS, UNKNOWN_WORDS, waitWords, WAKE_OUTCOME_LINES } from '@words/words';
import { crankChart, leadChart, type LeadMetric, waitChart, wakeChart } from './plan-charts';
import { PlanInputs } from './plan-inputs';
import type { PlanDetail as Detail, WakeDetail } from './plan-store';
import { NgbNavModule } from '@ng-bootstrap/ng-bootstrap/nav';
import { Choices } from '../../../shared/ui/choices';
import { messagesOf } from '@words/messages-of';
import { CAUSE_WORDS } from '@words/diagnosis-words';
import { PLAN_DETAIL as T } from '@words/screens/job-stages-plan';

const TABS = ['crank', 'wait', 'leads', 'machines', 'inputs'] as const;
export type DetailTab = (typeof TABS)[number];
const METRICS: readonly LeadMetric[] = ['odds', 'rpm', 'starterVolts', 'riseC'];

/** Odds nearer to certainty than this leave no doubt worth naming. */
const SURE_SHARE = 0.99;

/** One option in depth: figures, the crank in time, how long to wait, which leads, and every figure it rests on. */
@Component({
  selector: 'vt-plan-detail',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Choices, Chart, NgbNavModule, PlanInputs],
  template: `
    <dl class="figures">
      @if (ranked().crank; as crank) {
        <div>
          <dt>{{ t.atTheStarter }}</dt>
          <dd class="figure">{{ fixed(crank.starterVolts, 1) }} <small>V</small></dd>
        </div>
        <div>
          <dt>{{ t.needs({ neededRpm: fixed(crank.neededRpm) }) }}</dt>
          <dd class="figure">{{ fixed(crank.rpm) }} <small>{{ unitWord('rpm') }}</small></dd>
        </div>
        <div>
          <dt>{{ t.itDraws }}</dt>
          <dd class="figure">{{ fixed(crank.starterAmps) }} <small>A</small></dd>
        </div>
        <div>
          <dt>{{ t.leadsLose }}</dt>
          <dd class="figure">{{ fixed(crank.leadLossVolts, 2) }} <small>V</small></dd>
        </div>
      }
      @if (ranked().wake; as wake) {
        <div>
          <dt>{{ t.atThePosts }}</dt>
          <dd class="figure">{{ fixed(wake.postVolts, 2) }} <small>V</small></dd>
        </div>
        <div>
          <dt>{{ t.whileItWakes }}</dt>
          <dd class="figure">{{ wakeAmps }} <small>A</small></dd>
        </div>
        <div>
          <dt>{{ t.leadsLose }}</dt>
          <dd class="figure">{{ fixed(wake.leadLossVolts, 2) }} <small>V</small></dd>
        </div>
      }
    </dl>
    @if (wake(); as w) {
      <div class="chart">
        <vt-chart [draw]="drawWake()" [summary]="wakeSummary()" />
      </div>
      <p>{{ wakeLines[w.charged.outcome] }}</p>
      <p class="dim">{{ wakeLines[w.flat.outcome] }}</p>
    } @else if (ranked().crank) {
      <div
        ngbNav
        #nav="ngbNav"
        class="tabs"
        [activeId]="tab()"
        (activeIdChange)="tab.set($event)"
        [attr.aria-label]="t.inDepth"
      >
        @for (part of tabs; track part) {
          <ng-container [ngbNavItem]="part">
            <button type="button" ngbNavLink class="key">{{ tabWords[part] }}</button>
            <ng-template ngbNavContent>
              <div class="panel">
                @if (isStale()) {
                  <p class="stale" role="status">
                    <i class="bi bi-clock-history" aria-hidden="true"></i> {{ t.stale }}
                    @if (progress() === null) {
                      <button type="button" class="key" (click)="again.emit()">{{ t.computeAgain }}</button>
                    }
                  </p>
                }
                @switch (part) {
                  @case ('crank') {
                    @if (detail()?.trace) {
                      <div class="chart"><vt-chart [draw]="drawCrank()" [summary]="crankSummary()" /></div>
                    }
                  }
                  @case ('wait') {
                    @if (curve(); as curve) {
                      <p class="say">
                        <strong>{{ waitLine() }}</strong>
                      </p>
                      @if (curve.start.length > 1) {
                        <div class="chart"><vt-chart [draw]="drawWait()" [summary]="waitLine()" /></div>
                      }
                    }
                  }
                  @case ('leads') {
                    @if (cells()) {
                      <div class="keys metrics" role="radiogroup" [attr.aria-label]="t.show">
                        @for (m of metrics; track m) {
                          <button
                            type="button"
                            role="radio"
                            class="key"
                            [attr.aria-checked]="metric() === m"
                            (click)="metric.set(m)"
                          >
                            {{ metricWords[m] }}
                          </button>
                        }
                      </div>
                      <div class="chart"><vt-chart [draw]="drawLeads()" [summary]="leadSummary()" /></div>
                    } @else if (progress() === null) {
                      <p>{{ t.noLeads }}</p>
                    }
                  }
                  @case ('machines') {
                    <table>
                      <caption>
                        {{ t.machinesBehind }}
                      </caption>
                      <thead>
                        <tr>
                          <th scope="col">{{ t.fault }}</th>
                          <th scope="col">{{ t.soMany }}</th>
                          <th scope="col">{{ t.charge }}</th>
                          <th scope="col">{{ t.strength }}</th>
                          <th scope="col">{{ t.theyStart }}</th>
                        </tr>
                      </thead>
                      <tbody>
                        @for (kind of odds()?.kinds; track kind.cause) {
                          <tr>
                            <th scope="row">{{ causeWords[kind.cause] }}</th>
                            <td>{{ percent(kind.share) }}</td>
                            <td>{{ percent(kind.soc) }}</td>
                            <td>{{ percent(kind.strength) }}</td>
                            <td>{{ percent(kind.start) }}</td>
                          </tr>
                        }
                      </tbody>
                    </table>
                  }
                  @case ('inputs') {
                    <vt-plan-inputs
                      [inputs]="inputs()"
                      [changes]="changes()"
                      (changed)="changed.emit($event)"
                    />
                  }
                  @default never;
                }
              </div>
            </ng-template>
          </ng-container>
        }
      </div>
      <div [ngbNavOutlet]="nav"></div>
    }
    @if (progress(); as share) {
      <div class="progress-line" role="status">
        <span>{{ t.computing({ percentDone: percentDone() }) }}</span>
        <span class="track"><span [style.width.%]="share * 100"></span></span>
        <button type="button" class="key" (click)="cancelled.emit()">{{ t.stop }}</button>
      </div>
    }
    @if (odds(); as o) {
      <p class="odds">
        <span
          >{{ t.oddsOfAStart }} <strong>{{ oddsText() }}</strong
          >, {{ band() }}.</span
        >
        @if (doubt(); as d) {
          {{ t.mostDoubt({ unknown: d }) }}
        }
      </p>
    }
    @if (ranked().crank) {
      <p>
        {{ t.heldBackBy }} <strong>{{ limitWords[ranked().limitedBy] }}</strong
        >.
        @if (bestHelp(); as help) {
          {{ t.helpTitle }} <strong>{{ help }}</strong
          >.
        }
      </p>
    }
  `,
  styles: `
    @use 'media';

    :host {
      display: flex;
      flex-direction: column;
      gap: 10px;
      min-height: 0;
      overflow: auto;
    }
    :host > * {
      flex-shrink: 0;
    }
    .figures {
      display: grid;
      grid-template-columns: repeat(4, auto);
      justify-content: space-between;
      gap: 4px 8px;
      margin: 0;
    }
    dt {
      font-size: var(--text-xs);
    }
    .figure {
      font-size: var(--text-xl);
    }
    .tabs {
      display: grid;
      grid-template-columns: repeat(5, 1fr);
      gap: 0;
    }
    .tabs .key {
      padding: 4px;
      border-radius: 0;
      margin-left: -2px;
    }
    .tabs .key:first-child {
      border-radius: 5px 0 0 5px;
      margin-left: 0;
    }
    .tabs .key:last-child {
      border-radius: 0 5px 5px 0;
    }
    .tabs [aria-selected='true'] {
      position: relative;
      border-color: var(--ink);
      background: var(--ink);
      color: var(--paper);
    }
    .panel {
      display: flex;
      flex-direction: column;
      gap: 8px;
      flex: 1 0 auto;
    }
    .chart {
      flex: 1 0 280px;
      height: 280px;
    }
    :host > .chart {
      flex: none;
    }
    table {
      border-collapse: collapse;
      font-size: var(--text-s);
    }
    caption {
      caption-side: top;
      padding-bottom: 6px;
      color: var(--dim);
      text-align: left;
      font-size: var(--text-xs);
    }
    th,
    td {
      padding: 4px 8px 4px 0;
      border-bottom: 1px solid var(--line);
      text-align: left;
      font-weight: 500;
      vertical-align: top;
    }
    thead th {
      color: var(--dim);
      font-size: var(--text-xs);
    }
    td,
    thead th {
      white-space: nowrap;
    }
    td:last-child {
      font-weight: 700;
    }
    .metrics {
      gap: 6px;
    }
    .metrics .key {
      flex: 1;
      padding: 4px 6px;
    }
    .stale {
      color: var(--watch);
      font-weight: 600;
    }
    .progress-line {
      display: grid;
      grid-template-columns: auto 1fr auto;
      align-items: center;
      gap: 12px;
      color: var(--dim);
      font-size: var(--text-xs);
    }
    .progress-line .track {
      height: 6px;
      background: var(--body);
    }
    .progress-line .track span {
      display: block;
      height: 100%;
      background: var(--dim);
    }
    .odds strong {
      font-size: var(--text-l);
    }
    /* Three grids one above the other need the height that a narrow screen has to spare. */
    @include media.narrow {
      .chart {
        flex: none;
        height: 340px;
      }
    }
  `,
})
export class PlanDetailView {
  protected readonly fixed = fixed;
  protected readonly unitWord = unitWord;
  protected readonly t = T;

  readonly ranked = input.required<RankedOption>();
  readonly detail = input.required<Detail | null>();
  readonly wake = input.required<WakeDetail | null>();
  /** Odds drawn for the list, until the detail has its own. */
  readonly listOdds = input.required<Odds | null>();
  readonly isStale = input.required<boolean>();
  readonly progress = input.required<number | null>();
  readonly inputs = input.required<readonly PlanInput[]>();
  readonly changes = input.required<PlanChanges>();
  readonly changed = output<PlanChanges>();
  readonly cancelled = output();
  readonly again = output();

  protected readonly tabs = TABS;
  protected readonly tabWords: Readonly<Record<DetailTab, string>> = messagesOf('planTab');
  protected readonly causeWords = CAUSE_WORDS;
  protected readonly percent = percent;
  protected readonly metrics = METRICS;
  protected readonly metricWords: Readonly<Record<LeadMetric, string>> = messagesOf('leadMetric');
  protected readonly limitWords = LIMIT_WORDS;
  protected readonly wakeLines = WAKE_OUTCOME_LINES;
  protected readonly wakeAmps = DEFAULT_RULES.wakeAmps;
  protected readonly tab = signal<DetailTab>('crank');
  protected readonly metric = signal<LeadMetric>('odds');
  protected readonly percentDone = computed(() => percent(this.progress() ?? 0));

  /** Each part by itself, so that a chart is drawn again only when its own part is new. */
  private readonly trace = computed(() => this.detail()?.trace);
  protected readonly curve = computed(() => this.detail()?.curve);
  protected readonly cells = computed(() => this.detail()?.cells);
  private readonly leads = computed(() => this.detail()?.of.rescue.leads ?? null);

  protected readonly drawCrank = computed(() => {
    const trace = this.trace();
    return (c: ChartColours) => (trace ? crankChart(trace, c) : {});
  });
  protected readonly drawWait = computed(() => {
    const curve = this.curve();
    return (c: ChartColours) => (curve ? waitChart(curve, c) : {});
  });
  protected readonly drawLeads = computed(() => {
    const cells = this.cells();
    const leads = this.leads();
    const metric = this.metric();
    return (c: ChartColours) => (cells ? leadChart(cells, leads, metric, c) : {});
  });
  protected readonly drawWake = computed(() => {
    const wake = this.wake();
    return (c: ChartColours) =>
      wake ? wakeChart(wake.charged, wake.flat, DEFAULT_RULES.wakeMinVolts, c) : {};
  });

  protected readonly crankSummary = computed(() => {
    const trace = this.trace();
    if (!trace) return '';
    const fires = trace.startsAtSeconds;
    return T.traceSummary({
      volts: fixed(trace.dipVolts, 1),
      rpm: fixed(trace.rpm.at(-1)!),
      neededRpm: fixed(trace.neededRpm),
      fires: fires === null ? T.doesNotFire : T.firesAfterS({ seconds: fixed(fires, 1) }),
    });
  });
  protected readonly wakeSummary = computed(() => {
    const wake = this.wake();
    return wake ? `${WAKE_OUTCOME_LINES[wake.charged.outcome]} ${WAKE_OUTCOME_LINES[wake.flat.outcome]}` : '';
  });
  protected readonly waitLine = computed(() => {
    const curve = this.curve();
    return curve ? waitWords(curve) : '';
  });
  protected readonly leadSummary = computed(() => {
    const cells = this.cells() ?? [];
    const best = [...cells].sort((a, b) => b.odds - a.odds)[0];
    return best
      ? T.leadsSummary({
          sectionMm2: section(best.sectionMm2),
          lengthM: metres(best.lengthM),
          odds: inHundred(best.odds),
        })
      : '';
  });

  protected readonly odds = computed(() => this.detail()?.odds ?? this.listOdds());
  protected readonly oddsText = computed(() => inHundred(this.odds()?.start ?? 0));
  protected readonly band = computed(() => {
    const odds = this.odds();
    return odds
      ? T.toByDraws({
          low: Math.floor(odds.low * 100),
          high: Math.ceil(odds.high * 100),
          samples: odds.samples,
        })
      : '';
  });
  protected readonly doubt = computed(() => {
    const odds = this.odds();
    const isDoubtful = odds && odds.start > 1 - SURE_SHARE && odds.start < SURE_SHARE;
    return isDoubtful ? UNKNOWN_WORDS[largestDoubt(odds)] : null;
  });
  protected readonly bestHelp = computed(() => {
    const best = this.detail()?.helps?.[0];
    return best ? `${helpWords(best.help)}, ${inHundred(best.odds)}` : null;
  });
}

/** The unknown that moves the outcome most. */
function largestDoubt({ matters }: Odds): Unknown {
  return UNKNOWNS.reduce((a, b) => (matters[b] > matters[a] ? b : a));
}
