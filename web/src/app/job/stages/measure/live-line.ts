import { ChangeDetectionStrategy, Component, computed, inject, input, output } from '@angular/core';
import type { Instrument } from '@voltrek/contracts';
import { INSTRUMENT_WORDS, LINK_WORDS } from '../../../shared/words/measure-words';
import { LiveStore } from './live-store';

/** What a linked instrument reads now: held still, or taken. Shows nothing where none is linked. */
@Component({
  selector: 'vt-live-line',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (now(); as n) {
      <div class="live" [class.gone]="n.state !== 'ready'">
        <span class="who"
          >{{ words[n.instrument] }}
          <span class="dim" role="status">{{ isHeld() ? 'held' : linkWords[n.state] }}</span></span
        >
        <span class="reads">{{ text() }}</span>
        <button type="button" class="key" [attr.aria-pressed]="isHeld()" (click)="live.hold(n.instrument)">
          Hold
        </button>
        <button type="button" class="key strong" [disabled]="takes() === null" (click)="take()">
          Take it
        </button>
      </div>
    }
  `,
  styles: `
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
    .who {
      grid-column: 1 / -1;
      font-weight: 600;
      font-size: 15px;
    }
    .reads {
      font-size: 28px;
      font-weight: 700;
      line-height: 1.1;
    }
  `,
})
export class LiveLine {
  /** Null: nothing that is linked reads what is chosen. */
  readonly instrument = input.required<Instrument | null>();
  readonly unit = input.required<'V' | 'A' | 'mA'>();
  /** Why a value cannot be taken; null when it can. */
  readonly faultOf = input.required<(value: number) => string | null>();
  readonly taken = output<number>();

  protected readonly live = inject(LiveStore);
  protected readonly words = INSTRUMENT_WORDS;
  protected readonly linkWords = LINK_WORDS;

  protected readonly now = computed(() => {
    const instrument = this.instrument();
    const now = instrument && this.live.byInstrument()[instrument];
    return now && now.state !== 'off' ? now : null;
  });
  protected readonly isHeld = computed(() => {
    const instrument = this.instrument();
    return instrument !== null && this.live.held()[instrument] !== undefined;
  });
  /** In the unit of what is chosen; null while there is none. */
  private readonly value = computed(() => {
    const now = this.now();
    const value = now && (this.live.held()[now.instrument] ?? now.value);
    if (value == null) return null;
    return this.unit() === 'mA' ? value * 1000 : value;
  });
  protected readonly text = computed(() => {
    const value = this.value();
    if (this.now()?.overload) return 'over its range';
    return value === null ? '-' : `${value.toFixed(this.unit() === 'V' ? 3 : 0)} ${this.unit()}`;
  });
  /** What would be taken, to the step of the unit. */
  protected readonly takes = computed(() => {
    const value = this.value();
    if (value === null) return null;
    const rounded = this.unit() === 'V' ? Math.round(value * 1000) / 1000 : Math.round(value);
    return this.faultOf()(rounded) === null ? rounded : null;
  });

  protected take(): void {
    const value = this.takes();
    if (value !== null) this.taken.emit(value);
  }
}
