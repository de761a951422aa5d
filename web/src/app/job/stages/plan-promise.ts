import { ChangeDetectionStrategy, Component, input } from '@angular/core';
import type { PlanRecord } from '@voltrek/core/job';
import { inHundred } from '../../shared/words/figures';
import { OUTLOOK_WORDS } from '../../shared/words/words';

/** What the plan said that the try is held against. */
@Component({
  selector: 'vt-plan-promise',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @let p = plan();
    <dl class="promise">
      <div>
        <dt>the plan said</dt>
        <dd class="figure small">{{ outlookWords[p.outlook] }}</dd>
      </div>
      @if (p.odds !== null) {
        <div>
          <dt>odds of a start</dt>
          <dd class="figure small">{{ inHundred(p.odds) }}</dd>
        </div>
      }
      @if (p.postVolts !== null) {
        <div>
          <dt>at the posts</dt>
          <dd class="figure">{{ p.postVolts.toFixed(1) }} <small>V</small></dd>
        </div>
      }
      @if (p.starterVolts !== null) {
        <div>
          <dt>at the starter</dt>
          <dd class="figure">{{ p.starterVolts.toFixed(1) }} <small>V</small></dd>
        </div>
        <div>
          <dt>needs {{ p.neededRpm?.toFixed(0) }}</dt>
          <dd class="figure">{{ p.rpm?.toFixed(0) }} <small>rpm</small></dd>
        </div>
      }
      @if (p.wakeVolts !== null) {
        <div>
          <dt>while it wakes</dt>
          <dd class="figure">{{ p.wakeVolts.toFixed(1) }} <small>V</small></dd>
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
      font-size: 22px;
    }
  `,
})
export class PlanPromise {
  readonly plan = input.required<PlanRecord>();

  protected readonly inHundred = inHundred;
  protected readonly outlookWords = OUTLOOK_WORDS;
}
