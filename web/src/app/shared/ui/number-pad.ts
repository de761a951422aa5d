import { ChangeDetectionStrategy, Component, model } from '@angular/core';
import { NUMBER_PAD as T } from '@words/screens/ui';

/** A glove-sized pad for one figure. */
@Component({
  selector: 'vt-number-pad',
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { '(document:keydown)': 'onKey($event)', role: 'group', '[attr.aria-label]': 't.numberPad' },
  template: `
    @for (key of keys; track key) {
      <button type="button" class="key" (click)="press(key)">{{ key }}</button>
    }
    <button type="button" class="key" [attr.aria-label]="t.changeSign" (click)="press('±')">±</button>
    <button type="button" class="key wide" [attr.aria-label]="t.deleteLast" (click)="deleteLast()">
      <i class="bi bi-backspace" aria-hidden="true"></i>
    </button>
  `,
  styles: `
    @use 'media';

    :host {
      display: grid;
      grid-template-columns: repeat(3, 1fr);
      gap: 6px;
    }
    .key {
      min-height: 56px;
      font-size: var(--text-xl);
    }
    .wide {
      grid-column: 1 / -1;
    }
    /* On a phone all of it stands above the drawing's strip: four rows, the sign and the way back beside the digits. */
    @include media.phone {
      :host {
        grid-template-columns: repeat(4, 1fr);
        gap: 4px;
      }
      .key {
        min-height: 48px;
      }
      .key:nth-child(3n + 1) {
        grid-column: 1;
      }
      .key:nth-child(3n + 2) {
        grid-column: 2;
      }
      .key:nth-child(3n) {
        grid-column: 3;
      }
      .key:nth-child(10) {
        grid-area: 4 / 1 / 5 / 3;
      }
      .key:nth-child(11) {
        grid-area: 4 / 3 / 5 / 4;
      }
      .key:nth-child(12) {
        grid-area: 3 / 4 / 5 / 5;
      }
      .key.wide {
        grid-area: 1 / 4 / 3 / 5;
      }
    }
  `,
})
export class NumberPad {
  protected readonly t = T;

  readonly text = model('');

  protected readonly keys = ['7', '8', '9', '4', '5', '6', '1', '2', '3', '0', '.'];

  protected press(key: string): void {
    this.text.update((text) => {
      switch (key) {
        case '±':
          return text.startsWith('-') ? text.slice(1) : `-${text}`;
        case '.':
          return text.includes('.') ? text : `${text}.`;
        default:
          return text.length < 6 ? text + key : text;
      }
    });
  }

  protected deleteLast(): void {
    this.text.update((text) => text.slice(0, -1));
  }

  protected onKey(event: KeyboardEvent): void {
    const target = event.target;
    if (target instanceof HTMLElement && target.matches('input, textarea, select')) return;
    if (event.ctrlKey || event.metaKey || event.altKey || document.querySelector('.modal')) return;
    if (/^\d$/.test(event.key)) this.press(event.key);
    else if (event.key === '.' || event.key === ',') this.press('.');
    else if (event.key === '-') this.press('±');
    else if (event.key === 'Backspace') this.deleteLast();
  }
}
