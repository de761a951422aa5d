import { DatePipe } from '@angular/common';
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  input,
  linkedSignal,
  signal,
} from '@angular/core';
import { RouterLink } from '@angular/router';
import type { BatteryLife, BatteryRecord } from '@voltrek/contracts';
import type { BatteryEntry } from '@voltrek/core';
import { format } from 'date-fns';
import { Api } from '../shared/state/api';
import { problemText } from '../shared/state/problem';
import { Chart, type ChartColours } from '../shared/ui/chart';
import { percent, volts } from '../shared/words/figures';
import { CHEMISTRY_WORDS } from '../shared/words/plan-words';
import { batteryChart, batterySummary, trendOf } from './battery-trend';

const DAY_MS = 86_400_000;
const MONTH = 'MMM yyyy';
const ENTRY_WORDS: Record<BatteryEntry['kind'], string> = {
  rest: 'rest volts',
  strength: 'strength, of its rating',
  jump: 'started with help',
  replaced: 'fitted here',
};

/** The record of a machine's batteries: what was read over time, the trend, and when it falls under what the machine needs in the cold. */
@Component({
  selector: 'vt-battery-page',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Chart, DatePipe, RouterLink],
  host: { class: 'page', tabindex: '0' },
  template: `
    @if (problem(); as text) {
      <p class="problem" role="alert">{{ text }}</p>
    }
    @if (record(); as r) {
      <header>
        <h1>Battery record</h1>
        <span>{{ r.machine.maker }} {{ r.machine.model }}</span>
        @if (life(); as l) {
          <span class="dim"
            >{{ chemistryWords[l.rating.chemistry] }} {{ l.rating.capacityAh }} Ah, {{ l.rating.ccaAmps }} A
            {{ l.rating.ccaStandard }}, {{ r.machine.batteries[l.battery]!.place }}</span
          >
        }
      </header>
      @if (r.batteries.length > 1) {
        <div class="keys" role="radiogroup" aria-label="Which battery">
          @for (l of r.batteries; track l.id) {
            <button
              type="button"
              class="key"
              role="radio"
              [attr.aria-checked]="l.id === lifeId()"
              (click)="lifeId.set(l.id)"
            >
              {{ nameOf(l) }}
            </button>
          }
        </div>
      }
      @if (life(); as l) {
        <p class="told">{{ told() }}</p>
        @if (hasFigures()) {
          <div class="chart"><vt-chart [draw]="draw()" [summary]="summary()" /></div>
          <p class="dim">
            Dashed: four in five batteries would lie between. Dotted: what the machine needs. Upright: it had
            to be helped.
          </p>
        }
        <ul class="ruled">
          @for (e of newestFirst(); track $index) {
            <li>
              <a [routerLink]="['/job', e.jobId, 'measure']">
                <span class="dim">{{ e.at | date: 'd MMM y' }}</span>
                <span>{{ entryWords[e.kind] }}</span>
                <strong>{{ valueOf(e) }}</strong>
              </a>
            </li>
          } @empty {
            <li class="dim">Nothing has been read of it yet.</li>
          }
        </ul>
      }
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
    a {
      display: grid;
      grid-template-columns: 130px minmax(0, 1fr) 140px;
      gap: 14px;
      align-items: center;
      min-height: 48px;
      color: inherit;
      text-decoration: none;
    }
    a:hover {
      background: var(--sheet);
    }
    a strong {
      text-align: right;
    }
    @media (max-width: 720px) {
      a {
        grid-template-columns: 96px minmax(0, 1fr) auto;
      }
      .chart {
        height: 320px;
      }
    }
  `,
})
export class BatteryPage {
  readonly modelId = input.required<string>();

  private readonly api = inject(Api);

  protected readonly chemistryWords = CHEMISTRY_WORDS;
  protected readonly entryWords = ENTRY_WORDS;
  protected readonly record = signal<BatteryRecord | null>(null);
  protected readonly problem = signal<string | null>(null);
  /** The battery that is in now, until another is chosen. */
  protected readonly lifeId = linkedSignal<string | null>(
    () => this.record()?.batteries.find((l) => l.endedAt === null)?.id ?? null,
  );
  protected readonly life = computed(
    () => this.record()?.batteries.find((l) => l.id === this.lifeId()) ?? null,
  );
  private readonly trend = computed(() => {
    const life = this.life();
    const record = this.record();
    return life && record ? trendOf(life, record.needShare) : null;
  });
  protected readonly draw = computed(() => {
    const life = this.life()!;
    const record = this.record()!;
    const trend = this.trend();
    return (colours: ChartColours) => batteryChart(life, record, trend, colours);
  });
  protected readonly summary = computed(() => batterySummary(this.life()!, this.trend()));
  protected readonly hasFigures = computed(
    () => this.life()?.entries.some((e) => e.volts !== null || e.share !== null) ?? false,
  );
  protected readonly newestFirst = computed(() => [...(this.life()?.entries ?? [])].reverse());
  /** When it falls under what the machine needs, with its doubt. */
  protected readonly told = computed(() => {
    const trend = this.trend();
    const { needShare, coldC } = this.record()!;
    if (!trend) return 'Test it once, and its trend begins.';
    const now = trend.at(Date.now() / DAY_MS).share;
    const need = `${percent(needShare)} that this machine needs at ${Math.round(coldC)} °C`;
    const { day, earliest, latest } = trend.fallsBelow;
    const month = (d: number): string => format(new Date(d * DAY_MS), MONTH);
    const first = `About ${percent(Math.max(0, now))} now, ${percent(Math.abs(trend.perYear))} ${trend.perYear < 0 ? 'less' : 'more'} a year.`;
    if (needShare >= 1)
      return `${first} At ${Math.round(coldC)} °C the figures start this machine on no battery alone: watch the trend.`;
    if (now < needShare) return `${first} That is under the ${need}: replace it before the cold.`;
    if (day === null) return `${first} It stays over the ${need} as far as can be seen.`;
    const sooner = earliest === null ? '' : ` as soon as ${month(earliest)}`;
    const later = latest === null ? ', perhaps much later' : `, as late as ${month(latest)}`;
    return `${first} Falls under the ${need} about ${month(day)};${sooner}${later}.`;
  });

  constructor() {
    effect(() => {
      const id = this.modelId();
      this.api.battery(id).subscribe({
        next: (record) => {
          this.record.set(record);
          this.problem.set(null);
        },
        error: (error: unknown) => this.problem.set(problemText(error)),
      });
    });
  }

  protected nameOf({ battery, endedAt }: BatteryLife): string {
    const place = this.record()!.machine.batteries[battery]!.place;
    return endedAt === null ? place : `${place}, until ${format(new Date(endedAt), MONTH)}`;
  }

  protected valueOf({ volts: read, share }: BatteryEntry): string {
    if (read !== null) return volts(read);
    return share === null ? '' : percent(share);
  }
}
