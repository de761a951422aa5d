import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { isRedClamp } from '@voltrek/core/circuit';
import type { HookupStep } from '@voltrek/core/hookup';
import { PolarityMark } from '../shared/ui/polarity-mark';
import type { PlannedRescue } from '@voltrek/core/job';
import type { Work } from '../shared/job/job-selectors';
import { actionTitle } from './step-words';
import { STEP_LINE as T } from '@words/screens/job';

/** A step of an order on one line: done with its mark, or to come with its number. */
@Component({
  selector: 'vt-step-line',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [PolarityMark],
  template: `
    @if (isDone()) {
      @if (clamp(); as c) {
        <vt-polarity-mark [isRed]="isRed(c)" />
      } @else {
        <i class="tick bi bi-check-lg" aria-hidden="true"></i>
      }
    } @else {
      <span class="number">{{ number() }}</span>
    }
    <span [class.dim]="isDone()">{{ title() }}</span>
    @if (isDone()) {
      <span class="visually-hidden">{{ t.done }}</span>
    }
    @if (step()?.minutes; as minutes) {
      <span class="dim minutes">{{ t.minAsPlanned({ minutes }) }}</span>
    }
  `,
  styles: `
    :host {
      display: flex;
      align-items: center;
      gap: 12px;
      min-height: 30px;
      padding: 2px 0;
    }
    .number,
    .tick {
      width: 22px;
      color: var(--dim);
      text-align: center;
    }
    .minutes {
      margin-left: auto;
    }
  `,
})
export class StepLine {
  protected readonly t = T;

  readonly step = input<HookupStep | null>(null);
  readonly text = input('');
  readonly work = input<Work | null>(null);
  readonly rescue = input<PlannedRescue | null>(null);
  readonly isDone = input(false);
  readonly number = input<number>();

  protected readonly isRed = isRedClamp;
  protected readonly clamp = computed(() => {
    const action = this.step()?.action;
    return action?.kind === 'attach' || action?.kind === 'detach' ? action.clamp : null;
  });
  protected readonly title = computed(() => {
    const step = this.step();
    return step
      ? actionTitle(step.action, this.work(), this.rescue(), this.work()?.job.hookup ?? null)
      : this.text();
  });
}
