import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { BAR_WORDS } from '@words/plan-words';
import type { OptionRow } from './option-rows';
import { UnfitList } from './unfit-list';
import { Choices } from '../../../shared/ui/choices';
import { OPTION_LIST as T } from '@words/screens/job-stages-plan';

/** The van's sources: those that fit, best first, then those that do not, with why. */
@Component({
  selector: 'vt-option-list',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Choices, UnfitList],
  template: `
    <div class="options" role="radiogroup" [attr.aria-label]="t.title">
      @for (row of fitting(); track row.ranked.option.id) {
        <button
          type="button"
          role="radio"
          class="choice option"
          [attr.aria-checked]="row.ranked.option.id === chosenId()"
          (click)="chosen.emit(row.ranked.option.id)"
        >
          <span class="name">{{ row.name }}</span>
          <span class="track" aria-hidden="true">
            <span class="bar" [class]="'bar-' + row.tone" [style.width.%]="row.bar"></span>
            <span class="mark" [style.left.%]="row.mark"></span>
          </span>
          <span class="outlook" [class]="'tone-' + row.tone">{{ row.outlook }}</span>
          <span class="number">{{ row.figure }}</span>
        </button>
      } @empty {
        <p class="problem">{{ whyNone() }}</p>
      }
    </div>
    @if (bar() === null) {
      <vt-unfit-list [rows]="unfit()" />
      <ng-content />
    }
  `,
  styles: `
    :host {
      display: block;
      min-height: 0;
      overflow: auto;
      padding: 0 4px 4px 0;
    }
    .options {
      display: grid;
      gap: 5px;
    }
    .option {
      display: grid;
      grid-template-columns: 1fr auto;
      gap: 1px 8px;
      width: 100%;
      min-height: 60px;
    }
    .name {
      grid-column: 1 / -1;
      font-weight: 700;
      font-size: var(--text-s);
      line-height: 1.1;
    }
    .outlook {
      white-space: nowrap;
    }
    .outlook,
    .number {
      font-weight: 600;
      font-size: var(--text-xs);
    }
    .number {
      text-align: right;
      color: var(--dim);
    }
    .track {
      grid-column: 1 / -1;
      position: relative;
      margin: 4px 0;
      height: 6px;
      background: var(--body);
    }
    .bar {
      display: block;
      height: 100%;
      background: var(--bad);
    }
    .bar-good {
      background: var(--ok);
    }
    .bar-watch {
      background: var(--watch);
    }
    .mark {
      position: absolute;
      top: -3px;
      bottom: -3px;
      width: 3px;
      background: var(--ink);
    }
  `,
})
export class OptionList {
  protected readonly t = T;

  readonly fitting = input.required<readonly OptionRow[]>();
  readonly unfit = input.required<readonly OptionRow[]>();
  readonly chosenId = input.required<string | null>();
  readonly chosen = output<string>();

  /** The state that forbids any current through the battery: then no source is to blame, and none is listed. */
  protected readonly bar = computed(() => {
    const unfit = this.unfit()[0]?.ranked.unfit;
    return unfit?.code === 'battery-bar' ? unfit.bar : null;
  });
  protected readonly whyNone = computed(() => {
    const bar = this.bar();
    return bar ? BAR_WORDS[bar] : T.noneFits;
  });
}
