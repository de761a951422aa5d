import { ChangeDetectionStrategy, Component, computed, input, linkedSignal, output } from '@angular/core';
import { type Range, TYPED_RANGES } from '@voltrek/core/quantities';
import { outOfRange } from '@words/range-words';
import { CHARGE_WATCH as T } from '@words/screens/job-charge';
import { typedFigure } from '../../shared/ui/typed-figure';
import { typedVolts } from '../../shared/ui/typed-volts';

/** A look at a battery that takes charge. */
export interface Look {
  readonly volts: number;
  /** Zero where it is not asked. */
  readonly amps: number;
  readonly isWarm: boolean;
}

/** The fields of a look at a battery that takes charge, by a charger or through a lamp; empty again once it is noted. */
@Component({
  selector: 'vt-watch-fields',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="fields" [class.with-amps]="asksAmps()">
      <label
        ><span>{{ t.atItsPostsV }}</span
        ><input
          class="field"
          inputmode="decimal"
          autocomplete="off"
          [value]="voltsText()"
          #volts
          (input)="voltsText.set(volts.value)"
      /></label>
      @if (asksAmps()) {
        <label
          ><span>{{ t.ampsLabel }}</span
          ><input
            class="field"
            inputmode="decimal"
            autocomplete="off"
            [value]="ampsText()"
            #amps
            (input)="ampsText.set(amps.value)"
        /></label>
      }
      <button type="button" class="key" [attr.aria-pressed]="isWarm()" (click)="isWarm.set(!isWarm())">
        {{ t.caseIsWarm }}
      </button>
      <button type="button" class="key strong" [disabled]="look() === null" (click)="note()">
        {{ t.noteIt }}
      </button>
    </div>
    @if (fault(); as text) {
      <p class="problem" role="alert">{{ text }}</p>
    }
  `,
  styles: `
    @use 'media';

    .fields {
      display: grid;
      grid-template-columns: minmax(120px, 1fr) auto auto;
      align-items: end;
      gap: 10px;
    }
    .with-amps {
      grid-template-columns: 1fr 1fr auto auto;
    }
    @include media.narrow {
      .fields {
        grid-template-columns: 1fr 1fr;
      }
    }
  `,
})
export class WatchFields {
  protected readonly t = T;

  /** Volts that can be read there. */
  readonly range = input.required<Range>();
  readonly asksAmps = input(false);
  /** Looks noted so far: one more empties the fields. */
  readonly count = input.required<number>();
  readonly noted = output<Look>();

  protected readonly voltsText = linkedSignal({ source: this.count, computation: () => '' });
  protected readonly ampsText = linkedSignal({ source: this.count, computation: () => '' });
  protected readonly isWarm = linkedSignal({ source: this.count, computation: () => false });

  private readonly typed = computed(() => ({
    volts: typedVolts(this.voltsText(), this.range().max) ?? NaN,
    amps: this.asksAmps() ? typedFigure(this.ampsText()) : 0,
  }));
  protected readonly fault = computed(() => {
    const { volts, amps } = this.typed();
    return (
      (Number.isNaN(volts) ? null : outOfRange(T.volts, volts, this.range())) ??
      (Number.isNaN(amps) ? null : outOfRange(T.amps, amps, TYPED_RANGES.chargeAmps))
    );
  });
  /** The typed values, whole and in range; null until they are. */
  protected readonly look = computed((): Look | null => {
    const { volts, amps } = this.typed();
    const isWhole = !Number.isNaN(volts) && !Number.isNaN(amps) && this.fault() === null;
    return isWhole ? { volts, amps, isWarm: this.isWarm() } : null;
  });

  protected note(): void {
    const look = this.look();
    if (look) this.noted.emit(look);
  }
}
