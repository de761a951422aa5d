import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  input,
  linkedSignal,
  output,
  signal,
  untracked,
} from '@angular/core';
import { clampsOn } from '@voltrek/core/hookup';
import { planRecord, waysInput } from '@voltrek/core/job';
import { rollingStart } from '@voltrek/core/machine';
import {
  type Chosen,
  LIKELY_ODDS,
  type Odds,
  type PlanCase,
  type PlanChanges,
  planInputs,
  type RankedOption,
  rankWays,
  USUAL_SURENESS,
  type WaitCurve,
  withChanges,
} from '@voltrek/core/plan';
import type { HouseRules } from '@voltrek/core/rules';
import type { KitItem } from '@voltrek/core/sources';
import { Store } from '@ngrx/store';
import { PlanRunner } from '../../../workers/plan-runner';
import { inHundred, nameOf, percent, timeOfDay, volts } from '../../../shared/words/figures';
import { minutesWords, wayName } from '../../../shared/words/way-words';
import {
  OUTLOOK_WORDS,
  ROLLING_BAR_WORDS,
  ROLLING_CAUTION_WORDS,
  unfitWords,
} from '../../../shared/words/words';
import { NextAction } from '../../next-action';
import { optionName } from '../../option-name';
import {
  selectOptions,
  selectPlanCases,
  selectWakeCases,
  type Work,
} from '../../../shared/job/job-selectors';
import { Reporter } from '../../../shared/job/reporter';
import { serverTicker } from '../../../shared/job/ticker';
import { WaysStore } from '../../ways-store';
import { OptionList, type OptionRow } from './option-list';
import { PlanCompare } from './plan-compare';
import { PlanDetailView } from './plan-detail';
import { notesOf } from './plan-notes';
import { WayList } from './way-list';
import { DETAIL_RUNNER, LONGEST_WAIT_MIN, ODDS_RUNNER, PlanStore } from './plan-store';

/** How often the time by which it runs is told anew, ms. */
const CLOCK_MS = 5_000;
/** A bar's full track stands for this many times the needed speed (or the least wake volts). */
const TRACK_RATIO = 3;
const WAKE_TRACK_RATIO = 1.4;

/** What is on the van, ranked by what the circuit says it will do here, and the chosen one in depth. */
@Component({
  selector: 'vt-plan',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [NextAction, OptionList, PlanCompare, PlanDetailView, WayList],
  providers: [
    { provide: ODDS_RUNNER, useClass: PlanRunner },
    { provide: DETAIL_RUNNER, useClass: PlanRunner },
    PlanStore,
    PlanRunner,
    WaysStore,
  ],
  template: `
    <section class="stage" aria-labelledby="stage-title">
      <header>
        <h1 id="stage-title">Plan</h1>
        <span class="dim">{{ basis() }}</span>
        @if (isDeep() && fitting().length > 1) {
          <button
            type="button"
            class="key"
            [attr.aria-pressed]="isComparing()"
            (click)="isComparing.set(!isComparing())"
          >
            Side by side
          </button>
        }
        @if (hasWays()) {
          <button type="button" class="key" [attr.aria-pressed]="isDeep()" (click)="goDeep(!isDeep())">
            In depth
          </button>
        }
      </header>
      @if (waysStore.failed()) {
        <p class="problem" role="alert">
          The ways could not be searched.
          <button type="button" class="key" (click)="search()">Search again</button>
        </p>
      }
      @if (store.problem(); as problem) {
        <p class="problem" role="alert">
          {{ problem }} <button type="button" class="key" (click)="computeAll()">Compute again</button>
        </p>
      } @else if (store.restarts() > 0) {
        <p class="dim" role="status">The computing stopped once and was started again.</p>
      }
      @if (!isDeep()) {
        <vt-way-list
          [ways]="waysStore.ways()"
          [ranked]="shown()"
          [chosenId]="chosenWay()?.way?.id ?? null"
          [sureness]="sureness()"
          [nameOf]="nameOf"
          (picked)="pickWay($event)"
          (surenessPicked)="beSure($event)"
        >
          @if (waysStore.progress(); as share) {
            <p class="dim" role="status">Searching, {{ percent(share) }}</p>
          }
          @if (elsewhere(); as line) {
            <p class="problem">{{ line }}</p>
          }
          @if (nextBest(); as line) {
            <p class="dim">{{ line }}</p>
          }
          @if (unfit().length) {
            <h3>Not here</h3>
            <ul class="ruled unfit">
              @for (row of unfit(); track row.ranked.option.id) {
                <li>
                  {{ row.name }} <span class="dim">{{ row.outlook }}</span>
                </li>
              }
            </ul>
          }
          <p class="rolling">
            <strong>Rolling start</strong> <span class="dim">{{ rolling() }}</span>
          </p>
          @for (note of notes(); track note.name) {
            <p class="rolling">
              <strong>{{ note.name }}</strong> <span class="dim">{{ note.text }}</span>
            </p>
          }
        </vt-way-list>
      } @else {
        <div class="split">
          <vt-option-list
            [fitting]="fitting()"
            [unfit]="unfit()"
            [chosenId]="chosen()?.ranked?.option?.id ?? null"
            (chosen)="chosenId.set($event)"
          >
            @if (store.oddsProgress() !== null) {
              <p class="dim drawing" role="status">Odds: {{ oddsProgress() }} drawn</p>
            }
            <p class="rolling">
              <strong>Rolling start</strong> <span class="dim">{{ rolling() }}</span>
            </p>
            @for (note of notes(); track note.name) {
              <p class="rolling">
                <strong>{{ note.name }}</strong> <span class="dim">{{ note.text }}</span>
              </p>
            }
          </vt-option-list>
          @if (chosen(); as c) {
            @if (isComparing()) {
              <vt-plan-compare
                [left]="c"
                [right]="compared()"
                [others]="others()"
                [odds]="store.byOption()"
                (picked)="comparedId.set($event)"
              />
            } @else {
              @defer (on immediate) {
                <vt-plan-detail
                  [ranked]="c.ranked"
                  [detail]="store.detail()"
                  [wake]="wakes() ? store.wake() : null"
                  [listOdds]="listOdds()"
                  [isStale]="isStale()"
                  [progress]="store.detailProgress()"
                  [inputs]="inputs()"
                  [changes]="changes()"
                  (changed)="change($event)"
                  (cancelled)="store.cancel()"
                  (again)="computeDetail()"
                />
              }
            }
          }
        </div>
      }
    </section>
    <vt-next-action
      [label]="label()"
      [action]="actionKey()"
      [isPlain]="isUnlikely()"
      [disabled]="isDeep() ? !chosen() : !chosenWay()"
      (go)="take()"
    />
  `,
  styles: `
    :host {
      display: contents;
    }
    .stage {
      overflow: hidden;
    }
    header .key {
      align-self: center;
    }
    header .dim {
      margin-right: auto;
    }
    .split {
      flex: 1 1 0;
      min-height: 0;
      display: grid;
      grid-template-columns: 222px minmax(0, 1fr);
      gap: 14px;
    }
    .rolling,
    .drawing {
      margin-top: 10px;
      font-size: 15px;
      line-height: 1.25;
    }
    .rolling .dim {
      display: block;
      margin: 0;
    }
    @media (max-width: 720px) {
      .stage {
        overflow: auto;
      }
      .split {
        display: block;
        flex: none;
      }
      vt-plan-detail,
      vt-plan-compare {
        display: flex;
        margin-top: 16px;
      }
    }
  `,
})
export class Plan {
  readonly work = input.required<Work>();
  readonly next = output();
  readonly toCrank = output();
  readonly toMeasure = output();
  readonly toVerdict = output();

  private readonly reporter = inject(Reporter);
  private readonly options = inject(Store).selectSignal(selectOptions);
  private readonly cases = inject(Store).selectSignal(selectPlanCases);
  private readonly wakeCases = inject(Store).selectSignal(selectWakeCases);
  protected readonly store = inject(PlanStore);
  protected readonly waysStore = inject(WaysStore);
  private readonly now = serverTicker(CLOCK_MS);

  /** The option in the log; a value of its own, so that other events do not move what is being looked at. */
  private readonly loggedId = computed(() => this.work().job.plan?.optionId ?? null);
  /** The way that was taken; once its first source has charged and is off, what it goes on with. */
  private readonly plannedWayId = computed(() => {
    const { plan, charged } = this.work().job;
    if (!plan?.thenOptionId) return plan?.optionId ?? null;
    return charged?.optionId === plan.optionId ? plan.thenOptionId : `${plan.optionId}>${plan.thenOptionId}`;
  });
  protected readonly chosenId = linkedSignal<string | null>(() => this.loggedId());
  protected readonly comparedId = signal<string | null>(null);
  protected readonly isComparing = signal(false);
  /** Figures changed by hand, by option; new readings make them stale, so they go. */
  private readonly changesByOption = linkedSignal<unknown, Readonly<Record<string, PlanChanges>>>({
    source: this.cases,
    computation: () => ({}),
  });

  private readonly rows = computed(() => {
    const { kit } = this.work();
    const odds = this.store.byOption();
    return this.options().map((o) => rowOf(o, kit, odds[o.option.id]));
  });
  /** By odds once all are drawn, so that nothing moves under a finger before. */
  protected readonly fitting = computed(() => {
    const fit = this.rows().filter((r) => !r.ranked.unfit);
    const odds = this.store.byOption();
    const points = (row: OptionRow): number => Math.round((odds[row.ranked.option.id]?.start ?? 0) * 100);
    const areAllDrawn = fit.every((r) => odds[r.ranked.option.id]);
    return areAllDrawn
      ? [...fit].sort(
          (a, b) =>
            Number(a.ranked.option.chargeOnly) - Number(b.ranked.option.chargeOnly) || points(b) - points(a),
        )
      : fit;
  });
  protected readonly unfit = computed(() => this.rows().filter((r) => r.ranked.unfit));
  /** The options one by one, each to the bottom; ways are what is shown first. */
  private readonly wantsDepth = signal(false);
  protected readonly hasWays = computed(() => this.waysInput() !== null);
  protected readonly isDeep = computed(() => this.wantsDepth() || !this.hasWays());
  protected readonly sureness = signal(storedSureness());
  private readonly waysInput = computed(
    () => {
      const { job, machine, kit, rules } = this.work();
      return waysInput(job, machine, kit, this.options(), rules, new Date(this.askedAt()).toISOString());
    },
    { equal: (a, b) => JSON.stringify(a) === JSON.stringify(b) },
  );
  /** The moment that the search is of: what is joined goes on charging, so it is asked anew when the stage opens or something happens. */
  private readonly askedAt = computed(() => {
    this.work();
    return untracked(this.now);
  });
  private readonly ranked = computed(() => rankWays(this.waysStore.settled(), this.sureness()));
  /** Without those that another way of the same beginning beats. */
  protected readonly shown = computed(() =>
    withoutBeaten(this.ranked(), (id) => {
      const option = this.options().find((o) => o.option.id === id)?.option;
      return JSON.stringify([option?.sourceId, option?.across]);
    }),
  );
  private readonly pickedWayId = linkedSignal<string | null>(() => this.plannedWayId());
  protected readonly chosenWay = computed(
    () => this.shown().find((c) => c.way.id === this.pickedWayId()) ?? this.shown()[0] ?? null,
  );
  protected readonly nextBest = computed(() => {
    const chosen = this.chosenWay();
    const sourceOf = (c: Chosen | null): string | null =>
      this.options().find((o) => o.option.id === c?.way.optionId)?.option.sourceId ?? null;
    const other = this.shown().find(
      (c) => c.way.kind === 'join' && sourceOf(c) !== sourceOf(chosen) && c.point.start >= LIKELY_ODDS,
    );
    return chosen && other
      ? `If that only groans, the next best: ${wayName(other.way, this.nameOf)}, ${minutesWords(other.point.minutes)}, ${inHundred(other.point.start)}.`
      : null;
  });
  /** Said where it is likelier than not. */
  protected readonly elsewhere = computed(() =>
    this.waysStore.elsewhere() >= LIKELY_ODDS
      ? `That the fault lies where no source helps: ${inHundred(this.waysStore.elsewhere())}. Look at joints, locks, starter and fuel first.`
      : null,
  );
  protected readonly isUnlikely = computed(
    () => !this.isDeep() && (this.chosenWay()?.point.start ?? 1) < LIKELY_ODDS,
  );
  protected readonly percent = percent;
  protected readonly nameOf = (id: string): string => {
    const { kit } = this.work();
    const option = this.options().find((o) => o.option.id === id);
    return option ? optionName(option, kit) : nameOf(kit, id);
  };
  protected readonly chosen = computed(
    () => this.fitting().find((r) => r.ranked.option.id === this.chosenId()) ?? this.fitting()[0] ?? null,
  );
  private readonly chosenOptionId = computed(() => this.chosen()?.ranked.option.id ?? null);
  protected readonly others = computed(() =>
    this.fitting().filter((r) => r.ranked.option.id !== this.chosenOptionId()),
  );
  protected readonly compared = computed(
    () => this.others().find((r) => r.ranked.option.id === this.comparedId()) ?? this.others()[0] ?? null,
  );
  protected readonly wakes = computed(() => this.work().machine.engine === null);
  protected readonly changes = computed(() => this.changesByOption()[this.chosenOptionId() ?? ''] ?? {});
  private readonly currentCase = computed(() => {
    const plan = this.cases().get(this.chosenOptionId() ?? '');
    return plan ? withChanges(plan, this.changes()) : null;
  });
  protected readonly isStale = computed(() => {
    const detail = this.store.detail();
    return detail !== null && detail.of !== this.currentCase();
  });
  protected readonly listOdds = computed(() => this.store.byOption()[this.chosenOptionId() ?? ''] ?? null);
  protected readonly oddsProgress = computed(() => percent(this.store.oddsProgress() ?? 0));
  protected readonly inputs = computed(() => {
    const plan = this.currentCase();
    return plan ? this.inputsOf(plan) : [];
  });
  protected readonly basis = computed(() =>
    this.work().job.readings.some((r) => r.kind === 'rest')
      ? 'from the readings taken'
      : 'assumes a battery at 10 %: not measured',
  );
  protected readonly notes = computed(() => notesOf(this.work(), this.options()));
  protected readonly rolling = computed(() => {
    const { machine, job } = this.work();
    const rest = job.readings.filter((r) => r.kind === 'rest').at(-1)?.volts ?? null;
    const roll = rollingStart(machine, {
      sloping: job.scene?.sloping ?? false,
      ontoRoad: job.scene?.place === 'street' || job.scene?.place === 'verge',
      restVolts: machine.batteries.length > 1 ? null : rest,
    });
    return roll.allowed
      ? `possible: ${roll.cautions.map((c) => ROLLING_CAUTION_WORDS[c]).join(', ')}`
      : `no: ${roll.bars.map((b) => ROLLING_BAR_WORDS[b]).join(', ')}`;
  });
  private readonly isTaken = computed(() => this.loggedId() === this.chosenOptionId());
  protected readonly label = computed(() => {
    const way = this.chosenWay();
    if (!this.isDeep()) {
      if (way) return this.wayLabel(way);
      return this.waysStore.progress() === null ? 'Nothing fits' : 'Searching';
    }
    const name = this.chosen()?.name;
    return !name ? 'Nothing fits' : this.isTaken() ? 'Go on to Hook up' : `Take: ${name}`;
  });
  /** The minutes in its label pass: that does not make it another action. */
  protected readonly actionKey = computed(() =>
    this.isDeep() ? this.label() : (this.chosenWay()?.way.id ?? ''),
  );

  private wayLabel({ way, point }: Chosen): string {
    if (way.kind === 'own')
      return way.mends ? 'Mend the joint, then read it again' : 'Go on: crank it as it is';
    if (way.kind === 'roll') return 'Go on: roll it';
    if (way.kind === 'reclamp') return 'Go on: set the clamps again';
    if (way.kind === 'swap') return 'Go on: change the battery';
    if (way.mends) return 'Mend the joint, then read it again';
    const isTaken =
      this.loggedId() === way.optionId && this.work().job.plan?.waitMinutes === point.waitMinutes;
    if (isTaken) return 'Go on to Hook up';
    const name = wayName(way, this.nameOf);
    if (point.start < LIKELY_ODDS) return `Take it all the same: ${name}`;
    const at = new Date(this.now() + point.minutes * 60_000);
    return `Take: ${name}, running by ${timeOfDay(at)}`;
  }

  constructor() {
    // New readings or a new scene make what was drawn stale: draw again from what is known now.
    effect(() => {
      const cases = this.cases();
      if (this.isDeep()) untracked(() => void this.store.askOdds(cases));
    });
    effect(() => {
      const input = this.waysInput();
      untracked(() => void this.waysStore.ask(input));
    });
    // In a task after the drawing that asks for it: a worker takes a while to be made.
    effect((onCleanup) => {
      this.currentCase();
      this.wakeCases();
      this.chosenOptionId();
      if (!this.isDeep()) return;
      const soon = setTimeout(() => this.computeDetail());
      onCleanup(() => clearTimeout(soon));
    });
  }

  protected computeDetail(): void {
    const plan = this.currentCase();
    const wake = this.wakeCases().get(this.chosenOptionId() ?? '');
    if (plan) void this.store.askDetail(plan);
    else if (wake) void this.store.askWake(wake.charged, wake.flat);
  }

  protected computeAll(): void {
    void this.store.askOdds(this.cases());
    this.computeDetail();
  }

  protected change(changes: PlanChanges): void {
    const id = this.chosenOptionId();
    if (id) this.changesByOption.update((all) => ({ ...all, [id]: changes }));
  }

  protected search(): void {
    void this.waysStore.ask(this.waysInput());
  }

  protected goDeep(isDeep: boolean): void {
    const { optionId } = this.chosenWay()?.way ?? {};
    if (isDeep && optionId) this.chosenId.set(optionId);
    this.wantsDepth.set(isDeep);
  }

  protected pickWay(id: string): void {
    this.pickedWayId.set(id);
  }

  protected beSure(sureness: number): void {
    this.sureness.set(sureness);
    keepSureness(sureness);
  }

  protected take(): void {
    const way = this.isDeep() ? null : this.chosenWay();
    if (way) this.takeWay(way);
    else this.takeOption();
  }

  private takeWay({ way, point }: Chosen): void {
    if (way.mends) return this.toMeasure.emit();
    if (way.kind === 'own' || way.kind === 'roll' || way.kind === 'reclamp') return this.toCrank.emit();
    if (way.kind === 'swap') return this.toVerdict.emit();
    const ranked = this.options().find((o) => o.option.id === way.optionId);
    const plan = ranked && this.cases().get(ranked.option.id);
    if (!ranked || !plan) return;
    const { waitMinutes, start } = point;
    const isTaken = this.loggedId() === way.optionId && this.work().job.plan?.waitMinutes === waitMinutes;
    if (!isTaken) {
      const inputs = this.inputsOf({ ...plan, waitMinutes });
      const record = planRecord(ranked, { odds: start, waitMinutes, inputs, thenOptionId: way.thenOptionId });
      if (record) this.reporter.report('plan.chosen', record);
      // Refused while clamps are on: stay, the reason is on screen.
      if (clampsOn(this.work().job.hookup).length > 0) return;
    }
    this.next.emit();
  }

  private inputsOf(plan: PlanCase) {
    const { job } = this.work();
    const isRead = job.readings.some((r) => r.kind === 'rest');
    return planInputs(plan, { soc: isRead ? 'typed' : 'assumed', tempC: job.scene ? 'scene' : 'assumed' });
  }

  private takeOption(): void {
    const chosen = this.chosen();
    if (!chosen) return;
    const plan = planRecord(chosen.ranked, this.figures(chosen.ranked));
    if (!this.isTaken() && plan) {
      this.reporter.report('plan.chosen', plan);
      // Refused while clamps are on: stay, the reason is on screen.
      if (clampsOn(this.work().job.hookup).length > 0) return;
    }
    this.next.emit();
  }

  /** What the log keeps beside the ranking: odds, the computed wait, and every figure with its origin. */
  private figures({ chargeMinutes }: RankedOption) {
    const detail = this.isStale() ? null : this.store.detail();
    const changes = this.changes();
    const waitMinutes =
      changes.waitMinutes ?? computedWait(detail?.curve ?? null, this.work().rules) ?? chargeMinutes;
    return {
      odds: detail?.odds?.start ?? this.listOdds()?.start ?? null,
      waitMinutes,
      inputs: this.inputs().map((input) =>
        changes[input.key] === undefined
          ? input.key === 'waitMinutes'
            ? { ...input, value: waitMinutes }
            : input
          : { ...input, origin: 'changed' as const },
      ),
    };
  }
}

/** The knee of the curve, and never less than lets the volts settle; null without a curve that says. */
function computedWait(curve: WaitCurve | null, rules: HouseRules): number | null {
  if (!curve || curve.shape === 'no-supply' || curve.shape === 'no-use') return null;
  return Math.max(
    rules.donorWaitMinLeast,
    curve.shape === 'still-rising' ? LONGEST_WAIT_MIN : curve.kneeMinutes,
  );
}

function rowOf(ranked: RankedOption, kit: readonly KitItem[], odds: Odds | undefined): OptionRow {
  const { crank, wake, outlook, unfit } = ranked;
  const track = wake ? WAKE_TRACK_RATIO : TRACK_RATIO;
  const ratio = crank && !crank.turns ? 0 : ranked.score;
  const speed = crank ? `${crank.rpm.toFixed(0)} rpm` : wake ? volts(wake.postVolts) : '';
  return {
    ranked,
    name: optionName(ranked, kit),
    outlook: unfit ? unfitWords(unfit) : outlook ? OUTLOOK_WORDS[outlook] : '',
    tone: outlook === 'cranks' || outlook === 'wakes' ? 'good' : outlook === 'marginal' ? 'watch' : 'bad',
    bar: Math.min(100, (ratio / track) * 100),
    mark: 100 / track,
    figure: odds ? inHundred(odds.start) : speed,
  };
}

const SURENESS_KEY = 'voltrek.sureness';

function storedSureness(): number {
  const stored = Number(localStorage.getItem(SURENESS_KEY));
  return stored > 0 && stored < 1 ? stored : USUAL_SURENESS;
}

function keepSureness(sureness: number): void {
  localStorage.setItem(SURENESS_KEY, String(sureness));
}

/**
 * One source after another is only worth telling where it beats each of them by itself, and a lead set only where none of the van is better:
 * those are found in depth.
 */
function withoutBeaten(ranked: readonly Chosen[], sourceOf: (optionId: string) => string): Chosen[] {
  return ranked.filter((c, i) => {
    const rivals =
      c.way.kind === 'charge-then-join'
        ? ranked.filter((r) => r.way.kind !== 'charge-then-join' && !r.way.mends)
        : ranked.slice(0, i).filter((r) => c.way.kind === 'join' && isAlike(r, c, sourceOf));
    return !rivals.some(
      ({ point }) => point.minutes <= c.point.minutes && point.start >= c.point.start - BEATS_BY,
    );
  });
}
/** Odds that the trouble of a second source, or of other leads, must add. */
const BEATS_BY = 0.02;

/** The same source, mended or not, in the same place with other leads. */
const isAlike = (a: Chosen, b: Chosen, sourceOf: (optionId: string) => string): boolean =>
  a.way.kind === 'join' &&
  a.way.mends === b.way.mends &&
  sourceOf(a.way.optionId!) === sourceOf(b.way.optionId!);
