import { degrees } from '@words/units';
import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { RouterLink } from '@angular/router';
import { type BatteryRecord, MOVE_NOTES, type NewBatteryMove } from '@voltrek/contracts';
import type { BatteryEntry } from '@voltrek/core/job';
import { dateText } from '../shared/model/dates';
import { Store } from '@ngrx/store';
import { tap } from 'rxjs';
import { Api } from '../shared/data/api';
import { kitCopy } from '../shared/data/kit';
import { loaded } from '../shared/data/loaded';
import { crewCopy } from '../shared/data/crew';
import { sessionFeature } from '../shared/data/session';
import { Chart } from '../shared/ui/chart';
import type { ChartColours } from '../shared/ui/colours';
import { BATTERY_STATE_WORDS, MOVE_WORDS } from '@words/crew-words';
import { nameOf, percent, ratingWords, vehicleName, volts } from '@words/figures';
import { batteryChart, batterySummary, trendOf } from './battery-trend';
import { type Fit, FitInto } from './fit-into';
import { DAY_MS } from '@voltrek/core/quantities';
import { When } from '../shared/ui/when';
import { messagesOf } from '@words/messages-of';
import { BATTERY_PAGE as T } from '@words/screens/battery';

const ENTRY_WORDS: Record<BatteryEntry['kind'], string> = messagesOf('batteryEntry');

/** A note on a move: of the house itself in the language of the screen, else as it was written. */
function noteOf(note: string): string {
  if (note === MOVE_NOTES.isNew) return T.isNew;
  return note === MOVE_NOTES.isPromised ? T.isPromised : note;
}

/**
 * The record of one battery, whatever it sat in: its readings over time, the trend, its places and its next act. The page tells when it
 * falls below its machine's need.
 */
@Component({
  selector: 'vt-battery-page',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Chart, FitInto, RouterLink, When],
  host: { class: 'page', tabindex: '0' },
  template: `
    @if (problem(); as text) {
      <p class="problem" role="alert">{{ text }}</p>
    }
    @if (record(); as r) {
      <header>
        <h1>{{ t.battery({ code: r.battery.code }) }}</h1>
        <span
          >{{ rating(r.battery.rating) }}{{ r.battery.dateMark ? t.marked + r.battery.dateMark : '' }}</span
        >
        <span class="dim">
          @if (r.battery.vehicleId; as vehicle) {
            {{ t.inWord }}
            <a [routerLink]="['/vehicle', vehicle]">{{ nameOfVehicle(r.vehicle) ?? t.noPlate }}</a>
          } @else {
            {{ r.battery.vanId ? vanName(r.battery.vanId) : stateWords[r.battery.state] }}
          }
        </span>
      </header>
      @if (r.battery.state !== 'scrapped') {
        <div class="keys acts">
          @if (r.battery.state === 'fitted') {
            <button type="button" class="key" (click)="move('taken-out')">{{ t.takeOut }}</button>
          } @else {
            <button type="button" class="key" (click)="move('charged')">{{ t.charge }}</button>
            @for (van of vans(); track van.id) {
              @if (van.id !== r.battery.vanId) {
                <button type="button" class="key" (click)="move('to-van', van.id)">
                  {{ t.on({ name: van.name }) }}
                </button>
              }
            }
            <button
              type="button"
              class="key"
              (click)="fitting.set(!fitting())"
              [attr.aria-pressed]="fitting()"
            >
              {{ t.fit }}
            </button>
            <button type="button" class="key" (click)="move('scrapped')">{{ t.scrapped }}</button>
          }
        </div>
      }
      @if (fitting()) {
        <vt-fit-into (chosen)="fit($event)" />
      }
      <p class="told">{{ outlook() }}</p>
      @if (hasFigures()) {
        <div class="chart"><vt-chart [draw]="draw()" [summary]="summary()" /></div>
        <p class="dim">
          {{
            t.chartLegend({
              need: r.needShare === null ? '' : t.needLine,
            })
          }}
        </p>
      }
      <div class="lists">
        <section aria-labelledby="learnt">
          <h2 id="learnt">{{ t.entriesTitle }}</h2>
          <ul class="ruled">
            @for (e of newestFirst(); track $index) {
              <li>
                <a class="row" [routerLink]="['/job', e.jobId, 'measure']">
                  <span class="dim">{{ e.at | when: 'date' }}</span>
                  <span>{{ entryWords[e.kind] }}</span>
                  <strong>{{ valueOf(e) }}</strong>
                </a>
              </li>
            } @empty {
              <li class="dim">{{ t.noEntries }}</li>
            }
          </ul>
        </section>
        <section aria-labelledby="moves">
          <h2 id="moves">{{ t.movesTitle }}</h2>
          <ul class="ruled">
            @for (m of movesBack(); track $index) {
              <li class="row">
                <span class="dim">{{ m.at | when: 'date' }}</span>
                <span
                  >{{ moveWords[m.kind] }}{{ nameOfVehicle(m.vehicle) ? ', ' + nameOfVehicle(m.vehicle) : ''
                  }}{{ m.vanId ? ', ' + vanName(m.vanId) : ''
                  }}{{ m.note ? ': ' + noteOf(m.note) : '' }}</span
                >
                <span class="dim">{{ crewName(m.by) }}</span>
              </li>
            }
          </ul>
        </section>
      </div>
    } @else if (!problem()) {
      <p class="dim" role="status">{{ t.loading }}</p>
    }
  `,
  styles: `
    @use 'media';

    .keys {
      margin-bottom: 10px;
    }
    .told {
      font-size: var(--text-l);
      font-weight: 700;
      line-height: 1.25;
    }
    .chart {
      height: 400px;
      margin: 10px 0 16px;
    }
    .acts {
      margin-bottom: 12px;
    }
    .lists {
      display: grid;
      grid-template-columns: repeat(2, minmax(0, 1fr));
      gap: 28px;
      margin-top: 22px;
    }
    header a {
      color: inherit;
    }
    .row {
      display: grid;
      grid-template-columns: 112px minmax(0, 1fr) auto;
      gap: 14px;
      align-items: center;
      min-height: 48px;
      color: inherit;
      text-decoration: none;
    }
    .row:hover {
      background: var(--sheet);
    }
    .row strong {
      text-align: right;
    }
    @include media.phone {
      .lists {
        grid-template-columns: 1fr;
      }
      .row {
        grid-template-columns: 96px minmax(0, 1fr) auto;
      }
      .chart {
        height: 320px;
      }
    }
  `,
})
export class BatteryPage {
  protected readonly t = T;
  protected readonly noteOf = noteOf;
  protected readonly nameOfVehicle = vehicleName;

  /** Its id, or the code on its label. */
  readonly batteryId = input.required<string>();

  private readonly api = inject(Api);
  private readonly store = inject(Store);
  private readonly crewId = this.store.selectSignal(sessionFeature.selectCrewId);
  private readonly crew = this.store.selectSignal(crewCopy.selectCopy);
  private readonly allVans = this.store.selectSignal(kitCopy.selectCopy);
  protected readonly vans = computed(() => this.allVans().filter((v) => !v.retired));

  protected readonly entryWords = ENTRY_WORDS;
  protected readonly moveWords = MOVE_WORDS;
  protected readonly stateWords = BATTERY_STATE_WORDS;
  protected readonly rating = ratingWords;
  private readonly battery = loaded<string, BatteryRecord | null>(
    () => this.batteryId(),
    (named) => this.api.battery(named),
    null,
  );
  protected readonly record = this.battery.value;
  protected readonly problem = this.battery.problem;
  protected readonly fitting = signal(false);
  private readonly trend = computed(() => {
    const record = this.record();
    return record ? trendOf(record, record.needShare) : null;
  });
  protected readonly draw = computed(() => {
    const record = this.record()!;
    const trend = this.trend();
    return (colours: ChartColours) => batteryChart(record, record.needShare, trend, colours);
  });
  protected readonly summary = computed(() => batterySummary(this.record()!, this.trend()));
  protected readonly hasFigures = computed(
    () => this.record()?.entries.some((e) => e.volts !== null || e.share !== null) ?? false,
  );
  protected readonly newestFirst = computed(() => [...(this.record()?.entries ?? [])].reverse());
  protected readonly movesBack = computed(() => [...(this.record()?.moves ?? [])].reverse());
  /** When it falls under what its machine needs, with its doubt. */
  protected readonly outlook = computed(() => {
    const trend = this.trend();
    const { needShare, coldC } = this.record()!;
    if (!trend) return T.noTrend;
    const now = trend.at(Date.now() / DAY_MS).share;
    const first = T.trendNow({
      now: percent(Math.max(0, now)),
      perYear: percent(Math.abs(trend.perYear)),
      direction: trend.perYear < 0 ? 'less' : 'more',
    });
    if (needShare === null || coldC === null) return first;
    const need = T.trendNeed({ needShare: percent(needShare), coldC: degrees(coldC) });
    const { day, earliest, latest } = trend.fallsBelow;
    const month = (d: number): string => dateText(d * DAY_MS, 'month');
    if (needShare >= 1) return T.trendNever({ first, coldC: degrees(coldC) });
    if (now < needShare) return T.trendBelow({ first, need });
    if (day === null) return T.trendStays({ first, need });
    const sooner = earliest === null ? '' : T.asSoonAs({ earliest: month(earliest) });
    const later = latest === null ? T.muchLater : T.asLateAs({ latest: month(latest) });
    return T.trendFalls({ first, need, day: month(day), sooner, later });
  });

  constructor() {
    this.store.dispatch(kitCopy.requested());
  }

  protected vanName(id: string): string {
    return nameOf(this.allVans(), id);
  }

  protected crewName(id: string): string {
    return nameOf(this.crew(), id);
  }

  protected move(kind: NewBatteryMove['kind'], vanId: string | null = null): void {
    this.put({ kind, by: this.crewId(), vehicleId: null, place: null, vanId, note: '' });
  }

  protected fit({ vehicleId, place }: Fit): void {
    this.put({ kind: 'fitted', by: this.crewId(), vehicleId, place, vanId: null, note: '' });
  }

  protected valueOf({ volts: read, share }: BatteryEntry): string {
    if (read !== null) return volts(read);
    return share === null ? '' : percent(share);
  }

  private put(move: NewBatteryMove): void {
    const moved = this.api.moveBattery(this.record()!.battery.id, move);
    this.battery.change(moved.pipe(tap(() => this.fitting.set(false))));
  }
}
