import { degrees } from '../shared/words/units';
import { DatePipe } from '@angular/common';
import { ChangeDetectionStrategy, Component, computed, effect, inject, input, signal } from '@angular/core';
import { RouterLink } from '@angular/router';
import type { BatteryRecord, NewBatteryMove } from '@voltrek/contracts';
import type { BatteryEntry } from '@voltrek/core/job';
import { format } from 'date-fns';
import { Store } from '@ngrx/store';
import type { Observable } from 'rxjs';
import { Api } from '../shared/state/api';
import { KitActions, kitFeature } from '../shared/state/kit';
import { problemText } from '../shared/state/problem';
import { sessionFeature } from '../shared/state/session';
import { Chart, type ChartColours } from '../shared/ui/chart';
import { BATTERY_STATE_WORDS, MOVE_WORDS } from '../shared/words/crew-words';
import { nameOf, percent, ratingWords, volts } from '../shared/words/figures';
import { batteryChart, batterySummary, trendOf } from './battery-trend';
import { type Fit, FitInto } from './fit-into';
import { DAY_MS } from '@voltrek/core/quantities';

const MONTH = 'MMM yyyy';
const ENTRY_WORDS: Record<BatteryEntry['kind'], string> = {
  rest: 'rest volts',
  strength: 'strength, of its rating',
  jump: 'started with help',
  replaced: 'fitted here',
};

/**
 * The record of one battery, whatever it sat in: what was read over time, the trend, when it falls under what its machine needs in the
 * cold, where it has been, and what is done with it next.
 */
@Component({
  selector: 'vt-battery-page',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Chart, DatePipe, FitInto, RouterLink],
  host: { class: 'page', tabindex: '0' },
  template: `
    @if (problem(); as text) {
      <p class="problem" role="alert">{{ text }}</p>
    }
    @if (record(); as r) {
      <header>
        <h1>Battery {{ r.battery.code }}</h1>
        <span
          >{{ rating(r.battery.rating)
          }}{{ r.battery.dateMark ? ', marked ' + r.battery.dateMark : '' }}</span
        >
        <span class="dim">
          @if (r.battery.vehicleId; as vehicle) {
            in <a [routerLink]="['/vehicle', vehicle]">{{ r.vehicleName ?? 'a vehicle without a plate' }}</a>
          } @else {
            {{ r.battery.vanId ? vanName(r.battery.vanId) : stateWords[r.battery.state] }}
          }
        </span>
      </header>
      @if (r.battery.state !== 'scrapped') {
        <div class="keys acts">
          @if (r.battery.state === 'fitted') {
            <button type="button" class="key" (click)="move('taken-out')">Taken out, to the depot</button>
          } @else {
            <button type="button" class="key" (click)="move('charged')">Charged at the depot</button>
            @for (van of vans(); track van.id) {
              @if (van.id !== r.battery.vanId) {
                <button type="button" class="key" (click)="move('to-van', van.id)">On {{ van.name }}</button>
              }
            }
            <button
              type="button"
              class="key"
              (click)="fitting.set(!fitting())"
              [attr.aria-pressed]="fitting()"
            >
              Fitted into a vehicle
            </button>
            <button type="button" class="key" (click)="move('scrapped')">Scrapped</button>
          }
        </div>
      }
      @if (fitting()) {
        <vt-fit-into (chosen)="fit($event)" />
      }
      <p class="told">{{ told() }}</p>
      @if (hasFigures()) {
        <div class="chart"><vt-chart [draw]="draw()" [summary]="summary()" /></div>
        <p class="dim">
          Dashed: four in five batteries would lie between.
          {{ r.needShare === null ? '' : 'Dotted: what the machine it sits in needs.' }} Upright: it had to be
          helped.
        </p>
      }
      <div class="lists">
        <section aria-labelledby="learnt">
          <h2 id="learnt">What jobs learnt</h2>
          <ul class="ruled">
            @for (e of newestFirst(); track $index) {
              <li>
                <a class="row" [routerLink]="['/job', e.jobId, 'measure']">
                  <span class="dim">{{ e.at | date: 'd MMM y' }}</span>
                  <span>{{ entryWords[e.kind] }}</span>
                  <strong>{{ valueOf(e) }}</strong>
                </a>
              </li>
            } @empty {
              <li class="dim">Nothing has been read of it yet.</li>
            }
          </ul>
        </section>
        <section aria-labelledby="moves">
          <h2 id="moves">Where it has been</h2>
          <ul class="ruled">
            @for (m of movesBack(); track $index) {
              <li class="row">
                <span class="dim">{{ m.at | date: 'd MMM y' }}</span>
                <span
                  >{{ moveWords[m.kind] }}{{ m.vehicleName ? ', ' + m.vehicleName : ''
                  }}{{ m.vanId ? ', ' + vanName(m.vanId) : '' }}{{ m.note ? ': ' + m.note : '' }}</span
                >
                <span class="dim">{{ crewName(m.by) }}</span>
              </li>
            }
          </ul>
        </section>
      </div>
    } @else if (!problem()) {
      <p class="dim" role="status">Reading the record.</p>
    }
  `,
  styles: `
    .keys {
      margin-bottom: 10px;
    }
    .told {
      font-size: 20px;
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
    @media (max-width: 720px) {
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
  /** Its id, or the code on its label. */
  readonly batteryId = input.required<string>();

  private readonly api = inject(Api);
  private readonly store = inject(Store);
  private readonly crewId = this.store.selectSignal(sessionFeature.selectCrewId);
  private readonly crew = this.store.selectSignal(sessionFeature.selectCrew);
  private readonly allVans = this.store.selectSignal(kitFeature.selectVans);
  protected readonly vans = computed(() => this.allVans().filter((v) => !v.retired));

  protected readonly entryWords = ENTRY_WORDS;
  protected readonly moveWords = MOVE_WORDS;
  protected readonly stateWords = BATTERY_STATE_WORDS;
  protected readonly rating = ratingWords;
  protected readonly record = signal<BatteryRecord | null>(null);
  protected readonly problem = signal<string | null>(null);
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
  protected readonly told = computed(() => {
    const trend = this.trend();
    const { needShare, coldC } = this.record()!;
    if (!trend) return 'Test it once, and its trend begins.';
    const now = trend.at(Date.now() / DAY_MS).share;
    const first = `About ${percent(Math.max(0, now))} now, ${percent(Math.abs(trend.perYear))} ${trend.perYear < 0 ? 'less' : 'more'} a year.`;
    if (needShare === null || coldC === null) return first;
    const need = `${percent(needShare)} that its machine needs at ${degrees(coldC)}`;
    const { day, earliest, latest } = trend.fallsBelow;
    const month = (d: number): string => format(new Date(d * DAY_MS), MONTH);
    if (needShare >= 1)
      return `${first} At ${degrees(coldC)} the figures start this machine on no battery alone: watch the trend.`;
    if (now < needShare) return `${first} That is under the ${need}: replace it before the cold.`;
    if (day === null) return `${first} It stays over the ${need} as far as can be seen.`;
    const sooner = earliest === null ? '' : ` as soon as ${month(earliest)}`;
    const later = latest === null ? ', perhaps much later' : `, as late as ${month(latest)}`;
    return `${first} Falls under the ${need} about ${month(day)};${sooner}${later}.`;
  });

  constructor() {
    this.store.dispatch(KitActions.opened());
    effect(() => this.take(this.api.battery(this.batteryId())));
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
    this.take(this.api.moveBattery(this.record()!.battery.id, move));
  }

  private take(asked: Observable<BatteryRecord>): void {
    asked.subscribe({
      next: (record) => {
        this.record.set(record);
        this.fitting.set(false);
        this.problem.set(null);
      },
      error: (error: unknown) => this.problem.set(problemText(error)),
    });
  }
}
