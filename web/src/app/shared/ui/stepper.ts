import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';

/** A whole figure with a key for less and one for more: nothing to type with gloves on. */
@Component({
  selector: 'vt-stepper',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <button
      type="button"
      class="key"
      [attr.aria-label]="lessName()"
      [disabled]="value() <= least()"
      (click)="changed.emit(value() - 1)"
    >
      −
    </button>
    <output [class.figure]="isBig()" [attr.aria-labelledby]="labelledBy()" aria-live="polite">{{
      shown() ?? value()
    }}</output>
    <button
      type="button"
      class="key"
      [attr.aria-label]="moreName()"
      [disabled]="value() >= most()"
      (click)="changed.emit(value() + 1)"
    >
      +
    </button>
  `,
  host: { '[class.big]': 'isBig()' },
  styles: `
    :host {
      display: flex;
      align-items: center;
      gap: 6px;
      text-align: center;
    }
    output {
      min-width: 40px;
    }
    :host(.big) output {
      min-width: 64px;
    }
    :host(.big) .key {
      font-size: var(--text-xl);
      min-width: 56px;
      min-height: 56px;
    }
  `,
})
export class Stepper {
  readonly value = input.required<number>();
  /** The figure as it is read, where that is in another unit. */
  readonly shown = input<number>();
  readonly lessName = input.required<string>();
  readonly moreName = input.required<string>();
  readonly least = input(-Infinity);
  readonly most = input(Infinity);
  readonly isBig = input(false);
  /** Id of what names the figure, where no legend does. */
  readonly labelledBy = input<string>();
  readonly changed = output<number>();
}
