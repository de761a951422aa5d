import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { CLAMP_IDS } from '@voltrek/core/circuit';
import { clampsOn } from '@voltrek/core/hookup';
import { type LeadReading, measuredFactor } from '@voltrek/core/leads';
import { TYPED_RANGES, voltsRange } from '@voltrek/core/quantities';
import { outOfRange } from '@words/range-words';
import type { Work } from '../../shared/job/job-selectors';
import { Reporter } from '../../shared/job/reporter';
import { typedFigure } from '../../shared/ui/typed-figure';
import { typedVolts } from '../../shared/ui/typed-volts';
import { factorWords } from '@words/kit-words';
import { MEASURE_LEADS as T } from '@words/screens/job-stages';

/** Measures the lead set that is joined: volts at both of its ends in one moment, and the amps that flow. Folded away until it is wanted. */
@Component({
  selector: 'vt-measure-leads',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (set(); as s) {
      <button type="button" class="key" [attr.aria-expanded]="isOpen()" (click)="isOpen.set(!isOpen())">
        {{ t.measure({ name: s.name }) }}
      </button>
      @if (isOpen()) {
        <div class="fields">
          <label
            ><span>{{ t.atTheSourceV }}</span
            ><input
              class="field"
              inputmode="decimal"
              autocomplete="off"
              [value]="texts().source"
              #source
              (input)="put({ source: source.value })"
          /></label>
          <label
            ><span>{{ t.casualtyVolts }}</span
            ><input
              class="field"
              inputmode="decimal"
              autocomplete="off"
              [value]="texts().casualty"
              #casualty
              (input)="put({ casualty: casualty.value })"
          /></label>
          <label
            ><span>{{ t.leadAmps }}</span
            ><input
              class="field"
              inputmode="decimal"
              autocomplete="off"
              [value]="texts().amps"
              #amps
              (input)="put({ amps: amps.value })"
          /></label>
          <button type="button" class="key strong" [disabled]="found() === null" (click)="note()">
            {{ t.noteIt }}
          </button>
        </div>
        @if (fault(); as text) {
          <p class="problem" role="alert">{{ text }}</p>
        } @else if (found(); as f) {
          <p role="status">{{ factorWords(f) }}</p>
        } @else {
          <p class="dim">{{ t.hint }}</p>
        }
      }
      @for (line of noted(); track line.at) {
        <p class="dim">{{ t.noted({ words: line.words }) }}</p>
      }
    }
  `,
  styles: `
    @use 'media';

    .fields {
      display: grid;
      grid-template-columns: repeat(3, minmax(0, 1fr)) auto;
      align-items: end;
      gap: 10px;
      margin: 8px 0;
    }
    @include media.narrow {
      .fields {
        grid-template-columns: 1fr 1fr;
      }
    }
  `,
})
export class MeasureLeads {
  protected readonly t = T;

  readonly work = input.required<Work>();

  private readonly reporter = inject(Reporter);
  protected readonly factorWords = factorWords;
  protected readonly isOpen = signal(false);
  protected readonly texts = signal({ source: '', casualty: '', amps: '' });

  /** The lead set that is joined with all its clamps; null otherwise. */
  protected readonly set = computed(() => {
    const { job, kit } = this.work();
    const isJoined = clampsOn(job.hookup).length === CLAMP_IDS.length;
    const item = kit.find(({ id }) => isJoined && id === job.plan?.leadSetId);
    return item?.kind === 'lead-set' ? item : null;
  });
  private readonly range = computed(() => voltsRange(this.work().machine.systemVolts / 12, true));
  private readonly reading = computed((): LeadReading | null => {
    const { source, casualty, amps } = this.texts();
    const sourceVolts = typedVolts(source, this.range().max);
    const casualtyVolts = typedVolts(casualty, this.range().max);
    return sourceVolts === null || casualtyVolts === null || amps.trim() === ''
      ? null
      : { sourceVolts, casualtyVolts, amps: typedFigure(amps) };
  });
  protected readonly fault = computed(() => {
    const reading = this.reading();
    if (!reading) return null;
    const { leadAmps } = TYPED_RANGES;
    const out =
      outOfRange(T.sourceLabel, reading.sourceVolts, this.range()) ??
      outOfRange(T.casualtyLabel, reading.casualtyVolts, this.range()) ??
      outOfRange(T.amps, reading.amps, leadAmps);
    if (out) return out;
    if (reading.sourceVolts <= reading.casualtyVolts) return T.sourceLower;
    return this.found() ? null : T.tooFewAmps;
  });
  protected readonly found = computed(() => {
    const reading = this.reading();
    const set = this.set();
    return reading && set ? measuredFactor(reading, set.leads, this.work().situation.tempC) : null;
  });
  protected readonly noted = computed(() => {
    const { job, situation } = this.work();
    const set = this.set();
    return job.leadReadings.flatMap((reading) => {
      const factor =
        reading.leadSetId === set?.id ? measuredFactor(reading, set.leads, situation.tempC) : null;
      return factor ? [{ at: reading.at, words: factorWords(factor) }] : [];
    });
  });

  protected put(change: Partial<{ source: string; casualty: string; amps: string }>): void {
    this.texts.update((texts) => ({ ...texts, ...change }));
  }

  protected note(): void {
    const reading = this.reading();
    if (!reading || this.fault()) return;
    this.reporter.report('leads.measured', reading);
    this.texts.set({ source: '', casualty: '', amps: '' });
    this.isOpen.set(false);
  }
}
