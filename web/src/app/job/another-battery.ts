import { ChangeDetectionStrategy, Component, computed, inject, Injectable, signal } from '@angular/core';
import { NgbActiveModal, NgbModal } from '@ng-bootstrap/ng-bootstrap/modal';
import { Store } from '@ngrx/store';
import { selectWork } from '../shared/job/job-selectors';
import { Reporter } from '../shared/job/reporter';
import {
  batteryFaults,
  batteryFields,
  batteryValues,
  isSameLabel,
  typedBattery,
} from '../shared/entry/battery-fields';
import { formOf, keptOf } from '../shared/ui/checked-form';
import { Choices } from '../shared/ui/choices';
import { FormFields } from '../shared/ui/form-fields';
import { ratingWords } from '@words/figures';
import { batteryWord } from '@words/words';
import { ANOTHER_BATTERY as T } from '@words/screens/job';

/** Takes what is printed on a battery that is another than the record says: plan, charge and verdict count with it from then on. */
@Component({
  selector: 'vt-another-battery-dialog',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Choices, FormFields],
  template: `
    <form class="sheet" (submit)="$event.preventDefault(); save()">
      <h1 id="another-battery-title">{{ t.title }}</h1>
      @if (batteries().length > 1) {
        <div class="keys" role="radiogroup" [attr.aria-label]="t.which">
          @for (b of batteries(); track $index) {
            <button
              type="button"
              class="key"
              role="radio"
              [attr.aria-checked]="at() === $index"
              (click)="at.set($index)"
            >
              {{ batteryWord($index) }}
            </button>
          }
        </div>
      }
      <p class="dim">{{ t.recorded({ rating: recorded() }) }}</p>
      <vt-form-fields [fields]="fields" [form]="form()" />
      <div class="keys">
        <button type="submit" class="key strong" [disabled]="form().invalid">{{ t.save }}</button>
        <button type="button" class="key" (click)="modal.dismiss()">{{ t.cancel }}</button>
      </div>
    </form>
  `,
})
export class AnotherBatteryDialog {
  protected readonly t = T;

  protected readonly modal = inject(NgbActiveModal);
  private readonly reporter = inject(Reporter);
  private readonly work = inject(Store).selectSignal(selectWork);

  protected readonly batteryWord = batteryWord;
  protected readonly batteries = computed(() => this.work()?.machine.batteries ?? []);
  protected readonly at = signal(0);
  private readonly rating = computed(() => this.batteries()[this.at()]?.rating, { equal: isSameLabel });
  protected readonly recorded = computed(() => {
    const rating = this.rating();
    return rating ? ratingWords(rating) : '';
  });
  protected readonly fields = batteryFields();
  protected readonly form = computed(() =>
    formOf(this.fields, batteryValues(this.rating() ?? {}), batteryFaults),
  );

  protected save(): void {
    if (this.form().invalid) return;
    const { rating, dateMark } = typedBattery(keptOf(this.fields, this.form()));
    this.reporter.report('battery.found', { battery: this.at(), rating, ...(dateMark && { dateMark }) });
    this.modal.close();
  }
}

/** Opens the page where another battery is told. */
@Injectable({ providedIn: 'root' })
export class AnotherBattery {
  private readonly modals = inject(NgbModal);

  open(): void {
    this.modals.open(AnotherBatteryDialog, { ariaLabelledBy: 'another-battery-title', scrollable: true });
  }
}
