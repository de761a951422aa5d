import { ChangeDetectionStrategy, Component, input } from '@angular/core';
import { type FormControl, ReactiveFormsModule } from '@angular/forms';
import { shownUnit } from '@words/units';
import { controlOf, faultsOf, type FieldsForm } from './checked-form';
import type { FormField } from './form-field';

/** The fields of a form with their labels, units and what is wrong beside them: shown at a field after it was touched. */
@Component({
  selector: 'vt-form-fields',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [ReactiveFormsModule],
  template: `
    @for (field of fields(); track field.key) {
      <div [class.wide]="field.kind === 'long'">
        <label [attr.for]="idOf(field.key)">
          <span>{{ field.label }}{{ field.unit ? ', ' + unitOf(field.unit).unit : '' }}</span>
        </label>
        @if (field.kind === 'choice') {
          <select class="field" [id]="idOf(field.key)" [formControl]="controlOf(field.key)">
            @for (choice of field.choices; track choice.value) {
              <option [value]="choice.value">{{ choice.name }}</option>
            }
          </select>
        } @else {
          <input
            class="field"
            [id]="idOf(field.key)"
            autocomplete="off"
            [attr.inputmode]="field.kind === 'number' ? 'decimal' : null"
            [attr.maxlength]="field.most ?? 60"
            [attr.aria-invalid]="fault(field.key) !== null"
            [attr.aria-describedby]="fault(field.key) ? idOf(field.key) + '-fault' : null"
            [formControl]="controlOf(field.key)"
          />
        }
        @if (fault(field.key); as text) {
          <p class="field-fault" role="alert" [id]="idOf(field.key) + '-fault'">{{ text }}</p>
        }
      </div>
    }
  `,
  styles: `
    @use 'media';

    :host {
      display: grid;
      grid-template-columns: repeat(2, minmax(0, 1fr));
      gap: 10px 14px;
    }
    label {
      display: block;
    }
    .wide {
      grid-column: 1 / -1;
    }
    @include media.phone {
      :host {
        grid-template-columns: 1fr;
      }
    }
  `,
})
export class FormFields {
  readonly fields = input.required<readonly FormField[]>();
  readonly form = input.required<FieldsForm>();

  protected readonly unitOf = shownUnit;

  /** One form is on screen at a time, so a key identifies a field. */
  protected idOf(key: string): string {
    return `field-${key}`;
  }

  protected controlOf(key: string): FormControl<string> {
    return controlOf(this.form(), key)!;
  }

  protected fault(key: string): string | null {
    const { dirty, touched } = this.controlOf(key);
    return dirty || touched ? (faultsOf(this.form())[key] ?? null) : null;
  }
}
