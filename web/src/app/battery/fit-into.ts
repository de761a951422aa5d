import { vehicleModelName } from '@words/model-name';
import { ChangeDetectionStrategy, Component, computed, inject, output, signal } from '@angular/core';
import { Api } from '../shared/data/api';
import { loaded } from '../shared/data/loaded';
import { vehicleWord } from '@words/figures';
import { batteryWord } from '@words/words';
import { FIT_INTO as T } from '@words/screens/battery';

/** The place that a battery was fitted into. */
export interface Fit {
  readonly vehicleId: string;
  readonly place: number;
}

/** So many of the vehicles found are offered. */
const SHOWN = 5;

/** Finds a vehicle by its plate or number, and the place in it. */
@Component({
  selector: 'vt-fit-into',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <label
      ><span>{{ t.vehicleLabel }}</span
      ><input
        class="field"
        autocomplete="off"
        maxlength="40"
        [value]="typed()"
        #text
        (input)="typed.set(text.value)"
    /></label>
    @if (problem(); as words) {
      <p class="problem" role="alert">{{ words }}</p>
    }
    <ul class="ruled">
      @for (v of found(); track v.id) {
        <li>
          <strong>{{ word(v) }}</strong>
          <span>{{ modelWord(v) }}</span>
          @for (place of places; track place) {
            <button type="button" class="key" (click)="chosen.emit({ vehicleId: v.id, place })">
              {{ t.as({ place: placeWord(place) }) }}
            </button>
          }
        </li>
      }
    </ul>
  `,
  styles: `
    :host {
      display: block;
      max-width: 860px;
      margin-bottom: 16px;
    }
    li {
      display: grid;
      grid-template-columns: 150px 1fr auto auto;
      align-items: center;
      gap: 12px;
      padding: 4px 0;
    }
  `,
})
export class FitInto {
  protected readonly t = T;

  readonly chosen = output<Fit>();

  private readonly api = inject(Api);
  protected readonly typed = signal('');
  private readonly vehicles = loaded(
    () => this.typed().trim() || undefined,
    (typed) => this.api.vehicles(typed),
    [],
  );
  protected readonly found = computed(() =>
    this.typed().trim() ? this.vehicles.value().slice(0, SHOWN) : [],
  );
  protected readonly problem = this.vehicles.problem;
  protected readonly word = vehicleWord;
  protected readonly modelWord = vehicleModelName;
  protected readonly placeWord = batteryWord;
  /** A string has two; the server refuses a place that a vehicle does not have. */
  protected readonly places = [0, 1] as const;
}
