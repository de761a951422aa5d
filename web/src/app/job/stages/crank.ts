import { ATTEMPT_OUTCOMES, type AttemptOutcome } from '@voltrek/core/crank';
import { fixed } from '@words/numbers';
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  input,
  linkedSignal,
  output,
  type Signal,
  signal,
} from '@angular/core';
import { anyClampOn } from '@voltrek/core/hookup';
import {
  mustComeOff,
  restOfJob,
  restSecondsLeft,
  runningAttempt,
  type Stage,
  tryLimitSeconds,
} from '@voltrek/core/job';
import { startsByWaking } from '@voltrek/core/machine';
import type { NextTry } from '@voltrek/core/plan';
import { readingRange } from '@voltrek/core/diagnosis';
import { outOfRange } from '@words/range-words';
import { typedVolts } from '../../shared/ui/typed-volts';
import { clock, volts } from '@words/figures';
import { Cues } from '../../shared/ui/cues';
import { whenPassed } from '../../shared/ui/when-passed';
import { REST_WORDS } from '@words/atlas-words';
import { outcomeWords } from '@words/words';
import { MeasureLeads } from './measure-leads';
import { NextAction, type StageAction } from '../next-action';
import { ReasonPrompt } from '../../shared/ui/reason-prompt';
import type { PlannedRescue } from '@voltrek/core/job';
import type { Work } from '../../shared/job/job-selectors';
import { goesOn } from '../goes-on';
import { nextActionAt } from '../../shared/job/next-action-at';
import { Reporter } from '../../shared/job/reporter';
import { goWords } from '@words/next-words';
import { serverTicker } from '../../shared/job/ticker';
import { minutesWords } from '@words/way-words';
import { CrankMeter } from './crank-meter';
import { NextTries } from './next-tries';
import { PlanPromise } from './plan-promise';
import { Tries } from './tries';
import { CRANK as T } from '@words/screens/job-stages';

/** Bounded tries: start, watch, stop, rest. */
@Component({
  selector: 'vt-crank',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [CrankMeter, MeasureLeads, NextAction, NextTries, PlanPromise, Tries],
  template: `
    <section class="stage" aria-labelledby="stage-title">
      <header>
        <h1 id="stage-title">{{ wakes() ? t.wake : t.crank }}</h1>
        <span class="dim">{{ help() }}</span>
      </header>
      <div class="dial" [class.over]="over()">
        <span class="time" role="timer">{{ time() }}</span>
        <div>
          <p class="state">{{ state() }}</p>
          <p class="dim">{{ limitNote() }}</p>
        </div>
      </div>
      @if (running()) {
        <label class="lowest">
          <span>{{ wakes() ? t.postVoltsLabel : t.lowestLabel }}</span>
          <input
            class="field"
            inputmode="decimal"
            autocomplete="off"
            [placeholder]="meterLowest() === null ? t.typingHint : volts(meterLowest()!) + t.meter"
            [value]="lowestText()"
            [attr.aria-invalid]="lowestFault() !== null"
            #lowestTextInput
            (input)="lowestText.set(lowestTextInput.value)"
          />
        </label>
        @if (lowestFault(); as why) {
          <p class="problem" role="alert">{{ why }}</p>
        }
        <fieldset>
          <legend>{{ t.howDidItEnd }}</legend>
          <div class="outcomes">
            @for (outcome of outcomes(); track outcome) {
              <button
                type="button"
                class="key"
                data-once
                [attr.aria-disabled]="lowestFault() === null ? null : true"
                (click)="end(outcome)"
              >
                {{ words()[outcome].name }}
              </button>
            }
          </div>
        </fieldset>
      }
      <vt-crank-meter
        [jobId]="work().job.id"
        [systemVolts]="work().machine.systemVolts"
        [running]="running() !== null"
        (lowestChange)="meterLowest.set($event)"
      />
      @if (weighs()) {
        <vt-next-tries [work]="work()" (chosenChange)="chosenNext.set($event)" />
      } @else if (joinedPlan(); as plan) {
        <vt-plan-promise [plan]="plan" />
      }
      <vt-measure-leads [work]="work()" />
      <vt-tries [work]="work()" [rescue]="rescue()" />
    </section>
    @let does = action();
    <vt-next-action
      [label]="does.label"
      [action]="does.key"
      [disabled]="does.waits ?? false"
      (go)="does.go()"
    />
  `,
  styles: `
    @use 'media';

    :host {
      display: contents;
    }
    .dial {
      display: flex;
      align-items: center;
      gap: 22px;
      padding: 12px 22px;
      border: 2px solid var(--ink);
      border-radius: 6px;
      background: var(--sheet);
    }
    .dial.over {
      border: 5px solid var(--bad);
    }
    .time {
      font-size: calc(2 * var(--text-xxl));
      font-weight: 800;
      line-height: 1;
      min-width: 180px;
      text-align: right;
    }
    .state {
      font-size: var(--text-l);
      font-weight: 700;
    }
    .outcomes {
      display: grid;
      grid-template-columns: repeat(5, 1fr);
      gap: 6px;
      margin-top: 6px;
    }
    .outcomes .key {
      min-height: 64px;
      padding: 4px;
    }
    .lowest {
      display: grid;
      grid-template-columns: 1fr 180px;
      align-items: center;
      gap: 14px;
    }
    @include media.narrow {
      .outcomes {
        grid-template-columns: repeat(2, 1fr);
      }
      .time {
        font-size: calc(1.3 * var(--text-xxl));
        min-width: 110px;
      }
      .dial {
        padding: 10px 14px;
        gap: 14px;
      }
      .lowest {
        grid-template-columns: 1fr;
        gap: 4px;
      }
    }
  `,
})
export class Crank {
  protected readonly t = T;

  readonly work = input.required<Work>();
  readonly rescue = input.required<PlannedRescue | null>();
  readonly goOn = output<Stage>();

  private readonly reporter = inject(Reporter);
  private readonly reasons = inject(ReasonPrompt);
  private readonly now = serverTicker();

  protected readonly volts = volts;
  protected readonly lowestText = signal('');

  protected readonly wakes = computed(() => startsByWaking(this.work().machine));
  protected readonly words = computed(() => outcomeWords(this.work().machine));
  protected readonly outcomes = computed(() =>
    ATTEMPT_OUTCOMES.filter((o) => !this.wakes() || o === 'started' || o === 'clicks' || o === 'nothing'),
  );
  protected readonly running = computed(() => runningAttempt(this.work().job));
  protected readonly mustComeOff = computed(() => mustComeOff(this.work().job));
  protected readonly started = computed(() => this.work().situation.casualtyRuns);
  private readonly next = nextActionAt('crank', this.now);
  protected readonly isClosed = computed(() => this.work().job.closedAt !== null);
  /** The plan of what is joined: its figures say nothing of a crank by itself. */
  protected readonly joinedPlan = computed(() =>
    anyClampOn(this.work().job.hookup) ? this.work().job.plan : null,
  );
  protected readonly help = computed(() => (anyClampOn(this.work().job.hookup) ? T.helped : T.alone));
  protected readonly limitSeconds = computed(() => {
    const { machine, rules } = this.work();
    return tryLimitSeconds(machine, rules, this.joinedPlan() && (this.rescue()?.option.source ?? null));
  });
  protected readonly restLeft = computed(() =>
    this.running() || this.started()
      ? 0
      : restSecondsLeft(this.work().job, new Date(this.now()).toISOString(), this.work().rules),
  );
  protected readonly spent = computed(
    () => this.work().job.triesSinceChecks >= this.work().rules.crankTriesMax,
  );
  private readonly seconds = computed(() => {
    const running = this.running();
    return running ? Math.max(0, (this.now() - Date.parse(running.startedAt)) / 1000) : 0;
  });
  /** Of the seconds that a try may last; none while nothing cranks. A try that ends in time is no limit reached. */
  private readonly tryLeft = computed(() => {
    const limit = this.limitSeconds();
    return this.running() === null || limit === null ? null : limit - this.seconds();
  });
  protected readonly over = computed(() => (this.tryLeft() ?? 0) < 0);
  protected readonly time = computed(() => {
    if (this.running()) return fixed(this.seconds(), 1);
    return this.restLeft() > 0 ? clock(this.restLeft()) : fixed(0, 1);
  });
  protected readonly state = computed(() => {
    if (this.over()) return T.stopNow;
    if (this.running()) return this.wakes() ? T.wakePressed : T.cranking;
    if (this.started()) return this.wakes() ? T.awake : T.itRuns;
    if (this.mustComeOff()) return T.onCharge;
    return this.restLeft() > 0 ? T.resting : T.ready;
  });
  protected readonly limitNote = computed(() => {
    const seconds = this.limitSeconds();
    if (seconds === null) return T.holdVolts;
    const last = this.work().job.attempts.at(-1);
    if (this.restLeft() > 0 && last && last.restFor !== 'rule')
      return T.restFigures({ reason: REST_WORDS[last.restFor], seconds: last.restSeconds });
    return T.limits({
      seconds,
      restSeconds: this.work().rules.crankRestSeconds,
      tries: this.work().rules.crankTriesMax,
    });
  });
  /** The last try failed, and nothing else decides what comes now. */
  protected readonly weighs = computed(() => {
    const last = this.work().job.attempts.at(-1);
    return (
      !this.running() &&
      !this.started() &&
      !this.isClosed() &&
      !this.spent() &&
      !this.wakes() &&
      last?.outcome != null
    );
  });
  protected readonly chosenNext = linkedSignal<boolean, NextTry | null>({
    source: this.weighs,
    computation: () => null,
  });
  /** Until when somebody chose to wait, by the server's clock, ms; 0 while nobody did. */
  private readonly waitUntil = linkedSignal<unknown, number>({
    source: () => this.work().job.attempts.length,
    computation: () => 0,
  });
  /** Clamps were set again since the last try. */
  private readonly areSetAgain = linkedSignal<unknown, boolean>({
    source: () => this.work().job.attempts.length,
    computation: () => false,
  });
  protected readonly waitLeft = computed(() => Math.max(0, (this.waitUntil() - this.now()) / 1000));
  /** The action where it is not the next try. */
  private readonly elseLabel = computed(() => {
    const next = this.weighs() ? this.chosenNext() : null;
    switch (next?.kind) {
      case 'elsewhere':
        return T.goChecks;
      case 'other':
        if (next.way.kind !== 'reclamp') return T.goPlan;
        return this.areSetAgain() ? null : T.reclamped;
      case 'wait':
        return this.waitUntil() > 0
          ? null
          : T.waitMore({ waitMinutes: minutesWords(next.point.waitMinutes) });
      default:
        return null;
    }
  });

  private elseTaken(): void {
    const next = this.chosenNext();
    if (next?.kind === 'elsewhere') this.goOn.emit('checks');
    else if (next?.kind === 'wait') this.waitUntil.set(this.now() + next.point.waitMinutes * 60_000);
    else if (next?.way.kind === 'reclamp') this.areSetAgain.set(true);
    else this.goOn.emit('plan');
  }

  private readonly startLabel = computed(() => {
    const nth = this.work().job.attempts.length + 1;
    return this.wakes() ? T.pressStart({ nth }) : T.crankNowTry({ nth });
  });
  /** The values of the linked meter in this try; typed ones go before them. */
  protected readonly meterLowest = signal<number | null>(null);
  private readonly lowestRange = computed(() =>
    readingRange('crank-minimum', this.work().machine.systemVolts),
  );
  private readonly lowest = computed(() =>
    this.lowestText().trim() ? typedVolts(this.lowestText(), this.lowestRange().max) : this.meterLowest(),
  );
  protected readonly lowestFault = computed(() => {
    if (!this.lowestText().trim()) return null;
    const value = this.lowest();
    return value === null ? T.notVolts : outOfRange(T.volts, value, this.lowestRange());
  });

  protected readonly action = computed((): StageAction => {
    if (this.running()) return { label: T.outcomeMissing, waits: true, go: () => undefined };
    const next = this.next();
    if (next.act === 'go') {
      const label = next.why === 'comes-off-first' ? T.chargerFirst : goWords(next.to, next.why);
      return { label, go: () => this.goOn.emit(next.to) };
    }
    const elseLabel = this.elseLabel();
    if (elseLabel) return { label: elseLabel, go: () => this.elseTaken() };
    if (this.waitLeft() > 0)
      return {
        label: T.wait + clock(this.waitLeft()) + T.crankSooner,
        key: 'crank-sooner',
        go: () => this.start(),
      };
    if (this.restLeft() > 0)
      return {
        label: T.rest + clock(this.restLeft()) + T.soonerWithReason,
        go: () => void this.hurry(),
      };
    return { label: this.startLabel(), go: () => this.start() };
  });

  constructor() {
    const cues = inject(Cues);
    goesOn(this.next, this.goOn, ({ why }) => why === 'runs');
    const whileResting = (left: Signal<number>) => computed(() => (this.running() ? null : left()));
    whenPassed(whileResting(this.restLeft), () => cues.give('over'));
    whenPassed(whileResting(this.waitLeft), () => cues.give('over'));
    whenPassed(this.tryLeft, () => cues.give('stop'));
  }

  private start(): void {
    this.lowestText.set('');
    this.meterLowest.set(null);
    this.reporter.report('attempt.started', {});
  }

  /** The tap that says how a try ended ends it: the seconds are those of the hand. */
  protected end(outcome: AttemptOutcome): void {
    if (this.lowestFault() !== null) return;
    const seconds = Math.min(Math.round(this.seconds() * 10) / 10, 3600);
    const { job, situation } = this.work();
    const at = new Date(this.now()).toISOString();
    const rest = restOfJob(job, situation, this.rescue()?.option ?? null, at, seconds);
    this.reporter.report('attempt.ended', {
      outcome,
      seconds,
      lowestVolts: this.lowest(),
      ...(rest && { restSeconds: Math.min(rest.seconds, 36_000), restFor: rest.decidedBy }),
    });
  }

  private async hurry(): Promise<void> {
    const reason = await this.reasons.ask(T.whyEarly);
    if (!reason) return;
    this.reporter.report('override.given', { rule: 'crankRestSeconds', reason });
    this.start();
  }
}
