import { vehicleModelName } from '@words/model-name';
import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { RouterLink } from '@angular/router';
import type { JobSummary, VehicleEntry, VehicleRecord } from '@voltrek/contracts';
import { FOLLOW_UP_WORDS } from '@words/follow-up-words';
import { NgbModal } from '@ng-bootstrap/ng-bootstrap/modal';
import { Store } from '@ngrx/store';
import { switchMap } from 'rxjs';
import { Api } from '../shared/data/api';
import { loaded } from '../shared/data/loaded';
import { sessionFeature } from '../shared/data/session';
import { ratingWords, vehicleWord, volts } from '@words/figures';
import { VERDICT_WORDS } from '@words/verdict-words';
import { VehicleDialog } from './vehicle-dialog';
import { RecordList, RecordRow } from '../shared/ui/record-list';
import { When } from '../shared/ui/when';
import { VEHICLE_PAGE as T } from '@words/screens/vehicles';

/** One vehicle: whose it is, what batteries sit in it, every visit, and what is still promised. */
@Component({
  selector: 'vt-vehicle-page',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [RecordList, RecordRow, RouterLink, When],
  host: { class: 'page', tabindex: '0' },
  template: `
    @if (problem(); as text) {
      <p class="problem" role="alert">{{ text }}</p>
    }
    @if (record(); as r) {
      <header>
        <h1>{{ word(r.vehicle) }}</h1>
        <span>{{ modelWord(r.vehicle) }}</span>
        <button type="button" class="key change" (click)="change(r)">{{ t.change }}</button>
      </header>
      <dl>
        <dt>{{ t.owner }}</dt>
        <dd>
          @if (r.owner?.erasedAt) {
            <span class="dim">{{ t.forgotten({ erasedAt: r.owner!.erasedAt | when: 'date' }) }}</span>
          } @else if (r.owner; as o) {
            {{ o.name }}{{ o.phone ? ', ' + o.phone : '' }}
            <a class="key" [href]="'/api/people/' + o.id + '/export'" download>{{ t.ownerTitle }}</a>
            <button type="button" class="key" [class.armed]="forgetting()" (click)="forget(o.id)">
              {{ forgetting() ? t.forgetText : t.forgetThem }}
            </button>
          } @else {
            <span class="dim">{{ t.notKnown }}</span>
          }
        </dd>
        @if (r.vehicle.plate && (r.vehicle.fleetNumber || r.vehicle.serialNumber)) {
          <dt>{{ t.numbers }}</dt>
          <dd>
            {{ r.vehicle.fleetNumber ? t.fleet + r.vehicle.fleetNumber : '' }}
            {{ r.vehicle.serialNumber ?? '' }}
          </dd>
        }
        @if (r.vehicle.notes) {
          <dt>{{ t.notes }}</dt>
          <dd>{{ r.vehicle.notes }}</dd>
        }
        <dt>{{ t.batteries }}</dt>
        <dd>
          <ul>
            @for (b of r.batteries; track b.id) {
              <li>
                <a class="key" [routerLink]="['/battery', b.id]">
                  {{ r.batteries.length > 1 ? t.battery + (b.place! + 1) + ', ' : '' }}{{ b.code }}
                </a>

                {{
                  t.inSince({
                    rating: rating(b.rating),
                    dateMark: b.dateMark ? t.marked + b.dateMark : '',
                    since: b.since | when: 'date',
                  })
                }}
              </li>
            } @empty {
              <li class="dim">{{ t.noBatteries }}</li>
            }
          </ul>
        </dd>
        @if (r.followUps.length > 0) {
          <dt>{{ t.promised }}</dt>
          <dd>
            @for (f of r.followUps; track $index) {
              <span class="due">{{ followUpWords[f.kind] }}: {{ f.dueOn | when: 'date' }}</span>
            }
          </dd>
        }
      </dl>
      <h2>{{ t.visits }}</h2>
      <vt-record-list [link]="linkOf" [none]="t.noVisits">
        <ng-template [vtRow]="r.visits" let-job>
          <span class="number">{{ job.callNumber }}</span>
          <span>{{ job.openedAt | when: 'dateTime' }}</span>
          <span class="where"
            ><strong>{{ job.title }}</strong> <span class="dim">{{ job.placeName }}</span></span
          >
          <span class="rest">{{ job.lowestRestVolts === null ? '' : volts(job.lowestRestVolts) }}</span>
          <strong class="found">{{ job.verdict ? verdictWords[job.verdict].name : t.underWay }}</strong>
        </ng-template>
      </vt-record-list>
    } @else if (!problem()) {
      <p class="dim" role="status">{{ t.loading }}</p>
    }
  `,
  styles: `
    @use 'media';

    .change {
      margin-left: auto;
    }
    dl {
      display: grid;
      grid-template-columns: 110px 1fr;
      gap: 8px 16px;
      align-items: baseline;
      margin-bottom: 20px;
    }
    dt {
      color: var(--dim);
      font-weight: 600;
    }
    dd {
      margin: 0;
    }
    dd li {
      padding: 3px 0;
    }
    dd .key {
      display: inline-grid;
      place-items: center;
      margin-right: 8px;
      color: inherit;
      text-decoration: none;
    }
    .key.armed {
      border-color: var(--bad);
      color: var(--bad);
    }
    .due {
      display: block;
    }
    vt-record-list {
      --columns: 48px 170px 1fr 90px 190px;
    }
    .number {
      font-weight: 700;
      text-align: right;
    }
    @include media.phone {
      dl {
        grid-template-columns: 1fr;
        gap: 2px;
      }
      dt {
        margin-top: 8px;
      }
      vt-record-list {
        --columns: 44px 1fr auto;
      }
      .number {
        grid-row: span 3;
        align-self: start;
      }
      .where,
      .found {
        grid-column: 2 / -1;
      }
      .rest {
        grid-area: 1 / 3;
      }
    }
  `,
})
export class VehiclePage {
  protected readonly t = T;

  readonly vehicleId = input.required<string>();

  private readonly api = inject(Api);
  private readonly modals = inject(NgbModal);
  private readonly crewId = inject(Store).selectSignal(sessionFeature.selectCrewId);
  private readonly vehicle = loaded<string, VehicleRecord | null>(
    () => this.vehicleId(),
    (id) => this.api.vehicle(id),
    null,
  );
  protected readonly record = this.vehicle.value;
  protected readonly problem = this.vehicle.problem;
  /** The person that a second tap forgets. */
  private readonly asked = signal<string | null>(null);
  protected readonly forgetting = computed(() => this.asked() === this.record()?.owner?.id);
  protected readonly word = vehicleWord;
  protected readonly modelWord = vehicleModelName;
  protected readonly rating = ratingWords;
  protected readonly volts = volts;
  protected readonly verdictWords = VERDICT_WORDS;
  protected readonly followUpWords = FOLLOW_UP_WORDS;

  protected readonly linkOf = ({ id }: JobSummary): readonly string[] => ['/job', id];

  protected change(record: VehicleRecord): void {
    const dialog = this.modals.open(VehicleDialog, { ariaLabelledBy: 'vehicle-title', centered: true });
    (dialog.componentInstance as VehicleDialog).open(record);
    dialog.result.then(
      (entry: VehicleEntry) =>
        this.vehicle.change(
          this.api.changeVehicle(record.vehicle.id, entry, record.vehicle.revision, this.crewId()),
        ),
      () => undefined,
    );
  }

  /** Asks once, since it cannot be taken back; the second tap does it. */
  protected forget(personId: string): void {
    if (!this.forgetting()) {
      this.asked.set(personId);
      return;
    }
    this.asked.set(null);
    const after = this.api.erasePerson(personId, this.crewId());
    this.vehicle.change(after.pipe(switchMap(() => this.api.vehicle(this.vehicleId()))));
  }
}
