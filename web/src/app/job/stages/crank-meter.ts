import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  input,
  type OnInit,
  output,
  signal,
  untracked,
} from '@angular/core';
import { volts } from '@words/figures';
import { LiveStore } from './measure/live-store';
import { CRANK_METER as T } from '@words/screens/job-stages';

const WIDTH = 300;
const HEIGHT = 60;
const MARGIN = 4;

/** The value of a linked meter on the posts while a try runs, and its lowest. */
@Component({
  selector: 'vt-crank-meter',
  changeDetection: ChangeDetectionStrategy.OnPush,
  providers: [LiveStore],
  template: `
    @if (running() && seen().length > 1 && lowest() !== null) {
      <div class="live">
        <svg viewBox="0 0 300 60" preserveAspectRatio="none" aria-hidden="true">
          <polyline [attr.points]="line()" />
        </svg>
        <span role="status"
          >{{ t.meterLowest({ at: volts(seen().at(-1)!) }) }} <strong>{{ volts(lowest()!) }}</strong></span
        >
      </div>
    }
  `,
  styles: `
    .live {
      display: grid;
      grid-template-columns: 1fr auto;
      align-items: center;
      gap: 14px;
    }
    svg {
      width: 100%;
      height: 60px;
      background: var(--sheet);
      border: 1px solid var(--line);
    }
    polyline {
      fill: none;
      stroke: var(--ink);
      stroke-width: 2;
      vector-effect: non-scaling-stroke;
    }
  `,
})
export class CrankMeter implements OnInit {
  protected readonly t = T;

  readonly jobId = input.required<string>();
  readonly systemVolts = input.required<12 | 24>();
  readonly running = input.required<boolean>();
  /** Called whenever it changes; null while no meter is on the posts. */
  readonly lowestChange = output<number | null>();

  private readonly live = inject(LiveStore);

  protected readonly volts = volts;
  protected readonly seen = signal<readonly number[]>([]);
  protected readonly lowest = computed(() => {
    const seen = this.seen();
    // A meter that lies on the bench reads nothing: only one that began on the posts counts.
    const isOnPosts = (seen[0] ?? 0) >= this.systemVolts() / 2;
    return isOnPosts ? Math.round(Math.min(...seen) * 100) / 100 : null;
  });
  protected readonly line = computed(() => {
    const seen = this.seen();
    const high = Math.max(...seen);
    const span = Math.max(1, high - Math.min(...seen));
    const x = (i: number): string => ((i / (seen.length - 1)) * WIDTH).toFixed(1);
    const y = (v: number): string => (MARGIN + ((high - v) / span) * (HEIGHT - 2 * MARGIN)).toFixed(1);
    return seen.map((v, i) => `${x(i)},${y(v)}`).join(' ');
  });

  constructor() {
    // Each try is seen from its start; what it showed stays until the next.
    effect(() => {
      if (this.running()) untracked(() => this.seen.set([]));
    });
    effect(() => {
      const meter = this.live.byInstrument().meter;
      if (meter?.state !== 'ready' || meter.value === null) return;
      const { value } = meter;
      untracked(() => {
        if (this.running()) this.seen.update((seen) => [...seen, value]);
      });
    });
    effect(() => this.lowestChange.emit(this.lowest()));
  }

  /** Probes go on the posts before the try. */
  ngOnInit(): void {
    this.live.place({ jobId: this.jobId(), check: 'crank', battery: 0 });
  }
}
