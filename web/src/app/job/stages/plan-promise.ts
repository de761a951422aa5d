import { unitWord } from '@words/units';
import { ChangeDetectionStrategy, Component, input } from '@angular/core';
import { fixed } from '@words/numbers';
import type { PlanRecord } from '@voltrek/core/job';
import { inHundred } from '@words/figures';
import { OUTLOOK_WORDS } from '@words/words';
import { PLAN_PROMISE as T } from '@words/screens/job-stages';

/** The promise of the plan that the try is held against. */
@Component({
  selector: 'vt-plan-promise',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @let p = plan();
    <dl class="promise">
      <div>
        <dt>{{ t.thePlanSaid }}</dt>
        <dd class="figure small">{{ outlookWords[p.outlook] }}</dd>
      </div>
      @if (p.odds !== null) {
        <div>
          <dt>{{ t.oddsOfAStart }}</dt>
          <dd class="figure small">{{ inHundred(p.odds) }}</dd>
        </div>
      }
      @if (p.postVolts !== null) {
        <div>
          <dt>{{ t.atThePosts }}</dt>
          <dd class="figure">{{ fixed(p.postVolts, 1) }} <small>V</small></dd>
        </div>
      }
      @if (p.starterVolts !== null) {
        <div>
          <dt>{{ t.atTheStarter }}</dt>
          <dd class="figure">{{ fixed(p.starterVolts, 1) }} <small>V</small></dd>
        </div>
        <div>
          <dt>{{ t.needs({ neededRpm: p.neededRpm ? fixed(p.neededRpm) : '' }) }}</dt>
          <dd class="figure">
            {{ p.rpm ? fixed(p.rpm) : '' }} <small>{{ unitWord('rpm') }}</small>
          </dd>
        </div>
      }
      @if (p.wakeVolts !== null) {
        <div>
          <dt>{{ t.whileItWakes }}</dt>
          <dd class="figure">{{ fixed(p.wakeVolts, 1) }} <small>V</small></dd>
        </div>
      }
    </dl>
  `,
  styles: `
    .promise {
      display: flex;
      flex-wrap: wrap;
      gap: 12px 40px;
      margin: 0;
      padding-top: 10px;
      border-top: 1px solid var(--line);
    }
    .figure.small {
      font-size: var(--text-l);
    }
  `,
})
export class PlanPromise {
  protected readonly fixed = fixed;
  protected readonly unitWord = unitWord;
  protected readonly t = T;

  readonly plan = input.required<PlanRecord>();

  protected readonly inHundred = inHundred;
  protected readonly outlookWords = OUTLOOK_WORDS;
}
