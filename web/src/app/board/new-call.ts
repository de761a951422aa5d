import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import type { MachineSummary } from '@voltrek/contracts';
import { outOfRange, TYPED_RANGES } from '@voltrek/core';
import { NgbActiveModal } from '@ng-bootstrap/ng-bootstrap/modal';
import { NgbTypeahead, type NgbTypeaheadSelectItemEvent } from '@ng-bootstrap/ng-bootstrap/typeahead';
import { catchError, debounceTime, map, type Observable, of, type OperatorFunction, switchMap } from 'rxjs';
import { Api } from '../shared/state/api';
import { problemText } from '../shared/state/problem';
import { CLASS_WORDS } from '../shared/words/words';

const SUGGESTIONS = 8;

/** A call typed in by hand. */
@Component({
  selector: 'vt-new-call',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [NgbTypeahead],
  template: `
    <form class="sheet" (submit)="$event.preventDefault(); open()">
      <h1 id="new-call-title">New call</h1>
      <label>
        <span>Vehicle or machine</span>
        <input
          class="field"
          autocomplete="off"
          placeholder="maker, model or class; unknown car"
          [ngbTypeahead]="suggest"
          [inputFormatter]="nameOf"
          [resultFormatter]="rowOf"
          [editable]="false"
          (selectItem)="choose($event)"
          (input)="machine.set(null)"
        />
      </label>
      <label
        ><span>What stands there</span
        ><input
          class="field"
          maxlength="120"
          [value]="title()"
          #titleInput
          (input)="title.set(titleInput.value)"
      /></label>
      <label
        ><span>Place</span
        ><input
          class="field"
          maxlength="120"
          [value]="place()"
          #placeInput
          (input)="place.set(placeInput.value)"
      /></label>
      <label
        ><span>What the driver said</span
        ><input class="field" maxlength="400" [value]="said()" #saidInput (input)="said.set(saidInput.value)"
      /></label>
      <label
        ><span>Air, °C</span
        ><input
          class="field"
          inputmode="numeric"
          maxlength="4"
          [value]="temp()"
          #tempInput
          (input)="temp.set(tempInput.value)"
      /></label>
      @if (problem() ?? fault(); as text) {
        <p class="problem" role="alert">{{ text }}</p>
      }
      <div class="keys">
        <button type="submit" class="key strong" [disabled]="!ready()">Put it on the board</button>
        <button type="button" class="key" (click)="modal.dismiss()">Leave it</button>
      </div>
    </form>
  `,
  styles: `
    .sheet {
      display: grid;
      gap: 12px;
      padding: 24px;
    }
  `,
})
export class NewCall {
  protected readonly modal = inject(NgbActiveModal);
  private readonly api = inject(Api);

  protected readonly machine = signal<MachineSummary | null>(null);
  protected readonly title = signal('');
  protected readonly place = signal('');
  protected readonly said = signal('');
  protected readonly temp = signal('0');
  protected readonly problem = signal<string | null>(null);
  protected readonly fault = computed(() =>
    outOfRange(
      'Air temperature',
      this.temp().trim() === '' ? NaN : Number(this.temp().replace(',', '.')),
      TYPED_RANGES.ambientC,
    ),
  );
  protected readonly ready = computed(
    () => this.machine() !== null && this.place().trim() !== '' && this.fault() === null,
  );

  protected readonly suggest: OperatorFunction<string, readonly MachineSummary[]> = (
    text: Observable<string>,
  ) =>
    text.pipe(
      debounceTime(80),
      switchMap((typed) =>
        this.api.machines(typed).pipe(
          map(({ machines }) => machines.slice(0, SUGGESTIONS)),
          catchError((error: unknown) => {
            this.problem.set(problemText(error));
            return of([]);
          }),
        ),
      ),
    );
  protected readonly nameOf = (machine: MachineSummary): string => `${machine.maker} ${machine.model}`;
  protected readonly rowOf = (machine: MachineSummary): string =>
    `${machine.maker} ${machine.model}, ${CLASS_WORDS[machine.machineClass]}`;

  protected choose({ item }: NgbTypeaheadSelectItemEvent<MachineSummary>): void {
    this.machine.set(item);
  }

  protected open(): void {
    const machine = this.machine();
    if (!machine || !this.ready()) return;
    const call = {
      id: crypto.randomUUID(),
      title: this.title().trim() || this.nameOf(machine),
      placeName: this.place().trim(),
      said: this.said().trim(),
      modelId: machine.id,
      ambientC: Number(this.temp().replace(',', '.')),
      urgent: false,
    };
    this.api.openCall(call).subscribe({
      next: () => this.modal.close(),
      error: (error: unknown) => this.problem.set(problemText(error)),
    });
  }
}
