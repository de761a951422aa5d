import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { ampsFigure } from '@words/figures';
import { takeOutOrder } from '@voltrek/core/hookup';
import type { ChargePlan } from '@voltrek/core/verdict';
import { hoursWords } from '@words/plan-words';
import { batteryWord } from '@words/words';
import { TAKE_OUT as T } from '@words/screens/job-stages-verdict';
import type { Work } from '../../../shared/job/job-selectors';
import { feedsNoted, FittingSteps, stepsLeft } from './fitting-steps';

/** Taking a battery out to charge it and putting it back: the order, the charge in between, and what must be set again. */
@Component({
  selector: 'vt-take-out',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [FittingSteps],
  template: `
    <h3>{{ t.takeItOut({ which: many() ? batteryWord(at()) : '' }) }}</h3>
    @let step = left()[0]?.step;
    @if (step === 'charge-outside') {
      <p class="out act">
        {{
          t.chargeSo({
            amps: amps(),
            least: plan().leastVolts,
            most: plan().mostVolts,
            hours: hours(plan().hours),
          })
        }}
      </p>
    } @else if (step === 'rest-outside') {
      <p class="out act">{{ t.restFor({ hours: plan().restHours }) }}</p>
    }
    @if (left().length > 0) {
      <vt-fitting-steps [work]="work()" [at]="at()" [order]="order()" />
    } @else {
      <p class="ready">{{ t.backIn }}</p>
      @if (work().machine.resets.length > 0) {
        <p>{{ t.setAgain({ resets: work().machine.resets.join(', ') }) }}</p>
      }
    }
  `,
  styles: `
    :host {
      display: flex;
      flex-direction: column;
      gap: 10px;
    }
    .out {
      padding: 12px 18px;
      border-left: 6px solid var(--lamp);
      background: var(--sheet);
    }
    .act {
      font-size: var(--text-l);
      font-weight: 700;
    }
  `,
})
export class TakeOut {
  protected readonly t = T;

  readonly work = input.required<Work>();
  readonly plan = input.required<ChargePlan>();

  protected readonly batteryWord = batteryWord;
  protected readonly hours = hoursWords;
  private readonly batteries = computed(() => this.work().situation.batteries);
  protected readonly many = computed(() => this.work().machine.batteries.length > 1);
  protected readonly at = computed(() => this.batteries().weakest);
  protected readonly order = computed(() =>
    takeOutOrder(
      this.work().machine,
      this.batteries().models,
      this.at(),
      this.work().situation.tempC,
      feedsNoted(this.work().job),
    ),
  );
  protected readonly left = computed(() => stepsLeft(this.work().job, this.at(), this.order()));
  protected readonly amps = computed(() => ampsFigure(this.plan().amps));
}
