import { NgTemplateOutlet } from '@angular/common';
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
import type { Repair } from '@voltrek/core/diagnosis';
import { hazardWhy } from '@words/hazard-words';
import { clampsOn } from '@voltrek/core/hookup';
import { notHere, planRecord, rollingOfJob, type Stage } from '@voltrek/core/job';
import { type PlanChanges, type RankedOption, withChanges } from '@voltrek/core/plan';
import { Store } from '@ngrx/store';
import { PlanRunner } from '../../../workers/plan-runner';
import { percent } from '@words/figures';
import { ROLLING_BAR_WORDS, ROLLING_CAUTION_WORDS } from '@words/words';
import { MendHere } from '../../mend-here';
import { Lift } from '../../charge/lift-part';
import { PutOnCharge } from '../../charge/put-on-charge';
import { RepairPrompt } from '../../repair-prompt';
import { RollPrompt } from '../../roll-prompt';
import { NextAction } from '../../next-action';
import {
  selectOptions,
  selectFindings,
  selectPlanCases,
  selectWakeCases,
  type Work,
} from '../../../shared/job/job-selectors';
import { nextActionAt } from '../../../shared/job/next-action-at';
import { Reporter } from '../../../shared/job/reporter';
import { goWords } from '@words/next-words';
import { onceDrawn } from '../../../shared/ui/drawn-later';
import { WaysStore } from '../../ways-store';
import { OptionList } from './option-list';
import { PlanCompare } from './plan-compare';
import { PlanDetailView } from './plan-detail';
import { notesOf } from './plan-notes';
import { byOdds, rowOf } from './option-rows';
import { stopsAhead } from './stops-ahead';
import { computedWait, inputsOfPlan } from './plan-record';
import { PlanWays } from './plan-ways';
import { UnfitList } from './unfit-list';
import { VanComing } from './van-coming';
import { WayList } from './way-list';
import { DETAIL_RUNNER, ODDS_RUNNER, PlanStore } from './plan-store';
import { PLAN as T } from '@words/screens/job-stages-plan';

/** The kit of the van, ranked by the circuit, and the chosen one in depth. */
@Component({
  selector: 'vt-plan',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [
    NgTemplateOutlet,
    Lift,
    MendHere,
    NextAction,
    OptionList,
    PlanCompare,
    PlanDetailView,
    PutOnCharge,
    UnfitList,
    VanComing,
    WayList,
  ],
  providers: [
    { provide: ODDS_RUNNER, useClass: PlanRunner },
    { provide: DETAIL_RUNNER, useClass: PlanRunner },
    PlanStore,
    PlanRunner,
    WaysStore,
    PlanWays,
  ],
  template: `
    <section class="stage" aria-labelledby="stage-title">
      <header>
        <h1 id="stage-title">{{ t.plan }}</h1>
        <span class="dim">{{ basis() }}</span>
        @if (isDeep() && fitting().length > 1) {
          <button
            type="button"
            class="key"
            [attr.aria-pressed]="isComparing()"
            (click)="isComparing.set(!isComparing())"
          >
            {{ t.sideBySide }}
          </button>
        }
        @if (ways.exist()) {
          <button type="button" class="key" [attr.aria-pressed]="isDeep()" (click)="goDeep(!isDeep())">
            {{ t.inDepth }}
          </button>
        }
      </header>
      @if (search.failed()) {
        <p class="problem" role="alert">
          {{ t.failed }}
          <button type="button" class="key" (click)="ways.again()">{{ t.searchAgain }}</button>
        </p>
      }
      @if (store.problem(); as problem) {
        <p class="problem" role="alert">
          {{ problem }} <button type="button" class="key" (click)="computeAll()">{{ t.computeAgain }}</button>
        </p>
      } @else if (store.restarts() > 0) {
        <p class="dim" role="status">{{ t.restarted }}</p>
      }
      @if (stopAhead(); as line) {
        <p class="problem ahead" role="status">{{ line }}</p>
      }
      @if (!isDeep()) {
        <vt-van-coming [work]="work()" />
        @if (ways.elsewhere(); as line) {
          <p class="no-source" role="status">
            <span>{{ line }}</span>
            @if (ways.isElsewhere()) {
              <button type="button" class="key" (click)="goOn.emit('checks')">{{ t.goChecks }}</button>
            }
          </p>
        }
        <!-- In a task of its own: the stage before goes and this one comes in another. -->
        @defer (when isDrawn()) {
          <vt-way-list
            [ways]="search.ways()"
            [ranked]="ways.shown()"
            [chosenId]="ways.chosen()?.way?.id ?? null"
            [sureness]="ways.sureness()"
            [bar]="ways.bar()"
            [nameOf]="ways.nameOf"
            (picked)="ways.pick($event)"
            (surenessPicked)="ways.beSure($event)"
          >
            @if (search.progress(); as share) {
              <p class="dim" role="status">{{ t.searching({ share: percent(share) }) }}</p>
            }
            @if (ways.nextBest(); as line) {
              <p class="dim">{{ line }}</p>
            }
            <vt-unfit-list [rows]="unfit()" />
            <!-- Below what is looked at first: it comes when that is drawn. -->
            @defer (on idle) {
              <ng-container [ngTemplateOutlet]="beside" />
            }
          </vt-way-list>
        }
      } @else {
        <div class="split">
          <vt-option-list
            [fitting]="fitting()"
            [unfit]="unfit()"
            [chosenId]="chosen()?.ranked?.option?.id ?? null"
            (chosen)="chosenId.set($event)"
          >
            @if (store.oddsProgress() !== null) {
              <p class="dim drawing" role="status">{{ t.oddsDrawn({ oddsProgress: oddsProgress() }) }}</p>
            }
            <ng-container [ngTemplateOutlet]="beside" />
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
    <ng-template #beside>
      <vt-mend-here class="rolling" [work]="work()" />
      <vt-lift class="rolling" [work]="work()" />
      <vt-put-on-charge class="rolling" [work]="work()" [isInPlan]="true" />
      <p class="rolling">
        <strong>{{ t.rollingStart }}</strong> <span class="dim">{{ rolling() }}</span>
      </p>
      @for (note of notes(); track note.name) {
        <p class="rolling">
          <strong>{{ note.name }}</strong> <span class="dim">{{ note.text }}</span>
        </p>
      }
    </ng-template>
    @if (elsewhere(); as go) {
      <vt-next-action [label]="go.label" (go)="go.go()" />
    } @else {
      <vt-next-action
        [label]="label()"
        [action]="actionKey()"
        [isPlain]="isUnsafe() || (!isDeep() && ways.isUnlikely())"
        [disabled]="isDeep() ? !chosen() : !ways.chosen() || ways.isWaiting()"
        (go)="take()"
      />
    }
  `,
  styles: `
    @use 'media';

    :host {
      display: contents;
    }
    .stage {
      overflow: hidden;
    }
    header .key {
      align-self: center;
    }
    .no-source {
      display: flex;
      flex-wrap: wrap;
      gap: 6px 14px;
      align-items: center;
      justify-content: space-between;
      margin: 0 0 8px;
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
    .ahead {
      font-size: var(--text-xs);
      line-height: 1.25;
    }
    .rolling,
    .drawing {
      margin-top: 10px;
      font-size: var(--text-xs);
      line-height: 1.25;
    }
    .rolling .dim {
      display: block;
      margin: 0;
    }
    @include media.narrow {
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
  protected readonly t = T;

  readonly work = input.required<Work>();
  /** The stage where it goes on. */
  readonly goOn = output<Stage>();

  private readonly reporter = inject(Reporter);
  private readonly repairs = inject(RepairPrompt);
  private readonly rolls = inject(RollPrompt);
  private readonly options = inject(Store).selectSignal(selectOptions);
  private readonly cases = inject(Store).selectSignal(selectPlanCases);
  private readonly findings = inject(Store).selectSignal(selectFindings);
  private readonly wakeCases = inject(Store).selectSignal(selectWakeCases);
  protected readonly store = inject(PlanStore);
  protected readonly ways = inject(PlanWays);
  protected readonly search = inject(WaysStore);
  protected readonly isDrawn = onceDrawn();

  /** The option in the log; a value of its own, so that other events do not move what is being looked at. */
  private readonly loggedId = computed(() => this.work().job.plan?.optionId ?? null);
  protected readonly chosenId = linkedSignal<string | null>(() => this.loggedId());
  protected readonly comparedId = signal<string | null>(null);
  protected readonly isComparing = signal(false);
  /** Figures changed by hand, by option; new readings make them stale, so they go. */
  private readonly changesByOption = linkedSignal<unknown, Readonly<Record<string, PlanChanges>>>({
    source: this.cases,
    computation: () => ({}),
  });

  private readonly ahead = stopsAhead();
  /** The option that taking it would choose. */
  private readonly toTake = computed(() =>
    this.isDeep() ? this.chosenOptionId() : (this.ways.chosen()?.way.optionId ?? null),
  );
  /** The worst that its hook-up will meet; null where that is nothing severe. */
  protected readonly stopAhead = computed(() => {
    const [worst] = this.ahead()[this.toTake() ?? ''] ?? [];
    return worst ? T.stopAhead({ hazard: hazardWhy(worst) }) : null;
  });
  protected readonly isUnsafe = computed(() => this.stopAhead() !== null);
  private readonly rows = computed(() => {
    const { kit } = this.work();
    const odds = this.store.byOption();
    const ahead = this.ahead();
    return this.options().map((o) => rowOf(o, kit, odds[o.option.id], ahead[o.option.id] !== undefined));
  });
  protected readonly fitting = computed(() =>
    byOdds(
      this.rows().filter((r) => !r.ranked.unfit),
      this.store.byOption(),
    ),
  );
  /** Sources that fit in no way: one that fits with other leads is offered, and not listed as unfit. */
  protected readonly unfit = computed(() => {
    const unfit = notHere(this.options());
    return this.rows().filter((r) => unfit.includes(r.ranked));
  });
  /** The options one by one, each to the bottom; ways are what is shown first. */
  private readonly wantsDepth = signal(false);
  protected readonly isDeep = computed(() => this.wantsDepth() || !this.ways.exist());
  protected readonly percent = percent;
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
    return plan ? inputsOfPlan(plan, this.work().job) : [];
  });
  protected readonly basis = computed(() =>
    this.work().job.readings.some((r) => r.kind === 'rest') ? T.fromReadings : T.assumed,
  );
  protected readonly notes = computed(() => notesOf(this.work(), this.options()));
  protected readonly rolling = computed(() => {
    const { job, situation } = this.work();
    const roll = rollingOfJob(job, situation);
    return roll.allowed
      ? T.possible({ cautions: roll.cautions.map((c) => ROLLING_CAUTION_WORDS[c]).join(', ') })
      : T.notPossible({ bars: roll.bars.map((b) => ROLLING_BAR_WORDS[b]).join(', ') });
  });
  private readonly next = nextActionAt('plan');
  /** Nothing is planned for a machine that runs, or whose charge is waited for. */
  protected readonly elsewhere = computed(() => {
    const next = this.next();
    return next.act === 'go'
      ? { label: goWords(next.to, next.why), go: () => this.goOn.emit(next.to) }
      : null;
  });
  private readonly isTaken = computed(() => this.loggedId() === this.chosenOptionId());
  protected readonly label = computed(() => {
    if (!this.isDeep()) return this.ways.label();
    const name = this.chosen()?.name;
    return !name ? T.nothingFits : this.isTaken() ? T.goOnToHookUp : T.take({ name });
  });
  /** The minutes in its label pass: that does not make it another action. */
  protected readonly actionKey = computed(() =>
    this.isDeep() ? this.label() : (this.ways.chosen()?.way.id ?? ''),
  );

  constructor() {
    // New readings or a new scene make what was drawn stale: draw again from what is known now.
    effect(() => {
      const cases = this.cases();
      this.findings();
      if (this.isDeep()) untracked(() => void this.store.askOdds(cases, this.findings()));
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
    const findings = this.findings();
    const wake = this.wakeCases().get(this.chosenOptionId() ?? '');
    if (plan && findings) void this.store.askDetail(plan, findings);
    else if (wake) void this.store.askWake(wake.charged, wake.flat);
  }

  protected computeAll(): void {
    void this.store.askOdds(this.cases(), this.findings());
    this.computeDetail();
  }

  protected change(changes: PlanChanges): void {
    const id = this.chosenOptionId();
    if (id) this.changesByOption.update((all) => ({ ...all, [id]: changes }));
  }

  protected goDeep(isDeep: boolean): void {
    const { optionId } = this.ways.chosen()?.way ?? {};
    if (isDeep && optionId) this.chosenId.set(optionId);
    this.wantsDepth.set(isDeep);
  }

  protected take(): void {
    if (this.isDeep()) return this.takeOption();
    const repair = this.ways.mending();
    if (repair) return void this.mend(repair);
    if (this.ways.chosen()?.way.kind === 'roll') return void this.roll();
    const stage = this.ways.take();
    if (stage) this.goOn.emit(stage);
  }

  private async mend(repair: Repair): Promise<void> {
    if (await this.repairs.goThrough(this.work(), repair)) this.reporter.report('repair.made', repair);
  }

  private async roll(): Promise<void> {
    const started = await this.rolls.goThrough(this.work());
    if (started === null) return;
    this.reporter.report('roll.tried', { started });
    if (started) this.goOn.emit('crank');
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
    this.goOn.emit('hookup');
  }

  /** The log keeps beside the ranking: odds, the computed wait, and every figure with its origin. */
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
