import { ChangeDetectionStrategy, Component, input } from '@angular/core';
import type { OptionRow } from './option-rows';
import { UNFIT_LIST as T } from '@words/screens/job-stages-plan';

/** Kit of the van that cannot be used here, each with why. */
@Component({
  selector: 'vt-unfit-list',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (rows().length) {
      <h2 class="part">{{ t.notHere }}</h2>
      <ul class="ruled unfit">
        @for (row of rows(); track row.ranked.option.id) {
          <li>
            {{ row.name }} <span class="dim">{{ row.outlook }}</span>
          </li>
        }
      </ul>
    }
  `,
  styles: `
    h2 {
      margin: 12px 0 4px;
    }
    li {
      padding: 5px 0;
      font-size: var(--text-xs);
      line-height: 1.2;
    }
    .dim {
      display: block;
    }
  `,
})
export class UnfitList {
  protected readonly t = T;

  readonly rows = input.required<readonly OptionRow[]>();
}
