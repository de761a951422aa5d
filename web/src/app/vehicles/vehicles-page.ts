import { vehicleModelName } from '@words/model-name';
import { ChangeDetectionStrategy, Component, inject, signal } from '@angular/core';
import { Router, RouterLink } from '@angular/router';
import type { VehicleEntry, VehicleSummary } from '@voltrek/contracts';
import { NgbModal } from '@ng-bootstrap/ng-bootstrap/modal';
import { Api } from '../shared/data/api';
import { loaded } from '../shared/data/loaded';
import { problemText } from '../shared/data/problem';
import { RecordList, RecordRow } from '../shared/ui/record-list';
import { vehicleWord } from '@words/figures';
import { VehicleDialog } from './vehicle-dialog';
import { VEHICLES_PAGE as T } from '@words/screens/vehicles';

/** The vehicles of the house: found by plate, fleet or serial number, maker or model. */
@Component({
  selector: 'vt-vehicles-page',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [RecordList, RecordRow, RouterLink],
  host: { class: 'page', tabindex: '0' },
  template: `
    <header>
      <h1>{{ t.vehicles }}</h1>
      <a class="key add" routerLink="/watch">{{ t.watch }}</a>
      <a class="key" routerLink="/files">{{ t.files }}</a>
      <button type="button" class="key strong" (click)="add()">{{ t.newVehicle }}</button>
    </header>
    <input
      type="search"
      class="field"
      [attr.aria-label]="t.searchLabel"
      [placeholder]="t.searchHint"
      [value]="typed()"
      #text
      (input)="typed.set(text.value)"
    />
    @if (problem(); as words) {
      <p class="problem" role="alert">{{ words }}</p>
    }
    <vt-record-list [link]="linkOf" [none]="isReady() ? t.empty : null">
      <ng-template [vtRow]="vehicles()" let-v>
        <strong>{{ word(v) }}</strong>
        <span>{{ modelWord(v) }}</span>
        <span class="dim">{{ v.notes }}</span>
      </ng-template>
    </vt-record-list>
  `,
  styles: `
    @use 'media';

    .add {
      margin-left: auto;
    }
    vt-record-list {
      --columns: 180px 300px 1fr;
      margin-top: 12px;
    }
    @include media.phone {
      vt-record-list {
        --columns: 1fr;
      }
    }
  `,
})
export class VehiclesPage {
  protected readonly t = T;

  private readonly api = inject(Api);
  private readonly router = inject(Router);
  private readonly modals = inject(NgbModal);
  protected readonly typed = signal('');
  private readonly found = loaded(
    () => this.typed(),
    (typed) => this.api.vehicles(typed),
    [],
  );
  protected readonly vehicles = this.found.value;
  protected readonly isReady = this.found.isReady;
  protected readonly problem = this.found.problem;
  protected readonly word = vehicleWord;
  protected readonly modelWord = vehicleModelName;
  protected readonly linkOf = ({ id }: VehicleSummary): readonly string[] => ['/vehicle', id];

  protected add(): void {
    const dialog = this.modals.open(VehicleDialog, { ariaLabelledBy: 'vehicle-title', centered: true });
    dialog.result.then(
      (entry: VehicleEntry) =>
        this.api.addVehicle(entry).subscribe({
          next: ({ id }) => void this.router.navigate(['/vehicle', id]),
          error: (error: unknown) => this.found.tell(problemText(error)),
        }),
      () => undefined,
    );
  }
}
