import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import type { MachineSummary, VehicleEntry, VehicleRecord } from '@voltrek/contracts';
import { NgbActiveModal } from '@ng-bootstrap/ng-bootstrap/modal';
import { NgbTypeahead, type NgbTypeaheadSelectItemEvent } from '@ng-bootstrap/ng-bootstrap/typeahead';
import { Finder } from '../shared/data/finder';
import { type FieldFaults, formOf, keptOf } from '../shared/ui/checked-form';
import { FormFields } from '../shared/ui/form-fields';
import type { FormField, FormValues } from '../shared/ui/form-field';
import { modelRow, modelSuggestions } from '../shared/ui/model-suggestions';
import { modelNameOf } from '@words/model-name';
import { VEHICLE_DIALOG as T } from '@words/screens/vehicles';

/** The fields of a vehicle, in the language in use. */
const vehicleFields = (): readonly FormField[] => [
  { key: 'plate', label: T.plate, kind: 'text', most: 16 },
  { key: 'fleetNumber', label: T.fleetNumber, kind: 'text', most: 40 },
  { key: 'serialNumber', label: T.serialNumber, kind: 'text', most: 40 },
  { key: 'owner', label: T.owner, kind: 'text', most: 80 },
  { key: 'phone', label: T.phone, kind: 'text', most: 40 },
  {
    key: 'letters',
    label: T.noLetters,
    kind: 'choice',
    choices: [
      { value: 'yes', name: T.lettersYes },
      { value: 'no', name: T.lettersNo },
    ],
  },
  { key: 'notes', label: T.notes, kind: 'long', most: 400 },
];

/** A vehicle, new or changed: by plate, model it is, whose it is. Closes with what was typed. */
@Component({
  selector: 'vt-vehicle-dialog',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [FormFields, NgbTypeahead],
  template: `
    <form class="sheet" (submit)="$event.preventDefault(); keep()">
      <h1 id="vehicle-title">{{ isNew() ? t.newVehicle : t.changeTitle }}</h1>
      <label>
        <span>{{ t.model({ model: model() ? ': ' + nameOf(model()!) : '' }) }}</span>
        <input
          class="field"
          autocomplete="off"
          [placeholder]="t.modelHint"
          [ngbTypeahead]="suggest"
          [inputFormatter]="nameOf"
          [resultFormatter]="rowOf"
          [editable]="false"
          (selectItem)="choose($event)"
        />
      </label>
      <vt-form-fields [fields]="fields()" [form]="form()" />
      <div class="keys">
        <button type="submit" class="key strong" [disabled]="!model() || form().invalid">
          {{ isNew() ? t.addIt : t.keepItSo }}
        </button>
        <button type="button" class="key" (click)="modal.dismiss()">{{ t.leaveIt }}</button>
      </div>
    </form>
  `,
  styles: `
    .sheet {
      gap: 14px;
    }
  `,
})
export class VehicleDialog {
  protected readonly t = T;

  protected readonly modal = inject(NgbActiveModal);
  protected readonly suggest = modelSuggestions(inject(Finder));
  protected readonly nameOf = modelNameOf;
  protected readonly rowOf = modelRow;
  protected readonly fields = computed(vehicleFields);
  protected readonly isNew = signal(true);
  protected readonly model = signal<Pick<MachineSummary, 'id' | 'maker' | 'model'> | null>(null);
  protected readonly form = signal(formOf(this.fields(), { letters: 'yes' }, faultsIn));

  /** Opens on a vehicle that is known. */
  open({ vehicle, model, owner }: VehicleRecord): void {
    this.isNew.set(false);
    this.model.set(model);
    const known = {
      plate: vehicle.plate ?? '',
      fleetNumber: vehicle.fleetNumber ?? '',
      serialNumber: vehicle.serialNumber ?? '',
      owner: owner?.name ?? '',
      phone: owner?.phone ?? '',
      letters: owner?.noLetters ? 'no' : 'yes',
      notes: vehicle.notes,
    };
    this.form.set(formOf(this.fields(), known, faultsIn));
  }

  protected choose({ item }: NgbTypeaheadSelectItemEvent<MachineSummary>): void {
    this.model.set(item);
  }

  protected keep(): void {
    const model = this.model();
    if (model && this.form().valid) this.modal.close(entryOf(model.id, keptOf(this.fields(), this.form())));
  }
}

function entryOf(modelId: string, values: FormValues): VehicleEntry {
  const text = (key: string): string => (values[key] ?? '').trim();
  const orNull = (key: string): string | null => text(key) || null;
  return {
    plate: orNull('plate'),
    fleetNumber: orNull('fleetNumber'),
    serialNumber: orNull('serialNumber'),
    modelId,
    owner: text('owner')
      ? { name: text('owner'), phone: text('phone'), noLetters: text('letters') === 'no' }
      : null,
    notes: text('notes'),
  };
}

/** A phone number is personal: asked before it is lost. */
const faultsIn = ({ owner = '', phone = '' }: FormValues): FieldFaults =>
  phone.trim() && !owner.trim() ? { owner: T.whosePhone } : {};
