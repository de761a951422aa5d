import { ChangeDetectionStrategy, Component, computed, inject, input, output } from '@angular/core';
import { contactAt, DEFAULT_RULES, hasStarted, isDone, latestReading, startsByWaking } from '@voltrek/core';
import { NextAction } from '../next-action';
import { reportAction } from '../report-action';
import { StepCard } from '../step-card';
import { StepLine } from '../step-line';
import type { PlannedRescue, Work } from '../state/job-selectors';
import { Reporter } from '../state/reporter';
import { actionDone } from '../step-words';

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
        <p class="keep">
          <span aria-hidden="true">!</span> Keep the engine running until it stands where it can be started
          again.
        </p>
      }
      @if (!work().job.everConnected) {
        <p>Nothing was connected.</p>
      } @else {
        <ol>
          @for (step of done(); track $index) {
            <li><vt-step-line [step]="step" [work]="work()" [rescue]="rescue()" [isDone]="true" /></li>
          }
        </ol>
        @if (nextStep(); as step) {
          <vt-step-card [step]="step" [work]="work()" [rescue]="rescue()!" [contact]="contact()" />
          <ol class="ruled">
            @for (step of later(); track $index) {
              <li>
                <vt-step-line
                  [step]="step"
                  [work]="work()"
                  [rescue]="rescue()"
                  [number]="done().length + 2 + $index"
                />
              </li>
            }
          </ol>
        } @else {
          <p class="ready">Everything is off and laid down.</p>
        }
      }
      @if (!nextStep() && started()) {
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
      @if (!nextStep() && work().machine.resets.length) {
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
    @if (nextStep(); as step) {
      <vt-next-action [label]="doneWord()" [disabled]="work().job.closedAt !== null" (go)="confirm()" />
    } @else {
      <vt-next-action label="Go on to the verdict" (go)="next.emit()" />
    }
  `,
  styles: `
    :host {
      display: contents;
    }
    .keep {
      display: flex;
      gap: 10px;
      font-weight: 700;
      color: var(--watch);
    }
    .keep span {
      flex: none;
      width: 22px;
      height: 22px;
      border: 2px solid currentcolor;
      border-radius: 3px;
      text-align: center;
      line-height: 20px;
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
  readonly next = output();
  readonly toMeasure = output();

  private readonly reporter = inject(Reporter);

  protected readonly wakes = computed(() => startsByWaking(this.work().machine));
  protected readonly started = computed(() => hasStarted(this.work().job));
  protected readonly chargingRead = computed(() => latestReading(this.work().job, 'charging-idle') !== null);
  /** Once the last clamp is off the order is behind us, whatever its first step says. */
  private readonly steps = computed(() => {
    const { job } = this.work();
    const isOff = Object.values(job.hookup.clamps).every((c) => c === null) && !job.hookup.donorRunning;
    return job.everConnected && !isOff ? (this.rescue()?.orders.clearing ?? []) : [];
  });
  private readonly nextIndex = computed(() => {
    const index = this.steps().findIndex((s) => !isDone(this.work().job.hookup, s.action));
    return index < 0 ? this.steps().length : index;
  });
  protected readonly done = computed(() => this.steps().slice(0, this.nextIndex()));
  protected readonly nextStep = computed(() => this.steps()[this.nextIndex()] ?? null);
  protected readonly later = computed(() => this.steps().slice(this.nextIndex() + 1));

  protected readonly contact = computed(() => {
    const action = this.nextStep()?.action;
    const rescue = this.rescue();
    if (action?.kind !== 'detach' || !rescue) return null;
    const pointId = this.work().job.hookup.clamps[action.clamp];
    return pointId
      ? contactAt(rescue.scene, this.work().job.hookup, action.clamp, pointId, DEFAULT_RULES)
      : null;
  });

  protected doneWord(): string {
    const step = this.nextStep();
    return step ? actionDone(step.action) : '';
  }

  protected confirm(): void {
    const step = this.nextStep();
    if (step) reportAction(this.reporter, step.action);
  }

  protected tick(reset: string): void {
    this.reporter.report('reset.ticked', { reset });
  }
}
