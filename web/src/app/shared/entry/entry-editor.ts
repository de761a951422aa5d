import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { type FormControl, FormRecord, ReactiveFormsModule } from '@angular/forms';
import type { Machine } from '@voltrek/core/machine';
import { NgbActiveModal } from '@ng-bootstrap/ng-bootstrap/modal';
import { controlIn, type FieldsForm } from '../ui/checked-form';
import { MachineDrawing } from '../drawing/machine-drawing';
import { entryFaults, entryFields, type Field, withNewPoint } from './entry-fields';
import { ENTRY_EDITOR as T } from '@words/screens/entry';

/** The result of the editor: the corrected entry and why. */
export interface EditedEntry {
  readonly machine: Machine;
  readonly note: string;
}

/** Corrects an entry, with its drawing beside it; impossible values are shown at once. */
@Component({
  selector: 'vt-entry-editor',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [MachineDrawing, ReactiveFormsModule],
  template: `
    @if (draft(); as machine) {
      <form (submit)="$event.preventDefault(); save()">
        <header>
          <h1 id="entry-editor-title">{{ t.correct({ maker: machine.maker, model: machine.model }) }}</h1>
        </header>
        <div class="split">
          <div class="groups" tabindex="0" role="group" [attr.aria-label]="t.partsLabel">
            @for (group of groups(); track $index) {
              <fieldset>
                <legend>{{ group.title }}</legend>
                <div class="fields">
                  @for (field of group.fields; track field.path) {
                    <div [class.wide]="field.kind === 'lines'">
                      <span class="label">{{ field.label }}</span>
                      @switch (field.kind) {
                        @case ('choice') {
                          <select
                            class="field"
                            [attr.aria-label]="field.label"
                            [formControl]="controlOf(field)"
                            (change)="set(field)"
                          >
                            @for (c of field.choices; track c.value) {
                              <option [value]="c.value">{{ c.name }}</option>
                            }
                          </select>
                        }
                        @case ('flag') {
                          <button
                            type="button"
                            [attr.aria-label]="field.label"
                            class="key"
                            [attr.aria-pressed]="field.value === 'true'"
                            (click)="turn(field)"
                          >
                            {{ field.value === 'true' ? t.yes : t.no }}
                          </button>
                        }
                        @case ('lines') {
                          <textarea
                            [attr.aria-label]="field.label"
                            class="field"
                            rows="3"
                            [formControl]="controlOf(field)"
                            (change)="set(field)"
                          ></textarea>
                        }
                        @default {
                          <input
                            [attr.aria-label]="field.label"
                            class="field"
                            [attr.inputmode]="field.kind === 'number' ? 'decimal' : null"
                            [attr.aria-invalid]="faults()[field.path] !== undefined"
                            [formControl]="controlOf(field)"
                            (change)="set(field)"
                          />
                        }
                      }
                      @if (faults()[field.path]; as text) {
                        <p class="field-fault" role="alert">{{ text }}</p>
                      }
                    </div>
                  }
                </div>
                @if (group.remove; as remove) {
                  <button type="button" class="key" (click)="remake(remove(machine))">
                    {{ t.removePoint }}
                  </button>
                }
              </fieldset>
            }
            <button type="button" class="key" (click)="remake(addPoint(machine))">
              {{ t.addAPoint }}
            </button>
          </div>
          <div class="drawing"><vt-machine-drawing [machine]="machine" /></div>
        </div>
        @if (faults()['']; as text) {
          <p class="problem" role="alert">{{ text }}</p>
        }
        <footer>
          <label
            ><span>{{ t.noteLabel }}</span>
            <input
              class="field"
              maxlength="200"
              [value]="note()"
              #noteInput
              (input)="note.set(noteInput.value)"
            />
          </label>
          <button type="button" class="key" (click)="modal.dismiss()">{{ t.leaveIt }}</button>
          <button type="submit" class="key strong" [disabled]="!isSound()">
            {{ t.save }}
          </button>
        </footer>
      </form>
    }
  `,
  styles: `
    @use 'media';

    form {
      display: flex;
      flex-direction: column;
      gap: 12px;
      height: min(88vh, 720px);
      padding: 18px 20px;
    }
    .split {
      flex: 1 1 0;
      min-height: 0;
      display: grid;
      grid-template-columns: minmax(0, 1fr) 360px;
      gap: 18px;
    }
    .groups {
      min-height: 0;
      overflow: auto;
      padding-right: 10px;
    }
    fieldset {
      padding: 10px 0 14px;
      border-top: 1px solid var(--line);
    }
    legend {
      float: none;
      width: auto;
      margin-bottom: 6px;
      font-size: var(--text-m);
      color: var(--ink);
    }
    .fields {
      display: grid;
      grid-template-columns: repeat(3, 1fr);
      gap: 8px 12px;
      margin-bottom: 8px;
    }
    .wide {
      grid-column: 1 / -1;
    }
    .drawing {
      min-height: 0;
    }
    .problem {
      max-height: 96px;
      overflow: auto;
    }
    footer {
      display: grid;
      grid-template-columns: 1fr auto auto;
      align-items: end;
      gap: 10px;
    }
    @include media.phone {
      form {
        height: auto;
      }
      .split {
        display: block;
      }
      .fields,
      footer {
        grid-template-columns: 1fr;
      }
      .drawing {
        height: 380px;
      }
    }
  `,
})
export class EntryEditor {
  protected readonly t = T;

  protected readonly modal = inject(NgbActiveModal);
  /** Set by whoever opens the editor. */
  readonly draft = signal<Machine | null>(null);

  protected readonly note = signal('');
  protected readonly addPoint = withNewPoint;
  protected readonly groups = computed(() => {
    const machine = this.draft();
    return machine ? entryFields(machine) : [];
  });
  protected readonly faults = computed(() => {
    const machine = this.draft();
    return machine ? entryFaults(machine) : {};
  });
  protected readonly isSound = computed(() => Object.keys(this.faults()).length === 0);
  private form: FieldsForm = new FormRecord<FormControl<string>>({});

  /** The typed text of a field: it stays while the draft has the value that could be read of it. */
  protected controlOf({ path, value }: Field): FormControl<string> {
    return controlIn(this.form, path, value);
  }

  protected set(field: Field): void {
    const typed = this.controlOf(field).value;
    this.draft.update((machine) => machine && field.set(machine, typed));
  }

  protected turn(field: Field): void {
    this.draft.update((machine) => machine && field.set(machine, field.value === 'true' ? 'false' : 'true'));
  }

  /** An entry with a point more or less: what stood at one place stands at another. */
  protected remake(machine: Machine): void {
    this.form = new FormRecord<FormControl<string>>({});
    this.draft.set(machine);
  }

  protected save(): void {
    const machine = this.draft();
    if (machine && this.isSound())
      this.modal.close({ machine, note: this.note().trim() } satisfies EditedEntry);
  }
}
