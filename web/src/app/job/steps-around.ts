import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { later } from '../shared/ui/drawn-later';
import type { OrderRun, PlannedRescue } from '@voltrek/core/job';
import type { Work } from '../shared/job/job-selectors';
import { StepLine } from './step-line';

/** The acts of the order that are done, one line each. */
@Component({
  selector: 'vt-steps-done',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [StepLine],
  template: `
    @if (shown(); as s) {
      <ol>
        @for (step of s.run.done; track step) {
          <li><vt-step-line [step]="step" [work]="s.work" [rescue]="s.rescue" [isDone]="true" /></li>
        }
      </ol>
    }
  `,
  styles: `
    /* Before the first is done it takes no room from the step. */
    :host:not(:has(li)) {
      display: none;
    }
  `,
})
export class StepsDone {
  readonly run = input.required<OrderRun>();
  readonly work = input.required<Work>();
  readonly rescue = input.required<PlannedRescue | null>();

  private readonly all = computed(() => ({ run: this.run(), work: this.work(), rescue: this.rescue() }));
  protected readonly shown = later(this.all);
}

/** The steps after the one that is to be done now, numbered on from it. */
@Component({
  selector: 'vt-steps-to-come',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [StepLine],
  template: `
    @if (shown(); as s) {
      <ol class="ruled" [start]="s.from">
        @for (step of s.run.later; track step) {
          <li>
            <vt-step-line [step]="step" [work]="s.work" [rescue]="s.rescue" [number]="s.from + $index" />
          </li>
        }
        @if (s.atLast; as text) {
          <li><vt-step-line [text]="text" [number]="s.from + s.run.later.length" /></li>
        }
      </ol>
    }
  `,
})
export class StepsToCome {
  readonly run = input.required<OrderRun>();
  readonly work = input.required<Work>();
  readonly rescue = input.required<PlannedRescue | null>();
  /** The acts after all of them. */
  readonly atLast = input('');

  private readonly all = computed(() => {
    const run = this.run();
    const from = run.done.length + (run.next ? 2 : 1);
    return { run, from, work: this.work(), rescue: this.rescue(), atLast: this.atLast() };
  });
  protected readonly shown = later(this.all);
}
