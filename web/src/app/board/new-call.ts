import { shownUnit } from '@words/units';
import { FormControl, FormGroup, ReactiveFormsModule } from '@angular/forms';
import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import {
  type MachineSummary,
  type NewCall as NewCallEntry,
  parseNewCall,
  type VehicleSummary,
  vehicleNumbersOf,
} from '@voltrek/contracts';
import { TYPED_RANGES } from '@voltrek/core/quantities';
import { outOfRange } from '@words/range-words';
import { NgbActiveModal } from '@ng-bootstrap/ng-bootstrap/modal';
import { NgbTypeahead } from '@ng-bootstrap/ng-bootstrap/typeahead';
import { problemText } from '../shared/data/problem';
import { modelRow, modelSuggestions } from '../shared/ui/model-suggestions';
import { modelNameOf, vehicleModelName } from '@words/model-name';
import { typedFigure } from '../shared/ui/typed-figure';
import { vehicleWord } from '@words/figures';
import { type FieldFaults, faultsOf, schemaFaults } from '../shared/ui/checked-form';
import { Choices } from '../shared/ui/choices';
import { Finder } from '../shared/data/finder';
import { callErrand } from '../shared/model/errand';
import { Errands } from '../shared/sync/errands';
import { When } from '../shared/ui/when';
import { NEW_CALL as T } from '@words/screens/board';
import { plateKeyOf } from '@voltrek/contracts/search-text';

/** Known vehicles that are offered while a plate is typed. */
const KNOWN_MOST = 4;

const text = (begin = ''): FormControl<string> => new FormControl(begin, { nonNullable: true });
/** The schema's fields by the labels that are seen. */
const labels = () => [
  { key: 'title', label: T.titleLabel },
  { key: 'ambientC', label: T.airLabel },
];

/** A call typed in by hand. */
@Component({
  selector: 'vt-new-call',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Choices, NgbTypeahead, ReactiveFormsModule, When],
  template: `
    <form class="sheet" [formGroup]="form" (ngSubmit)="open()">
      <h1 id="new-call-title">{{ t.newCall }}</h1>
      <label>
        <span>{{ t.plateLabel }}</span>
        <input class="field" autocomplete="off" maxlength="16" formControlName="plate" (input)="look()" />
      </label>
      @if (known().length > 0) {
        <div class="keys" role="radiogroup" [attr.aria-label]="t.knownVehicles">
          @for (v of known(); track v.id) {
            <button
              type="button"
              class="key"
              role="radio"
              [attr.aria-checked]="vehicle()?.id === v.id"
              (click)="take(v)"
            >
              {{ word(v) }}, {{ modelWord(v) }}
            </button>
          }
        </div>
      }
      <label>
        <span>{{ t.machineLabel({ model: vehicle() ? ': ' + modelWord(vehicle()!) : '' }) }}</span>
        <input
          class="field"
          autocomplete="off"
          [placeholder]="t.machineHint"
          [ngbTypeahead]="suggest"
          [inputFormatter]="nameOf"
          [resultFormatter]="rowOf"
          [editable]="false"
          (selectItem)="choose($event.item)"
          (input)="choose(null)"
        />
      </label>
      @if (fault('vehicle'); as text) {
        <p class="field-fault" role="alert">{{ text }}</p>
      }
      <label
        ><span>{{ t.titleLabel }}</span
        ><input class="field" maxlength="120" formControlName="title"
      /></label>
      <label
        ><span>{{ t.place }}</span
        ><input class="field" maxlength="120" formControlName="place"
      /></label>
      <label
        ><span>{{ t.saysLabel }}</span
        ><input class="field" maxlength="400" formControlName="said"
      /></label>
      <label
        ><span>{{ t.air({ unit: unit().unit }) }}</span
        ><input class="field" inputmode="numeric" maxlength="4" formControlName="temp"
      /></label>
      @if (fault('temp'); as text) {
        <p class="field-fault" role="alert">{{ text }}</p>
      }
      <div class="pair">
        <label
          ><span>{{ t.whoCalled }}</span
          ><input class="field" maxlength="80" formControlName="caller"
        /></label>
        <label
          ><span>{{ t.phone }}</span
          ><input class="field" inputmode="tel" maxlength="40" formControlName="phone"
        /></label>
        <label
          ><span>{{ t.promisedLabel }}</span
          ><input class="field" inputmode="numeric" maxlength="3" formControlName="promised"
        /></label>
        <button
          type="button"
          class="key"
          [attr.aria-pressed]="form.value.urgent"
          (click)="form.controls.urgent.setValue(!form.value.urgent)"
        >
          {{ t.urgent }}
        </button>
      </div>
      @if (fault('caller'); as text) {
        <p class="field-fault" role="alert">{{ text }}</p>
      }
      @if (heldAt(); as at) {
        <p class="dim">{{ t.offlineSince({ at: at | when: 'dayTime' }) }}</p>
      }
      @if (problem() ?? whole(); as text) {
        <p class="problem" role="alert">{{ text }}</p>
      }
      <div class="keys">
        <button type="submit" class="key strong" [disabled]="form.invalid || isBusy()">
          {{ t.save }}
        </button>
        <button type="button" class="key" (click)="modal.dismiss()">{{ t.leaveIt }}</button>
      </div>
    </form>
  `,
  styles: `
    .sheet {
      gap: 10px;
      padding: 20px 24px;
    }
    .pair {
      display: grid;
      grid-template-columns: 1fr 1fr;
      align-items: end;
      gap: 10px 14px;
    }
  `,
})
export class NewCall {
  protected readonly t = T;

  protected readonly modal = inject(NgbActiveModal);
  private readonly finder = inject(Finder);
  private readonly errands = inject(Errands);

  protected readonly machine = signal<MachineSummary | null>(null);
  protected readonly isBusy = signal(false);
  protected readonly known = signal<readonly VehicleSummary[]>([]);
  protected readonly vehicle = signal<VehicleSummary | null>(null);
  protected readonly unit = computed(() => shownUnit('°C'));
  protected readonly form = new FormGroup({
    plate: text(),
    title: text(),
    place: text(),
    said: text(),
    temp: text(String(Math.round(this.unit().show(0)))),
    caller: text(),
    phone: text(),
    promised: text(),
    urgent: new FormControl(false, { nonNullable: true }),
  });
  protected readonly problem = signal<string | null>(null);

  protected readonly heldAt = this.finder.heldAt;
  protected readonly suggest = modelSuggestions(this.finder, (error) => this.problem.set(problemText(error)));
  protected readonly nameOf = modelNameOf;
  protected readonly modelWord = vehicleModelName;
  protected readonly rowOf = modelRow;
  protected readonly word = vehicleWord;

  constructor() {
    this.form.addValidators(() => this.faults());
    this.form.updateValueAndValidity();
  }

  /** The faults, by the name of the control that each stands at. */
  private faults(): { readonly faults: FieldFaults } | null {
    const { show, unit } = this.unit();
    const { min, max } = TYPED_RANGES.ambientC;
    const air = outOfRange(T.airLabel, typedFigure(this.form.value.temp), {
      min: show(min),
      max: show(max),
      unit,
    });
    const found = schemaFaults(labels(), () => parseNewCall(this.entry()));
    const faults = {
      ...(this.form.value.phone?.trim() && !this.form.value.caller?.trim() && { caller: T.whosePhone }),
      ...(!this.vehicle() && !this.machine() && { vehicle: T.machineMissing }),
      ...('' in found && { '': found[''] }),
      ...(air !== null && { temp: air }),
    };
    return Object.keys(faults).length > 0 ? { faults } : null;
  }

  /** A fault that no field shows, of the call as a whole. */
  protected whole(): string | null {
    return faultsOf(this.form)[''] ?? null;
  }

  /** Shown at a field after it was touched. */
  protected fault(key: 'temp' | 'vehicle' | 'caller'): string | null {
    const { plate, phone } = this.form.controls;
    const control = key === 'vehicle' ? plate : key === 'caller' ? phone : this.form.controls[key];
    return control.touched || (key === 'temp' && control.dirty) ? (faultsOf(this.form)[key] ?? null) : null;
  }

  /** Looks a plate up while it is typed: a known one names its model by itself. */
  protected look(): void {
    const plate = this.form.controls.plate.value;
    this.take(null);
    if (plate.trim().length < 3) {
      this.known.set([]);
      return;
    }
    this.finder.vehicles(plate).subscribe({
      next: (found) => {
        if (this.form.controls.plate.value !== plate) return;
        this.known.set(found.slice(0, KNOWN_MOST));
        const same = found.find((known) => plateKeyOf(known.plate ?? '') === plateKeyOf(plate));
        if (same) this.take(same);
      },
      error: (error: unknown) => this.problem.set(problemText(error)),
    });
  }

  protected take(vehicle: VehicleSummary | null): void {
    this.vehicle.set(vehicle);
    if (vehicle) this.form.controls.plate.setValue(vehicle.plate ?? '');
    this.form.updateValueAndValidity();
  }

  protected choose(machine: MachineSummary | null): void {
    this.machine.set(machine);
    this.form.updateValueAndValidity();
  }

  /** The call as it is typed. */
  private entry(): NewCallEntry {
    const typed = this.form.getRawValue();
    const vehicle = this.vehicle();
    const machine = this.machine();
    const [plate, name, phone] = [typed.plate.trim(), typed.caller.trim(), typed.phone.trim()];
    const minutes = typedFigure(typed.promised);
    return {
      id: crypto.randomUUID(),
      title:
        typed.title.trim() || (vehicle ? vehicleModelName(vehicle) : machine ? modelNameOf(machine) : plate),
      placeName: typed.place.trim(),
      said: typed.said.trim(),
      ambientC: Math.round(this.unit().keep(typedFigure(typed.temp))),
      urgent: typed.urgent,
      ...(vehicle ? { vehicleId: vehicle.id } : plate && { plate }),
      ...(machine && !vehicle && { modelId: machine.id }),
      ...(name && { caller: { name, phone } }),
      ...(minutes > 0 && { promisedAt: new Date(Date.now() + minutes * 60_000).toISOString() }),
    };
  }

  /** A call that no server answers goes on this device's board, and to the server when there is one. */
  protected async open(): Promise<void> {
    // A second tap while the first is on its way would be a second call.
    if (this.form.invalid || this.isBusy()) return;
    this.isBusy.set(true);
    this.problem.set(null);
    const known = this.vehicle();
    const about = known && {
      vehicleId: known.id,
      vehicle: vehicleNumbersOf(known),
      modelId: known.modelId,
    };
    try {
      await this.errands.offer(callErrand(this.entry(), about, new Date().toISOString()));
      this.modal.close();
    } catch (error) {
      this.problem.set(problemText(error));
    } finally {
      this.isBusy.set(false);
    }
  }
}
