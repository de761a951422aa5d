import { ChangeDetectionStrategy, Component, computed, inject, input, output, signal } from '@angular/core';
import { chargingOfJob, entryOf, roadOfJob, type Stage } from '@voltrek/core/job';
import { startsByWaking } from '@voltrek/core/machine';
import { goWords } from '@words/next-words';
import { roadWords } from '@words/road-words';
import { NextAction, type StageAction } from '../next-action';
import { StepCard } from '../step-card';
import { StepsDone, StepsToCome } from '../steps-around';
import type { OrderRun, PlannedRescue } from '@voltrek/core/job';
import type { Work } from '../../shared/job/job-selectors';
import { type Go, goesOn } from '../goes-on';
import { nextActionAt } from '../../shared/job/next-action-at';
import { Reporter } from '../../shared/job/reporter';
import type { StepSeen } from '../step-seen';
import { actionDone, stepKey } from '../step-words';
import { CLEARDOWN as T } from '@words/screens/job-stages';

/** Clamps off in reverse, then prove the charging and set again what the power loss cleared. */
@Component({
  selector: 'vt-cleardown',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [NextAction, StepCard, StepsDone, StepsToCome],
  template: `
    <section class="stage" aria-labelledby="stage-title">
      <header>
        <h1 id="stage-title">{{ t.clearDown }}</h1>
        <span class="dim">{{ work().job.everConnected ? t.subtitle : '' }}</span>
      </header>
      @if (started() && !wakes()) {
        <p class="caution"><span aria-hidden="true">!</span> {{ t.keepRunning }}</p>
      }
      @if (!work().job.everConnected) {
        <p>{{ t.nothingJoined }}</p>
      } @else {
        <vt-steps-done [run]="run()" [work]="work()" [rescue]="rescue()" />
        @if (run().next; as step) {
          <vt-step-card
            [step]="step"
            [work]="work()"
            [rescue]="rescue()!"
            [following]="run().later[0] ?? null"
            (seen)="sight.set($event)"
          />
          <vt-steps-to-come [run]="run()" [work]="work()" [rescue]="rescue()" />
        } @else {
          <p class="ready" role="status">{{ t.allOff }}</p>
        }
      }
      @if (!run().next && started()) {
        <div class="charging">
          <h2>{{ wakes() ? t.converterFeedsBack : t.doesItCharge }}</h2>
          @if (chargingRead()) {
            <p>{{ t.chargingTaken }}</p>
          } @else {
            <p>
              {{
                t.readCharging({
                  smart: work().machine.smartAlternator ? t.smartBand : '',
                })
              }}
            </p>
            @if (wakes()) {
              <button type="button" class="key strong" (click)="goOn.emit('measure')">
                {{ t.readChargingVolts }}
              </button>
            }
          }
        </div>
      }
      @if (!run().next && road(); as line) {
        <p class="drive" [class.caution]="!maySafelyDrive()">
          <strong>{{ line }}</strong>
        </p>
      }
      @if (!run().next && work().machine.resets.length) {
        <fieldset>
          <legend>{{ t.resets }}</legend>
          <div class="keys">
            @for (reset of work().machine.resets; track reset) {
              <button
                type="button"
                class="key"
                [attr.aria-pressed]="work().job.resets.includes(reset)"
                (click)="tick(reset)"
              >
                {{ reset }}
              </button>
            }
          </div>
        </fieldset>
      }
    </section>
    @let does = action();
    <vt-next-action
      [label]="does.label"
      [action]="does.key"
      [disabled]="does.waits ?? false"
      [holds]="isHeld()"
      (go)="does.go()"
    />
  `,
  styles: `
    :host {
      display: contents;
    }
    .ready {
      font-size: var(--text-xl);
      font-weight: 700;
    }
    .charging {
      display: grid;
      justify-items: start;
      gap: 8px;
      padding: 14px 0;
      border-top: 1px solid var(--line);
      border-bottom: 1px solid var(--line);
    }
    legend {
      margin-bottom: 6px;
    }
  `,
})
export class Cleardown {
  protected readonly t = T;

  readonly work = input.required<Work>();
  readonly rescue = input.required<PlannedRescue | null>();
  readonly run = input.required<OrderRun>();
  readonly goOn = output<Stage>();

  private readonly reporter = inject(Reporter);

  protected readonly wakes = computed(() => startsByWaking(this.work().machine));
  protected readonly started = computed(() => this.work().situation.casualtyRuns);
  private readonly onTheRoad = computed(() => roadOfJob(this.work().job, this.work().situation));
  protected readonly road = computed(() => roadWords(this.onTheRoad(), this.work().machine.machineClass));
  protected readonly maySafelyDrive = computed(() => this.onTheRoad()?.kind === 'drive');
  protected readonly chargingRead = computed(
    () => chargingOfJob(this.work().job, this.work().situation) !== 'unread',
  );
  private readonly next = nextActionAt('cleardown');
  /** The lines of the step that have been on the screen. */
  protected readonly sight = signal<StepSeen | null>(null);

  protected readonly action = computed((): StageAction => {
    const next = this.next();
    const step = this.run().next;
    if (next.act === 'step' && this.sight()?.isSeen() === false)
      return { label: T.showTheStep, key: 'show', go: () => this.sight()?.show() };
    if (next.act === 'step' && step)
      return {
        label: actionDone(step.action, this.work().machine, this.rescue()?.option.sourceKind),
        key: stepKey(step),
        go: () => this.reporter.report(...entryOf(step.action)),
      };
    return next.act === 'go'
      ? this.leading(next)
      : { label: T.nothingToDo, waits: true, go: () => undefined };
  });

  constructor() {
    // The technician still ticks here each setting that the power loss cleared.
    goesOn(this.next, this.goOn, () => this.work().machine.resets.length === 0);
  }

  private leading({ to, why }: Go): StageAction {
    const label = to === 'crank' && why === 'done' ? T.goCrank : goWords(to, why);
    return { label, go: () => this.goOn.emit(to) };
  }
  protected readonly isHeld = computed(
    () => this.run().next !== null && this.work().rules.clampSteps === 'hold',
  );

  protected tick(reset: string): void {
    this.reporter.report('reset.ticked', { reset });
  }
}
