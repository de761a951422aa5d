import { shownUnit } from '@words/units';
import { DatePipe } from '@angular/common';
import { ChangeDetectionStrategy, Component, computed, inject, linkedSignal, signal } from '@angular/core';
import type { MachineSummary, NewCall as NewCallEntry, VehicleSummary } from '@voltrek/contracts';
import { outOfRange, TYPED_RANGES } from '@voltrek/core/quantities';
import { NgbActiveModal } from '@ng-bootstrap/ng-bootstrap/modal';
import { timeout } from 'rxjs';
import { NgbTypeahead, type NgbTypeaheadSelectItemEvent } from '@ng-bootstrap/ng-bootstrap/typeahead';
import { Api } from '../shared/state/api';
import { problemText } from '../shared/state/problem';
import { modelName, modelRow, modelSuggestions } from '../shared/ui/model-suggestions';
import { typedFigure } from '../shared/ui/typed-figure';
import { vehicleWord } from '@words/figures';
import { Choices } from '../shared/ui/choices';
import { Finder } from '../shared/state/finder';
import { isAway } from '../shared/sync/answer-to';
import { callErrand } from '../shared/sync/errand';
import { Errands } from '../shared/sync/errands';
import { NEW_CALL as T } from '@words/screens/board';

/** The server is given this long before a call is kept here, ms. */
const ANSWER_MS = 6_000;
/** Known vehicles that are offered while a plate is typed. */
const KNOWN_MOST = 4;

/** A call typed in by hand. */
@Component({
  selector: 'vt-new-call',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Choices, DatePipe, NgbTypeahead],
  template: `
    <form class="sheet" (submit)="$event.preventDefault(); open()">
      <h1 id="new-call-title">{{ t.newCall }}</h1>
      <label>
        <span>{{ t.plateIfItHasOne }}</span>
        <input
          class="field"
          autocomplete="off"
          maxlength="16"
          [value]="plate()"
          #plateInput
          (input)="look(plateInput.value)"
        />
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
              {{ word(v) }}, {{ v.modelName }}
            </button>
          }
        </div>
      }
      <label>
        <span>{{ t.vehicleOrMachine(vehicle() ? ': ' + vehicle()!.modelName : '') }}</span>
        <input
          class="field"
          autocomplete="off"
          [placeholder]="t.makerModelOrClassUnknownCar"
          [ngbTypeahead]="suggest"
          [inputFormatter]="nameOf"
          [resultFormatter]="rowOf"
          [editable]="false"
          (selectItem)="choose($event)"
          (input)="machine.set(null)"
        />
      </label>
      <label
        ><span>{{ t.whatStandsThere }}</span
        ><input
          class="field"
          maxlength="120"
          [value]="title()"
          #titleInput
          (input)="title.set(titleInput.value)"
      /></label>
      <label
        ><span>{{ t.place }}</span
        ><input
          class="field"
          maxlength="120"
          [value]="place()"
          #placeInput
          (input)="place.set(placeInput.value)"
      /></label>
      <label
        ><span>{{ t.whatTheDriverSaid }}</span
        ><input class="field" maxlength="400" [value]="said()" #saidInput (input)="said.set(saidInput.value)"
      /></label>
      <label
        ><span>{{ t.air(unit().unit) }}</span
        ><input
          class="field"
          inputmode="numeric"
          maxlength="4"
          [value]="temp()"
          #tempInput
          (input)="temp.set(tempInput.value)"
      /></label>
      <div class="pair">
        <label
          ><span>{{ t.whoCalled }}</span
          ><input
            class="field"
            maxlength="80"
            [value]="caller()"
            #callerInput
            (input)="caller.set(callerInput.value)"
        /></label>
        <label
          ><span>{{ t.phone }}</span
          ><input
            class="field"
            inputmode="tel"
            maxlength="40"
            [value]="phone()"
            #phoneInput
            (input)="phone.set(phoneInput.value)"
        /></label>
        <label
          ><span>{{ t.promisedWithinMin }}</span
          ><input
            class="field"
            inputmode="numeric"
            maxlength="3"
            [value]="promised()"
            #promisedInput
            (input)="promised.set(promisedInput.value)"
        /></label>
        <button type="button" class="key" [attr.aria-pressed]="urgent()" (click)="urgent.set(!urgent())">
          {{ t.urgent }}
        </button>
      </div>
      @if (heldAt(); as at) {
        <p class="dim">{{ t.noServerAtlasAndVehiclesAs(at | date: 'd MMM, HH:mm') }}</p>
      }
      @if (problem() ?? fault(); as text) {
        <p class="problem" role="alert">{{ text }}</p>
      }
      <div class="keys">
        <button type="submit" class="key strong" [disabled]="!ready()">{{ t.putItOnTheBoard }}</button>
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
  private readonly api = inject(Api);
  private readonly finder = inject(Finder);
  private readonly errands = inject(Errands);

  protected readonly machine = signal<MachineSummary | null>(null);
  protected readonly plate = signal('');
  protected readonly known = signal<readonly VehicleSummary[]>([]);
  protected readonly vehicle = signal<VehicleSummary | null>(null);
  protected readonly caller = signal('');
  protected readonly phone = signal('');
  protected readonly promised = signal('');
  protected readonly urgent = signal(false);
  protected readonly title = signal('');
  protected readonly place = signal('');
  protected readonly said = signal('');
  protected readonly unit = computed(() => shownUnit('°C'));
  private readonly shownRange = computed(() => {
    const { unit, show } = this.unit();
    const { min, max } = TYPED_RANGES.ambientC;
    return { min: show(min), max: show(max), unit };
  });
  protected readonly temp = linkedSignal(() => String(Math.round(this.unit().show(0))));
  protected readonly problem = signal<string | null>(null);
  protected readonly fault = computed(() =>
    outOfRange(T.airTemperature, typedFigure(this.temp()), this.shownRange()),
  );
  protected readonly ready = computed(
    () => (this.machine() ?? this.vehicle()) !== null && this.place().trim() !== '' && this.fault() === null,
  );

  protected readonly heldAt = this.finder.heldAt;
  protected readonly suggest = modelSuggestions(this.finder, (error) => this.problem.set(problemText(error)));
  protected readonly nameOf = modelName;
  protected readonly rowOf = modelRow;
  protected readonly word = vehicleWord;

  /** Looks a plate up while it is typed: a known one names its model by itself. */
  protected look(text: string): void {
    this.plate.set(text);
    this.vehicle.set(null);
    if (text.trim().length < 3) {
      this.known.set([]);
      return;
    }
    this.finder.vehicles(text).subscribe({
      next: (found) => {
        if (this.plate() === text) this.known.set(found.slice(0, KNOWN_MOST));
      },
      error: (error: unknown) => this.problem.set(problemText(error)),
    });
  }

  protected take(vehicle: VehicleSummary): void {
    this.vehicle.set(vehicle);
    this.plate.set(vehicle.plate ?? '');
  }

  protected choose({ item }: NgbTypeaheadSelectItemEvent<MachineSummary>): void {
    this.machine.set(item);
  }

  protected open(): void {
    if (!this.ready()) return;
    const vehicle = this.vehicle();
    const machine = this.machine();
    const plate = this.plate().trim();
    const minutes = typedFigure(this.promised());
    const call: NewCallEntry = {
      id: crypto.randomUUID(),
      title: this.title().trim() || (vehicle?.modelName ?? (machine ? modelName(machine) : plate)),
      placeName: this.place().trim(),
      said: this.said().trim(),
      ambientC: Math.round(this.unit().keep(typedFigure(this.temp()))),
      urgent: this.urgent(),
      ...(vehicle ? { vehicleId: vehicle.id } : plate && { plate }),
      ...(machine && !vehicle && { modelId: machine.id }),
      ...(this.caller().trim() && { caller: { name: this.caller().trim(), phone: this.phone().trim() } }),
      ...(minutes > 0 && { promisedAt: new Date(Date.now() + minutes * 60_000).toISOString() }),
    };
    this.api
      .openCall(call)
      .pipe(timeout(ANSWER_MS))
      .subscribe({
        next: () => this.modal.close(),
        error: (error: unknown) => {
          if (isAway(error)) void this.keep(call);
          else this.problem.set(problemText(error));
        },
      });
  }

  /** No server answers: it goes on this device's board, and to the server when there is one. */
  private async keep(call: NewCallEntry): Promise<void> {
    const known = this.vehicle();
    const about = known && {
      vehicleId: known.id,
      vehicleName: vehicleWord(known),
      modelId: known.modelId,
    };
    await this.errands.keep(callErrand(call, about, new Date().toISOString()));
    this.modal.close();
  }
}
