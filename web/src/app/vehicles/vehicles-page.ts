import { ChangeDetectionStrategy, Component, inject, signal } from '@angular/core';
import { Router, RouterLink } from '@angular/router';
import type { VehicleEntry, VehicleSummary } from '@voltrek/contracts';
import { NgbModal } from '@ng-bootstrap/ng-bootstrap/modal';
import { Api } from '../shared/data/api';
import { problemText } from '../shared/data/problem';
import { vehicleWord } from '@words/figures';
import { VehicleDialog } from './vehicle-dialog';
import { VEHICLES_PAGE as T } from '@words/screens/vehicles';

/** The vehicles of the house: found by plate, fleet or serial number, maker or model. */
@Component({
  selector: 'vt-vehicles-page',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [RouterLink],
  host: { class: 'page', tabindex: '0' },
  template: `
    <header>
      <h1>{{ t.vehicles }}</h1>
      <a class="key add" routerLink="/files">{{ t.files }}</a>
      <button type="button" class="key strong" (click)="add()">{{ t.newVehicle }}</button>
    </header>
    <input
      type="search"
      class="field"
      [attr.aria-label]="t.searchVehicles"
      [placeholder]="t.plateFleetOrSerialNumberMaker"
      [value]="typed()"
      #text
      (input)="search(text.value)"
    />
    @if (problem(); as words) {
      <p class="problem" role="alert">{{ words }}</p>
    }
    <ul class="ruled">
      @for (v of vehicles(); track v.id) {
        <li>
          <a [routerLink]="['/vehicle', v.id]">
            <strong>{{ word(v) }}</strong>
            <span>{{ v.modelName }}</span>
            <span class="dim">{{ v.notes }}</span>
          </a>
        </li>
      } @empty {
        <li class="dim none">{{ t.noVehicleIsKnownByThat }}</li>
      }
    </ul>
  `,
  styles: `
    @use 'media';

    .add {
      margin-left: auto;
    }
    ul {
      margin-top: 12px;
    }
    li a {
      display: grid;
      grid-template-columns: 180px 300px 1fr;
      align-items: center;
      gap: 16px;
      min-height: 48px;
      color: inherit;
      text-decoration: none;
    }
    li a:hover {
      background: var(--sheet);
    }
    .none {
      padding: 20px 0;
    }
    @include media.phone {
      li a {
        grid-template-columns: 1fr;
        gap: 0;
        padding: 6px 0;
      }
    }
  `,
})
export class VehiclesPage {
  protected readonly t = T;

  private readonly api = inject(Api);
  private readonly router = inject(Router);
  private readonly modals = inject(NgbModal);
  protected readonly vehicles = signal<readonly VehicleSummary[]>([]);
  protected readonly typed = signal('');
  protected readonly problem = signal<string | null>(null);
  protected readonly word = vehicleWord;

  constructor() {
    this.search('');
  }

  protected search(text: string): void {
    this.typed.set(text);
    this.api.vehicles(text).subscribe({
      next: (found) => {
        // An answer that was overtaken by further typing is old.
        if (this.typed() === text) this.vehicles.set(found);
        this.problem.set(null);
      },
      error: (error: unknown) => this.problem.set(problemText(error)),
    });
  }

  protected add(): void {
    const dialog = this.modals.open(VehicleDialog, { ariaLabelledBy: 'vehicle-title', centered: true });
    dialog.result.then(
      (entry: VehicleEntry) =>
        this.api.addVehicle(entry).subscribe({
          next: ({ id }) => void this.router.navigate(['/vehicle', id]),
          error: (error: unknown) => this.problem.set(problemText(error)),
        }),
      () => undefined,
    );
  }
}
