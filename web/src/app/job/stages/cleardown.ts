import { ChangeDetectionStrategy, Component, computed, inject, input, output } from '@angular/core';
import { driveOfJob, entryOf, hasStarted, latestReading } from '@voltrek/core/job';
import { startsByWaking } from '@voltrek/core/machine';
import { driveWords } from '../../shared/words/words';
import { NextAction } from '../next-action';
import { StepCard } from '../step-card';
import { StepLine } from '../step-line';
import type { OrderRun, PlannedRescue, Work } from '../../shared/job/job-selectors';
import { Reporter } from '../../shared/job/reporter';
import { actionDone, stepKey } from '../step-words';

/** Clamps off in reverse, then prove the charging and set again what the power loss cleared. */
@Component({
  selector: 'vt-cleardown',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [NextAction, StepCard, StepLine],
  template: `
    <section class="stage" aria-labelledby="stage-title">
      <header>
        <h1 id="stage-title">Clear down</h1>
        <span class="dim">{{ work().job.everConnected ? 'the hook-up in reverse' : '' }}</span>
      </header>
      @if (started() && !wakes()) {
        <p class="caution">
          <span aria-hidden="true">!</span> Keep the engine running until it stands where it can be started
          again.
        </p>
      }
      @if (!work().job.everConnected) {
        <p>Nothing was connected.</p>
      } @else {
        <ol>
          @for (step of run().done; track $index) {
            <li><vt-step-line [step]="step" [work]="work()" [rescue]="rescue()" [isDone]="true" /></li>
          }
        </ol>
        @if (run().next; as step) {
          <vt-step-card [step]="step" [work]="work()" [rescue]="rescue()!" />
          <ol class="ruled">
            @for (step of run().later; track $index) {
              <li>
                <vt-step-line
                  [step]="step"
                  [work]="work()"
                  [rescue]="rescue()"
                  [number]="run().done.length + 2 + $index"
                />
              </li>
            }
          </ol>
        } @else {
          <p class="ready">Everything is off and laid down.</p>
        }
      }
      @if (!run().next && started()) {
        <div class="charging">
          <h2>{{ wakes() ? 'Converter feeds back?' : 'Does it charge?' }}</h2>
          @if (chargingRead()) {
            <p>Charging volts are taken. See Measure for what they say.</p>
          } @else {
            <p>
              Read idle and loaded at the posts.
              {{
                work().machine.smartAlternator
                  ? 'Smart alternator: outside the band, read again after 5 min.'
                  : ''
              }}
            </p>
            <button type="button" class="key strong" (click)="toMeasure.emit()">Read charging volts</button>
          }
        </div>
      }
      @if (!run().next && drive(); as d) {
        <p class="drive">
          <strong>Then drive {{ d.leastMinutes }} min at least.</strong>
          <span class="dim">{{ driveLine() }}</span>
        </p>
      }
      @if (!run().next && work().machine.resets.length) {
        <fieldset>
          <legend>Set again after power loss</legend>
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
    @if (run().next; as step) {
      <vt-next-action
        [label]="doneWord()"
        [action]="stepKey(step)"
        [disabled]="work().job.closedAt !== null"
        [holds]="work().rules.clampSteps === 'hold'"
        (go)="confirm()"
      />
    } @else if (mayCrankNow() && work().job.plan?.thenOptionId) {
      <vt-next-action label="Everything is off. Back to Plan: join the next" (go)="toPlan.emit()" />
    } @else if (mayCrankNow()) {
      <vt-next-action label="Everything is off. Go on: crank" (go)="toCrank.emit()" />
    } @else {
      <vt-next-action label="Go on to the verdict" (go)="next.emit()" />
    }
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

  protected readonly stepKey = stepKey;

  protected doneWord(): string {
    const step = this.run().next;
    return step ? actionDone(step.action, this.work().machine) : '';
  }

  protected confirm(): void {
    const step = this.run().next;
    if (step) this.reporter.report(...entryOf(step.action));
  }

  protected tick(reset: string): void {
    this.reporter.report('reset.ticked', { reset });
  }
}
