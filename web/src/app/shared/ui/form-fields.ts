import { fromShownUnit, inShownUnit, shownUnit } from '@words/units';
import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';

/** One thing that is typed or chosen. */
export interface FormField {
  /** Name of the value; dots lead into parts. */
  readonly key: string;
  readonly label: string;
  readonly kind: 'text' | 'number' | 'choice' | 'flag' | 'long';
  readonly unit?: string;
  readonly choices?: readonly { readonly value: string; readonly name: string }[];
  readonly most?: number;
}

/** Values to choose from, each under its word where it has one. */
export const choicesOf = (values: readonly string[], words: Readonly<Record<string, string>> = {}) =>
  values.map((value) => ({ value, name: words[value] ?? value }));

/** What is typed in each field, by its key. */
export type FormValues = Readonly<Record<string, string>>;

/** Fields under one another with their labels, units beside them. Holds nothing: what is typed is told at once. */
@Component({
  selector: 'vt-form-fields',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @for (field of fields(); track field.key) {
      @if (field.kind === 'flag') {
        <button
          type="button"
          class="key"
          [attr.aria-pressed]="values()[field.key] === 'true'"
          (click)="say(field.key, values()[field.key] === 'true' ? 'false' : 'true')"
        >
          {{ field.label }}
        </button>
      } @else {
        <label [class.wide]="field.kind === 'long'" [attr.for]="idOf(field.key)">
          <span>{{ field.label }}{{ field.unit ? ', ' + unitOf(field.unit).unit : '' }}</span>
          @if (field.kind === 'choice') {
            <select class="field" [id]="idOf(field.key)" #select (change)="say(field.key, select.value)">
              @for (choice of field.choices; track choice.value) {
                <option [value]="choice.value" [selected]="choice.value === values()[field.key]">
                  {{ choice.name }}
                </option>
              }
            </select>
          } @else {
            <input
              class="field"
              [id]="idOf(field.key)"
              autocomplete="off"
              [attr.inputmode]="field.kind === 'number' ? 'decimal' : null"
              [attr.maxlength]="field.most ?? 60"
              [value]="shownText(field)"
              #typed
              (input)="say(field.key, keptText(field, typed.value))"
            />
          }
        </label>
      }
    }
  `,
  styles: `
    :host {
      display: grid;
      grid-template-columns: repeat(2, minmax(0, 1fr));
      gap: 10px 14px;
    }
    .wide {
      grid-column: 1 / -1;
    }
    @media (max-width: 720px) {
      :host {
        grid-template-columns: 1fr;
      }
    }
  `,
})
export class FormFields {
  readonly fields = input.required<readonly FormField[]>();
  readonly values = input.required<FormValues>();
  readonly typed = output<FormValues>();

  /** One form is on screen at a time, so a key is told apart by itself. */
  protected idOf(key: string): string {
    return `field-${key}`;
  }

  protected readonly unitOf = shownUnit;
  private typedAs: { readonly key: string; readonly kept: string; readonly text: string } | null = null;

  protected shownText({ key, unit = '' }: FormField): string {
    const text = this.values()[key] ?? '';
    if (this.typedAs?.key === key && this.typedAs.kept === text) return this.typedAs.text;
    return inShownUnit(text, unit);
  }

  protected keptText({ key, unit = '' }: FormField, text: string): string {
    const kept = fromShownUnit(text, unit);
    this.typedAs = { key, kept, text };
    return kept;
  }

  protected say(key: string, value: string): void {
    this.typed.emit({ ...this.values(), [key]: value });
  }
}
