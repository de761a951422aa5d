import { ChangeDetectionStrategy, Component, input, model } from '@angular/core';
import { PIN_DIGITS } from '@voltrek/contracts';

/** A field for a PIN: digits alone, hidden, with the pad of a phone. */
@Component({
  selector: 'vt-pin-field',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <label
      ><span>{{ label() }}</span
      ><input
        class="field"
        type="password"
        inputmode="numeric"
        [autocomplete]="autocomplete()"
        [maxLength]="most"
        [value]="pin()"
        #typed
        (input)="type(typed)"
    /></label>
  `,
  styles: `
    label {
      display: grid;
      gap: 4px;
    }
    input {
      font-size: var(--text-xl);
      letter-spacing: 0.25em;
    }
  `,
})
export class PinField {
  readonly label = input.required<string>();
  /** The value that the browser may fill in. */
  readonly autocomplete = input<'off' | 'current-password' | 'new-password'>('off');
  readonly pin = model('');

  protected readonly most = PIN_DIGITS.max;

  protected type(field: HTMLInputElement): void {
    field.value = field.value.replace(/\D/g, '').slice(0, PIN_DIGITS.max);
    this.pin.set(field.value);
  }
}
