import { ChangeDetectionStrategy, Component, computed, inject, input, output } from '@angular/core';
import { POLARITY_SIGNS_NEEDED } from '@voltrek/core/diagnosis';
import type { HookupStep } from '@voltrek/core/hookup';
import { entryOf, underCharge } from '@voltrek/core/job';
import { startsByWaking } from '@voltrek/core/machine';
import { earthedWords } from '@words/earth-words';
import { RULE_QUESTIONS, SCHOOL_WORDS } from '@words/rule-words';
import { NgbModal } from '@ng-bootstrap/ng-bootstrap/modal';
import { ReasonPrompt } from '../../shared/ui/reason-prompt';
import { clock } from '@words/figures';
import { ChargeWatch } from '../charge/charge-watch';
import { GuardLamp } from '../guard-lamp';
import { NextAction, type StageAction } from '../next-action';
import { SomethingElseDialog } from '../something-else-dialog';
import { StepCard } from '../step-card';
import { StepsDone, StepsToCome } from '../steps-around';
import type { OrderRun, PlannedRescue, Work } from '../../shared/job/job-selectors';
import { Reporter } from '../../shared/job/reporter';
import { serverTicker } from '../../shared/job/ticker';
import { actionDone, stepKey } from '../step-words';
import { HOOKUP as T } from '@words/screens/job-stages';

/** A wait that is over but for this long is over, s. */
const WAITED_NEARLY_S = 15;

/** Clamps on, one at a time, with what the circuit says of each before it is on. */
@Component({
  selector: 'vt-hookup',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [ChargeWatch, GuardLamp, NextAction, StepCard, StepsDone, StepsToCome],
  template: `
    <section class="stage" aria-labelledby="stage-title">
      <header>
        <h1 id="stage-title">{{ t.hookUp }}</h1>
        <span class="dim note">{{ ruleNote() }}</span>
        @if (!isUnplanned() && work().job.closedAt === null) {
          <button type="button" class="key" (click)="somethingElse()">{{ t.iDidSomethingElse }}</button>
        }
      </header>
      @if (isUnplanned()) {
        <p class="problem">{{ t.noSourceIsChosenYet }}</p>
      } @else {
        @if (!charges()) {
          <vt-steps-done class="behind" [run]="run()" [work]="work()" [rescue]="rescue()" />
        }
        @if (run().next; as step) {
          <vt-step-card
            [step]="step"
            [work]="work()"
            [rescue]="rescue()!"
            [following]="run().later[0] ?? null"
          />
          <vt-charge-watch [work]="work()" />
          @if (isGuardLook(step)) {
            <vt-guard-lamp [work]="work()" />
          }
        } @else {
          <p class="ready" role="status">{{ t.hookedUpStandClearOfThe }}</p>
          <vt-charge-watch [work]="work()" />
        }
        <vt-steps-to-come [run]="run()" [work]="work()" [rescue]="rescue()" [atLast]="finalWord()" />
      }
    </section>
    @let does = action();
    <vt-next-action
      [label]="does.label"
      [action]="does.key"
      [disabled]="does.waits ?? false"
      [holds]="isHeld()"
      [isPlain]="isEarly()"
      (go)="does.go()"
    />
  `,
  styles: `
    :host {
      display: contents;
    }
    .ready {
      padding: 22px;
      border: 2px solid var(--ink);
      border-radius: 5px;
      background: var(--sheet);
      font-size: 26px;
      font-weight: 700;
    }
    header .key {
      flex: none;
      align-self: center;
      white-space: nowrap;
    }
    h1 {
      white-space: nowrap;
    }
    .note {
      margin-right: auto;
      font-size: 16px;
    }
    @media (max-width: 720px) {
      .behind,
      .note {
        display: none;
      }
    }
  `,
})
export class Hookup {
  protected readonly t = T;

  readonly work = input.required<Work>();
  readonly rescue = input.required<PlannedRescue | null>();
  readonly run = input.required<OrderRun>();
  readonly next = output();
  readonly toPlan = output();
  readonly toClearing = output();
  readonly toLocate = output();

  private readonly reporter = inject(Reporter);
  private readonly modals = inject(NgbModal);
  private readonly reasons = inject(ReasonPrompt);
  private readonly now = serverTicker();

  protected readonly isGuardLook = ({ action }: HookupStep): boolean =>
    action.kind === 'confirm' && action.what === 'guard-lamp';

  protected readonly wakes = computed(() => startsByWaking(this.work().machine));
  protected readonly finalWord = computed(() => {
    const { plan } = this.work().job;
    if (plan?.outlook === 'charges') return T.fullChargerOffPlugOutClamps;
    return this.wakes() ? T.footOnTheBrakePressStart : T.standClearCrankTheCasualty;
  });
  protected readonly isUnplanned = computed(() => {
    const { done, next, later } = this.run();
    return !next && done.length === 0 && later.length === 0;
  });
  private readonly polaritySure = computed(
    () => this.work().job.polaritySigns.length >= POLARITY_SIGNS_NEEDED,
  );
  protected readonly ruleNote = computed(() => {
    const rule = this.run().next?.rule;
    const question = rule && RULE_QUESTIONS[rule];
    const school = rule && SCHOOL_WORDS[String(this.work().rules[rule])];
    return question && school
      ? earthedWords(T.houseRule(question.toLowerCase(), school), this.work().machine)
      : '';
  });

  /** The step that may be done now. */
  private readonly step = computed(() => (this.polaritySure() ? this.run().next : null));
  protected readonly isHeld = computed(() => this.step() !== null && this.work().rules.clampSteps === 'hold');
  protected readonly isEarly = computed(() => {
    const step = this.step();
    return step !== null && this.waitSecondsLeft(step) > WAITED_NEARLY_S;
  });
  protected readonly action = computed((): StageAction => {
    const { job, machine } = this.work();
    if (this.isUnplanned()) return { label: T.chooseASourceInPlan, go: () => this.toPlan.emit() };
    if (!this.polaritySure()) return { label: T.provePositiveInLocateFirst, go: () => this.toLocate.emit() };
    const step = this.step();
    if (step)
      return {
        label: actionDone(step.action, machine),
        key: stepKey(step),
        waits: job.closedAt !== null,
        go: () => void this.confirm(step),
      };
    if (job.plan?.chargeOnly)
      return {
        label: job.plan.thenOptionId ? T.chargedTakeItOffFirst : T.chargedTakeTheChargerOffFirst,
        go: () => this.toClearing.emit(),
      };
    return { label: this.wakes() ? T.goOnWakeIt : T.goOnCrank, go: () => this.next.emit() };
  });
  /** What was done to put it on charge is of no more interest than the charge itself. */
  protected readonly charges = computed(() => underCharge(this.work().job) !== null);

  protected somethingElse(): void {
    this.modals.open(SomethingElseDialog, {
      ariaLabelledBy: 'something-else-title',
      centered: true,
      size: 'lg',
    });
  }

  private async confirm(step: HookupStep): Promise<void> {
    const left = this.waitSecondsLeft(step);
    if (left > WAITED_NEARLY_S) {
      const reason = await this.reasons.ask(
        `Why go on ${clock(left)} early? The plan counts on the whole wait.`,
      );
      if (!reason) return;
      const rule = this.rescue()?.option.sourceKind === 'donor' ? 'donorWaitMinLeast' : 'engineStartWaitMin';
      this.reporter.report('override.given', { rule, reason });
    }
    this.reporter.report(...entryOf(step.action));
  }

  /** Of a step that waits; from the act that it follows. */
  private waitSecondsLeft({ minutes }: HookupStep): number {
    const since = this.work().job.lastActAt;
    if (!minutes || since === null) return 0;
    return minutes * 60 - (this.now() - Date.parse(since)) / 1000;
  }
}
