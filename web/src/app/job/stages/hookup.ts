import { withinSentence } from '@words/numbers';
import { ChangeDetectionStrategy, Component, computed, inject, input, output, signal } from '@angular/core';
import { hazardWhy } from '@words/hazard-words';
import type { Hazard, HookupStep } from '@voltrek/core/hookup';
import { entryOf, type GoReason, type Stage, underCharge } from '@voltrek/core/job';
import { startsByWaking } from '@voltrek/core/machine';
import { earthedWords } from '@words/earth-words';
import { RULE_QUESTIONS, ruleName, ruleValue } from '@words/rule-words';
import { NgbModal } from '@ng-bootstrap/ng-bootstrap/modal';
import { ReasonPrompt } from '../../shared/ui/reason-prompt';
import { clock } from '@words/figures';
import { ChargeWatch } from '../charge/charge-watch';
import { GuardLamp } from '../guard-lamp';
import { NextAction, type StageAction } from '../next-action';
import { SomethingElseDialog } from '../something-else-dialog';
import { StepCard } from '../step-card';
import { StepsDone, StepsToCome } from '../steps-around';
import type { OrderRun, PlannedRescue } from '@voltrek/core/job';
import type { Work } from '../../shared/job/job-selectors';
import { whenPassed } from '../../shared/ui/when-passed';
import { goesOn } from '../goes-on';
import { nextActionAt } from '../../shared/job/next-action-at';
import { Reporter } from '../../shared/job/reporter';
import type { StepSeen } from '../step-seen';
import { goWords } from '@words/next-words';
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
          <button type="button" class="key" (click)="somethingElse()">{{ t.somethingElse }}</button>
        }
      </header>
      @if (isUnplanned()) {
        <p class="problem">{{ t.noSource }}</p>
      } @else {
        @for (line of overruled(); track line) {
          <p class="problem overruled">{{ line }}</p>
        }
        @if (!charges()) {
          <vt-steps-done class="behind" [run]="run()" [work]="work()" [rescue]="rescue()" />
        }
        @if (run().next; as step) {
          <vt-step-card
            [step]="step"
            [work]="work()"
            [rescue]="rescue()!"
            [following]="run().later[0] ?? null"
            (seen)="sight.set($event)"
          />
          <vt-charge-watch [work]="work()" />
          @if (isGuardLook(step)) {
            <vt-guard-lamp [work]="work()" />
          }
        } @else {
          <p class="ready" role="status">{{ t.done }}</p>
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
    @use 'media';

    :host {
      display: contents;
    }
    .ready {
      padding: 22px;
      border: 2px solid var(--ink);
      border-radius: 5px;
      background: var(--sheet);
      font-size: var(--text-xl);
      font-weight: 700;
    }
    .overruled {
      font-size: var(--text-xs);
      line-height: 1.2;
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
      font-size: var(--text-s);
    }
    @include media.narrow {
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
  readonly goOn = output<Stage>();

  private readonly reporter = inject(Reporter);
  private readonly modals = inject(NgbModal);
  private readonly reasons = inject(ReasonPrompt);
  private readonly now = serverTicker();

  protected readonly isGuardLook = ({ action }: HookupStep): boolean =>
    action.kind === 'confirm' && action.what === 'guard-lamp';

  protected readonly wakes = computed(() => startsByWaking(this.work().machine));
  protected readonly finalWord = computed(() => {
    const { plan } = this.work().job;
    if (plan?.outlook === 'charges') return T.takeAllOff;
    return this.wakes() ? T.goWake : T.standClear;
  });
  protected readonly isUnplanned = computed(() => {
    const { done, next, later } = this.run();
    return !next && done.length === 0 && later.length === 0;
  });
  private readonly next = nextActionAt('hookup');
  protected readonly ruleNote = computed(() => {
    const rule = this.run().next?.rule;
    if (!rule) return '';
    const { machine, rules } = this.work();
    return earthedWords(
      T.houseRule({ rule: withinSentence(RULE_QUESTIONS[rule]), school: ruleValue(rule, rules[rule]) }),
      machine,
    );
  });

  /** House rules that this order does not keep, each with the hazard that overrules it. */
  protected readonly overruled = computed(() =>
    (this.rescue()?.orders.overruled ?? []).map(({ rule, hazard }) =>
      T.notByRule({ rule: ruleName(rule), why: hazard ? hazardWhy(hazard) : T.noPlaceForIt }),
    ),
  );
  /** The lines of the step that have been on the screen. */
  protected readonly sight = signal<StepSeen | null>(null);
  private readonly isUnseen = computed(() => this.sight()?.isSeen() === false);
  /** The step that may be done now. */
  private readonly step = computed(() => (this.next().act === 'step' ? this.run().next : null));
  /** The hazard that the next step must be given a reason for. */
  private readonly severe = computed(() => {
    const next = this.next();
    return next.act === 'say-why' ? next.hazard : null;
  });
  protected readonly isHeld = computed(() => this.step() !== null && this.work().rules.clampSteps === 'hold');
  protected readonly isEarly = computed(() => {
    const step = this.step();
    return this.severe() !== null || (step !== null && this.waitSecondsLeft(step) > WAITED_NEARLY_S);
  });
  protected readonly action = computed((): StageAction => {
    const next = this.next();
    const step = this.step();
    if (step && !this.isUnseen())
      return {
        label: actionDone(step.action, this.work().machine, this.rescue()?.option.sourceKind),
        key: stepKey(step),
        go: () => void this.confirm(step),
      };
    const severe = this.severe();
    if ((step || severe) && this.isUnseen())
      return { label: T.showTheStep, key: 'show', go: () => this.sight()?.show() };
    if (severe) return { label: T.stopSayWhy, key: 'say-why', go: () => void this.sayWhy(severe) };
    return next.act === 'go'
      ? { label: this.goLabel(next.to, next.why), go: () => this.goOn.emit(next.to) }
      : { label: T.noSource, waits: true, go: () => undefined };
  });

  constructor() {
    goesOn(this.next, this.goOn, ({ to }) => to === 'crank');
    // A wait asks for no hand: it is over when its minutes are. A charge ends by its amps.
    const waitLeft = computed(() => {
      const step = this.step();
      return step?.minutes && !this.charges() ? this.waitSecondsLeft(step) : null;
    });
    whenPassed(waitLeft, () => this.reporter.report(...entryOf(this.step()!.action)));
  }

  /** A severe step is done only for a reason; the step itself is confirmed after that, like any other. */
  private async sayWhy(hazard: Hazard): Promise<void> {
    const reason = await this.reasons.ask(T.whyAnyway({ hazard: hazardWhy(hazard) }));
    if (reason)
      this.reporter.report('override.given', { rule: 'severe-hazard', reason, hazard: hazard.code });
  }

  private goLabel(to: Stage, why: GoReason): string {
    if (why === 'comes-off-first') return this.work().job.plan?.thenOptionId ? T.goTakeOff : T.goChargerOff;
    if (to === 'crank') return this.wakes() ? T.goOnWakeIt : T.goOnCrank;
    return goWords(to, why);
  }

  /** The steps that put it on charge are of no more interest than the charge itself. */
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
      const reason = await this.reasons.ask(T.whyEarly({ time: clock(left) }));
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
