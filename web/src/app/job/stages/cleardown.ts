import { ChangeDetectionStrategy, Component, computed, inject, input, output } from '@angular/core';
import { driveOfJob, entryOf, hasStarted, latestReading } from '@voltrek/core/job';
import { startsByWaking } from '@voltrek/core/machine';
import { driveWords } from '@words/words';
import { NextAction, type StageAction } from '../next-action';
import { StepCard } from '../step-card';
import { StepsDone, StepsToCome } from '../steps-around';
import type { OrderRun, PlannedRescue, Work } from '../../shared/job/job-selectors';
import { Reporter } from '../../shared/job/reporter';
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
        <span class="dim">{{ work().job.everConnected ? t.theHookUpInReverse : '' }}</span>
      </header>
      @if (started() && !wakes()) {
        <p class="caution"><span aria-hidden="true">!</span> {{ t.keepTheEngineRunningUntilIt }}</p>
      }
      @if (!work().job.everConnected) {
        <p>{{ t.nothingWasConnected }}</p>
      } @else {
        <vt-steps-done [run]="run()" [work]="work()" [rescue]="rescue()" />
        @if (run().next; as step) {
          <vt-step-card
            [step]="step"
            [work]="work()"
            [rescue]="rescue()!"
            [following]="run().later[0] ?? null"
          />
          <vt-steps-to-come [run]="run()" [work]="work()" [rescue]="rescue()" />
        } @else {
          <p class="ready" role="status">{{ t.everythingIsOffAndLaidDown }}</p>
        }
      }
      @if (!run().next && started()) {
        <div class="charging">
          <h2>{{ wakes() ? t.converterFeedsBack : t.doesItCharge }}</h2>
          @if (chargingRead()) {
            <p>{{ t.chargingVoltsAreTakenSeeMeasure }}</p>
          } @else {
            <p>
              {{
                t.readIdleAndLoadedAtThe(
                  work().machine.smartAlternator ? t.smartAlternatorOutsideTheBandRead : ''
                )
              }}
            </p>
            <button type="button" class="key strong" (click)="toMeasure.emit()">
              {{ t.readChargingVolts }}
            </button>
          }
        </div>
      }
      @if (!run().next && drive(); as d) {
        <p class="drive">
          <strong>{{ t.thenDriveMinAtLeast(d.leastMinutes) }}</strong>
          <span class="dim">{{ driveLine() }}</span>
        </p>
      }
      @if (!run().next && work().machine.resets.length) {
        <fieldset>
          <legend>{{ t.setAgainAfterPowerLoss }}</legend>
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
      font-size: 26px;
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
  readonly next = output();
  readonly toCrank = output();
  readonly toPlan = output();
  readonly toMeasure = output();

  private readonly reporter = inject(Reporter);

  /** A charger has done its work and is away: now the battery cranks by itself. */
  protected readonly mayCrankNow = computed(
    () =>
      this.work().job.plan?.chargeOnly === true &&
      this.work().job.everConnected &&
      !hasStarted(this.work().job),
  );
  protected readonly wakes = computed(() => startsByWaking(this.work().machine));
  protected readonly started = computed(() => hasStarted(this.work().job));
  protected readonly drive = computed(() =>
    this.started() ? driveOfJob(this.work().job, this.work().machine, this.work().rules) : null,
  );
  protected readonly driveLine = computed(() => driveWords(this.drive()));
  protected readonly chargingRead = computed(() => latestReading(this.work().job, 'charging-idle') !== null);

  protected readonly action = computed((): StageAction => {
    const { job, machine } = this.work();
    const step = this.run().next;
    if (step)
      return {
        label: actionDone(step.action, machine),
        key: stepKey(step),
        waits: job.closedAt !== null,
        go: () => this.reporter.report(...entryOf(step.action)),
      };
    if (!this.mayCrankNow()) return { label: T.goOnToTheVerdict, go: () => this.next.emit() };
    return job.plan?.thenOptionId
      ? { label: T.everythingIsOffBackToPlan, go: () => this.toPlan.emit() }
      : { label: T.everythingIsOffGoOnCrank, go: () => this.toCrank.emit() };
  });
  protected readonly isHeld = computed(
    () => this.run().next !== null && this.work().rules.clampSteps === 'hold',
  );

  protected tick(reset: string): void {
    this.reporter.report('reset.ticked', { reset });
  }
}
