import { Directive, ElementRef, inject, input } from '@angular/core';
import { armedFor } from './arming';

/**
 * A button whose act changes under the finger, as the steps of an order do: it takes no tap for a moment after it became another, and shows
 * that; nor one that was begun before.
 */
@Directive({
  selector: 'button[vtArms]',
  host: {
    'data-once': '',
    '[class.arming]': '!armed()',
    '[attr.aria-disabled]': 'armed() ? null : true',
    '(pointerdown)': 'arming.press($event)',
    '(keydown)': 'onKey($event)',
  },
})
export class Arms {
  /** The act of a tap. */
  readonly vtArms = input.required<string>();

  protected readonly arming = armedFor(() => this.vtArms());
  protected readonly armed = this.arming.armed;

  constructor() {
    // Before the button's own listener, which knows nothing of it.
    inject<ElementRef<HTMLElement>>(ElementRef).nativeElement.addEventListener(
      'click',
      (event) => {
        const begunFor = this.arming.pressed(event);
        if (this.armed() && begunFor !== 'another') return;
        event.stopImmediatePropagation();
        event.preventDefault();
      },
      { capture: true },
    );
  }

  protected onKey(event: KeyboardEvent): void {
    if (!event.repeat && (event.key === 'Enter' || event.key === ' ')) this.arming.press(event);
  }
}
