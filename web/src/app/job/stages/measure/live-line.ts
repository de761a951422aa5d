import { ChangeDetectionStrategy, Component, computed, inject, input, output, signal } from '@angular/core';
import { fixed } from '@words/numbers';
import type { Instrument, LinkState } from '@voltrek/contracts';
import { INSTRUMENT_WORDS, LINK_WORDS } from '@words/measure-words';
import { Arms } from '../../arms';
import { LiveStore } from './live-store';
import { LIVE_LINE as T } from '@words/screens/job-stages-measure';

/** Two readings of two things are hardly ever nearer than this, as a share. */
const SAME_WITHIN = 0.0008;

/** The value of a linked instrument now: held still, or taken. Shows nothing where none is linked. */
@Component({
  selector: 'vt-live-line',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Arms],
  template: `
    @if (now(); as n) {
      <div class="live" [class.gone]="n.state !== 'ready' || isOld()">
        <span class="who"
          >{{ words[n.instrument] }} <span class="dim" role="status">{{ stateText(n.state) }}</span>
          @if (age(); as old) {
            <span class="dim age">{{ old }}</span>
          }
        </span>
        <span class="reads">{{ text() }}</span>
        <button
          type="button"
          class="key"
          [attr.aria-pressed]="isHeld()"
          [disabled]="isOld() && !isHeld()"
          (click)="live.hold(n.instrument)"
        >
          {{ t.hold }}
        </button>
        @if (isSame()) {
          <button type="button" class="key strong" [vtArms]="'moved'" (click)="moved()">
            {{ t.probesPlaced }}
          </button>
        } @else {
          <button
            type="button"
            class="key strong"
            [vtArms]="of()"
            [disabled]="takes() === null"
            (click)="take()"
          >
            {{ t.takeIt }}
          </button>
        }
      </div>
    }
  `,
  styles: `
    @use 'media';

    .live {
      display: grid;
      grid-template-columns: 1fr auto auto;
      align-items: center;
      gap: 2px 8px;
      padding: 8px 12px;
      border: 2px solid var(--ink);
      border-radius: 5px;
      background: var(--sheet);
    }
    .live.gone {
      border-style: dashed;
    }
    .gone .reads {
      color: var(--dim);
      font-weight: 500;
    }
    .who {
      display: flex;
      gap: 0 6px;
      grid-column: 1 / -1;
      font-weight: 600;
      font-size: var(--text-xs);
    }
    .age {
      margin-left: auto;
      font-variant-numeric: tabular-nums;
    }
    .reads {
      font-size: var(--text-xl);
      font-weight: 700;
      line-height: 1.1;
      white-space: nowrap;
    }
    @include media.narrow {
      .key {
        padding: 4px 8px;
        line-height: 1.1;
      }
    }
  `,
})
export class LiveLine {
  protected readonly t = T;

  /** Null: nothing that is linked reads what is chosen. */
  readonly instrument = input.required<Instrument | null>();
  readonly unit = input.required<'V' | 'A' | 'mA'>();
  /** Why a value cannot be taken; null when it can. */
  readonly faultOf = input.required<(value: number) => string | null>();
  /** The reading: each distinct from the next. */
  readonly of = input.required<string>();
  readonly taken = output<number>();

  protected readonly live = inject(LiveStore);
  protected readonly words = INSTRUMENT_WORDS;
  protected readonly linkWords = LINK_WORDS;

  protected readonly now = computed(() => this.live.nowOf(this.instrument()));
  private readonly kept = computed(() => {
    const instrument = this.instrument();
    return (instrument && this.live.held()[instrument]) ?? null;
  });
  protected readonly isHeld = computed(() => this.kept() !== null);
  private readonly shown = computed(() => this.kept() ?? this.now());
  /** Not what the instrument shows here and now; what is held still is meant to be of a moment ago. */
  protected readonly isOld = computed(() => {
    const now = this.now();
    return now !== null && !(this.isHeld() ? this.live.connected() : this.live.isFresh(now));
  });
  /** In the unit of what is chosen; null while there is none. */
  private readonly value = computed(() => {
    const value = this.shown()?.value ?? null;
    return value !== null && this.unit() === 'mA' ? value * 1000 : value;
  });
  /** How old the value is that stands there; null while none does. */
  protected readonly age = computed(() => {
    const shown = this.shown();
    return shown && shown.value !== null
      ? T.secondsOld({ seconds: fixed(this.live.ageMs(shown) / 1000, 1) })
      : null;
  });
  protected readonly text = computed(() => {
    const value = this.value();
    if (this.now()?.overload) return T.overItsRange;
    return value === null ? '-' : `${fixed(value, this.unit() === 'V' ? 3 : 0)} ${this.unit()}`;
  });
  /** The value that was taken last, and of what. */
  private readonly last = signal<{ readonly of: string; readonly value: number } | null>(null);
  /** Another reading, and the value of the one before still: the probes have not been moved, or nobody has said so. */
  protected readonly isSame = computed(() => {
    const last = this.last();
    const value = this.value();
    return (
      last !== null &&
      value !== null &&
      last.of !== this.of() &&
      Math.abs(value - last.value) < SAME_WITHIN * Math.max(1, Math.abs(last.value))
    );
  });
  /** The value to be taken, to the step of the unit. */
  protected readonly takes = computed(() => {
    const value = this.value();
    if (value === null || this.isOld()) return null;
    const rounded = this.unit() === 'V' ? Math.round(value * 1000) / 1000 : Math.round(value);
    return this.faultOf()(rounded) === null ? rounded : null;
  });

  protected take(): void {
    const value = this.takes();
    if (value === null) return;
    this.last.set({ of: this.of(), value });
    this.taken.emit(value);
  }

  protected stateText(state: LinkState): string {
    if (!this.live.connected()) return T.lineBroken;
    const now = this.now();
    if (state === 'ready' && now && this.isOld())
      return this.live.isOfHere(now) ? T.anOldValue : T.probesMove;
    if (this.isSame()) return T.unchanged;
    return this.isHeld() ? T.held : this.linkWords[state];
  }

  /** The technician says that they were moved, and that both read alike. */
  protected moved(): void {
    this.last.set(null);
  }
}
