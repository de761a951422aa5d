import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import type { MachineSummary, VehicleEntry, VehicleRecord } from '@voltrek/contracts';
import { NgbActiveModal } from '@ng-bootstrap/ng-bootstrap/modal';
import { NgbTypeahead, type NgbTypeaheadSelectItemEvent } from '@ng-bootstrap/ng-bootstrap/typeahead';
import { Finder } from '../shared/state/finder';
import { FormFields, type FormField, type FormValues } from '../shared/ui/form-fields';
import { modelName, modelRow, modelSuggestions } from '../shared/ui/model-suggestions';

const FIELDS: readonly FormField[] = [
  { key: 'plate', label: 'Plate', kind: 'text', most: 16 },
  { key: 'fleetNumber', label: 'Fleet number', kind: 'text', most: 40 },
  { key: 'serialNumber', label: 'Serial number', kind: 'text', most: 40 },
  { key: 'owner', label: 'Owner', kind: 'text', most: 80 },
  { key: 'phone', label: 'Phone', kind: 'text', most: 40 },
  { key: 'notes', label: 'Notes', kind: 'long', most: 400 },
];

/** A vehicle, new or changed: by what it is told, what model it is, whose it is. Closes with what was typed. */
@Component({
  selector: 'vt-vehicle-dialog',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [FormFields, NgbTypeahead],
  template: `
    <form class="sheet" (submit)="$event.preventDefault(); keep()">
      <h1 id="vehicle-title">{{ isNew() ? 'New vehicle' : 'Change the vehicle' }}</h1>
      <label>
        <span>Model{{ model() ? ': ' + nameOf(model()!) : '' }}</span>
        <input
          class="field"
          autocomplete="off"
          placeholder="maker, model or class; unknown car"
          [ngbTypeahead]="suggest"
          [inputFormatter]="nameOf"
          [resultFormatter]="rowOf"
          [editable]="false"
          (selectItem)="choose($event)"
        />
      </label>
      <vt-form-fields [fields]="fields" [values]="values()" (typed)="values.set($event)" />
      <div class="keys">
        <button type="submit" class="key strong" [disabled]="!model()">
          {{ isNew() ? 'Add it' : 'Keep it so' }}
        </button>
        <button type="button" class="key" (click)="modal.dismiss()">Leave it</button>
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
  protected readonly modal = inject(NgbActiveModal);
  protected readonly suggest = modelSuggestions(inject(Finder));
  protected readonly nameOf = modelName;
  protected readonly rowOf = modelRow;
  protected readonly fields = FIELDS;
  protected readonly isNew = signal(true);
  protected readonly model = signal<Pick<MachineSummary, 'id' | 'maker' | 'model'> | null>(null);
  protected readonly values = signal<FormValues>({});
  private readonly entry = computed<VehicleEntry | null>(() => {
    const model = this.model();
    const text = (key: string): string => (this.values()[key] ?? '').trim();
    const orNull = (key: string): string | null => text(key) || null;
    return (
      model && {
        plate: orNull('plate'),
        fleetNumber: orNull('fleetNumber'),
        serialNumber: orNull('serialNumber'),
        modelId: model.id,
        owner: text('owner') ? { name: text('owner'), phone: text('phone') } : null,
        notes: text('notes'),
      }
    );
  });

  /** Opens on a vehicle that is known. */
  open({ vehicle, model, owner }: VehicleRecord): void {
    this.isNew.set(false);
    this.model.set(model);
    this.values.set({
      plate: vehicle.plate ?? '',
      fleetNumber: vehicle.fleetNumber ?? '',
      serialNumber: vehicle.serialNumber ?? '',
      owner: owner?.name ?? '',
      phone: owner?.phone ?? '',
      notes: vehicle.notes,
    });
  }

  protected choose({ item }: NgbTypeaheadSelectItemEvent<MachineSummary>): void {
    this.model.set(item);
  }

  protected keep(): void {
    const entry = this.entry();
    if (entry) this.modal.close(entry);
  }
}
