import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { vansComing } from '@voltrek/core/job';
import { timeOfDay } from '../../../shared/model/dates';
import { When } from '../../../shared/ui/when';
import { VAN_COMING as T } from '@words/screens/job-stages-plan';
import type { Work } from '../../../shared/job/job-selectors';
import { Reporter } from '../../../shared/job/reporter';
import { Stepper } from '../../../shared/ui/stepper';
import { PlanWays } from './plan-ways';

/** Another van takes so many minutes a step. */
const STEP_MINUTES = 5;
const STEPS_MOST = 96;

/** The other van of the way looked at: its minutes before it is asked, its time once it was, and the tap that it is here. */
@Component({
  selector: 'vt-van-coming',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Stepper, When],
  template: `
    @for (van of coming(); track van.vanId) {
      <p class="coming">
        <span>{{
          t.onItsWay({ van: ways.nameOf(van.vanId), called: van.calledAt | when: 'time', due: van.due })
        }}</span>
        <button type="button" class="key strong" (click)="arrived(van.vanId)">{{ t.isHere }}</button>
      </p>
    }
    @if (ways.toAsk(); as vanId) {
      <div class="coming">
        <span id="fetch-minutes">{{ t.said({ van: ways.nameOf(vanId) }) }}</span>
        <vt-stepper
          labelledBy="fetch-minutes"
          [value]="ways.fetchMinutes() / step"
          [shown]="ways.fetchMinutes()"
          [least]="1"
          [most]="most"
          [lessName]="t.less"
          [moreName]="t.more"
          (changed)="ways.fetchMinutes.set($event * step)"
        />
      </div>
    }
  `,
  styles: `
    :host:empty {
      display: none;
    }
    .coming {
      display: flex;
      flex-wrap: wrap;
      align-items: center;
      justify-content: space-between;
      gap: 8px 14px;
      padding: 8px 12px;
      border-left: 6px solid var(--lamp);
      background: var(--sheet);
    }
  `,
})
export class VanComing {
  protected readonly t = T;

  readonly work = input.required<Work>();

  protected readonly ways = inject(PlanWays);
  private readonly reporter = inject(Reporter);
  protected readonly step = STEP_MINUTES;
  protected readonly most = STEPS_MOST;

  protected readonly coming = computed(() =>
    vansComing(this.work().job).map((van) => ({ ...van, due: timeOfDay(van.dueAt) })),
  );
  protected arrived(vanId: string): void {
    this.reporter.report('van.arrived', { vanId });
  }
}
