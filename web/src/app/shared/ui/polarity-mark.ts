import { ChangeDetectionStrategy, Component, input } from '@angular/core';

/** The two polarities, distinguished by shape before colour: a diamond with a plus, a bar with a minus. */
@Component({
  selector: 'vt-polarity-mark',
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { 'aria-hidden': 'true' },
  template: `
    <svg viewBox="-16 -16 32 32">
      @if (isRed()) {
        <path d="M0 -15 15 0 0 15 -15 0Z" class="plus" />
        <path d="M-6 0H6M0 -6V6" class="plus-sign" />
      } @else {
        <rect x="-15" y="-8.5" width="30" height="17" class="bar" />
        <path d="M-7 0H7" class="bar-sign" />
      }
    </svg>
  `,
  styles: `
    :host {
      display: inline-block;
      width: 22px;
      height: 22px;
    }
    svg {
      display: block;
      width: 100%;
      height: 100%;
    }
    .plus {
      fill: var(--positive);
    }
    .plus-sign {
      stroke: var(--on-positive);
      stroke-width: 3;
    }
    .bar {
      fill: var(--negative);
      stroke: var(--negative-edge);
      stroke-width: 2;
    }
    .bar-sign {
      stroke: var(--on-negative);
      stroke-width: 3;
    }
  `,
})
export class PolarityMark {
  readonly isRed = input.required<boolean>();
}
