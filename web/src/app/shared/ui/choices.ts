import { FocusKeyManager } from '@angular/cdk/a11y';
import { type AfterContentChecked, Directive, ElementRef, inject } from '@angular/core';

/**
 * Keys in a group of choices of which one holds: it is one stop of the Tab key, at the current choice. Arrow keys, Home and End move
 * between choices. They move the focus only: what is chosen may be an entry in the log, and that wants a tap, Enter or the space bar.
 */
@Directive({
  selector: '[role=radiogroup], [role=tablist]',
  host: { '(keydown)': 'move($event)', '(focusin)': 'stopAt($event.target)' },
})
export class Choices implements AfterContentChecked {
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;

  ngAfterContentChecked(): void {
    const choices = this.choices();
    const holds = (choice: HTMLElement): boolean =>
      choice.getAttribute('aria-checked') === 'true' || choice.getAttribute('aria-selected') === 'true';
    this.stopAt(
      choices.find((choice) => choice === document.activeElement) ??
        choices.find(holds) ??
        choices.find((choice) => !choice.matches(':disabled')) ??
        null,
    );
  }

  protected stopAt(target: EventTarget | null): void {
    const choices = this.choices();
    if (!choices.some((choice) => choice === target)) return;
    for (const choice of choices) {
      const stop = choice === target ? 0 : -1;
      // Written again, the same has the browser work out the style again, at each change of what is around.
      if (choice.tabIndex !== stop) choice.tabIndex = stop;
    }
  }

  protected move(event: KeyboardEvent): void {
    const choices = this.choices();
    const at = choices.findIndex((choice) => choice === event.target);
    if (at < 0) return;
    const keys = new FocusKeyManager(
      choices.map((choice) => ({ focus: () => choice.focus(), disabled: choice.matches(':disabled') })),
    )
      .withWrap()
      .withHomeAndEnd()
      .withHorizontalOrientation('ltr');
    keys.updateActiveItem(at);
    keys.onKeydown(event);
    keys.destroy();
  }

  private choices(): HTMLElement[] {
    return [...this.host.querySelectorAll<HTMLElement>('[role=radio], [role=tab]')];
  }
}
