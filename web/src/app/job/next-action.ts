import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';

/** The one next action of a stage: large, in the action bar, on the Enter key. */
@Component({
  selector: 'vt-next-action',
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { '(document:keydown.enter)': 'onEnter($event)' },
  template: `
    <button type="button" class="next" [disabled]="disabled()" (click)="go.emit()">
      {{ label() }} <kbd aria-hidden="true">Enter</kbd>
    </button>
  `,
  styles: `
    :host {
      grid-area: next;
      display: flex;
      background: var(--road);
      padding: 14px 0;
    }
    .next {
      flex: 1;
      border: 0;
      border-radius: 5px;
      background: var(--lamp);
      color: var(--on-lamp);
      font-size: 24px;
      font-weight: 700;
      line-height: 1.05;
    }
    .next:disabled {
      background: transparent;
      border: 2px dashed var(--on-road-dim);
      color: var(--on-road);
      font-size: 20px;
    }
    kbd {
      margin-left: 12px;
      padding: 2px 8px;
      border: 1.5px solid currentcolor;
      border-radius: 4px;
      background: none;
      color: inherit;
      font: inherit;
      font-size: 14px;
      font-weight: 500;
      vertical-align: 4px;
    }
    .next:disabled kbd {
      display: none;
    }
    @media (max-width: 720px) {
      :host {
        padding: 10px 0;
      }
      .next {
        font-size: 19px;
      }
      kbd {
        display: none;
      }
    }
  `,
})
export class NextAction {
  readonly label = input.required<string>();
  readonly disabled = input(false);
  readonly go = output();

  /** Enter belongs to whatever has the focus first; only a page at rest gives it to the next action. */
  protected onEnter(event: Event): void {
    const focused = document.activeElement;
    const isBusy =
      focused !== null && focused !== document.body && focused.matches('button, a, input, select, textarea');
    if (isBusy || document.querySelector('.modal') || this.disabled()) return;
    event.preventDefault();
    this.go.emit();
  }
}
