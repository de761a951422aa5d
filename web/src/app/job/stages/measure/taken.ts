import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { outcomeOf } from '@voltrek/core/diagnosis';
import { doubtOf, type Figure, type Reading } from '@voltrek/core/job';
import { DOUBT_WORDS, FINDING_NAMES, foundWords } from '@words/diagnosis-words';
import { volts } from '@words/figures';
import { FIGURE_WORDS, OUTCOME_MEANINGS } from '@words/measure-words';
import { ofBattery, readingName } from '@words/words';
import type { Work } from '../../../shared/job/job-selectors';
import { Reporter } from '../../../shared/job/reporter';
import { BankNow } from './bank-now';
import { type Meaning, readingMeaning, toneOf } from './meaning';
import { When } from '../../../shared/ui/when';
import { TAKEN as T } from '@words/screens/job-stages-measure';

interface Line {
  readonly id: string;
  readonly at: string;
  readonly value: string;
  readonly name: string;
  readonly source: string;
  readonly meaning: Meaning;
  /** In doubt: it counts for nothing until a second one says the same. */
  readonly doubted: boolean;
}

/** The readings, newest first, each with its meaning; one that contradicts the log is questioned. */
@Component({
  selector: 'vt-taken',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [BankNow, When],
  template: `
    <vt-bank-now [work]="work()" />
    <h2 class="part">{{ t.taken }}</h2>
    <ul class="ruled">
      @for (line of lines(); track line.id) {
        <li [class.doubted]="line.doubted">
          <span class="value">{{ line.value }}</span>
          <span class="name"
            >{{ line.name }} <span class="dim">{{ line.at | when: 'time' }}{{ line.source }}</span></span
          >
          <span class="meaning" [class]="'tone-' + line.meaning.tone">{{ line.meaning.text }}</span>
          @if (line.doubted && !isClosed()) {
            <button type="button" class="key" (click)="withdraw(line.id)">{{ t.withdraw }}</button>
          }
        </li>
      } @empty {
        <li class="dim">{{ t.nothingYet }}</li>
      }
    </ul>
  `,
  styles: `
    :host {
      min-height: 0;
    }
    li {
      display: grid;
      grid-template-columns: 84px 1fr auto;
      gap: 0 12px;
      padding: 6px 0;
    }
    .value {
      grid-row: span 2;
      font-size: var(--text-l);
      font-weight: 700;
    }
    .doubted .value {
      text-decoration: line-through;
      text-decoration-thickness: 2px;
    }
    .name {
      font-weight: 600;
    }
    .meaning {
      grid-column: 2;
      font-size: var(--text-xs);
      font-weight: 600;
      line-height: 1.15;
    }
    .key {
      grid-row: 1 / span 2;
      grid-column: 3;
      align-self: center;
      font-size: var(--text-xs);
    }
    li.dim {
      display: block;
    }
  `,
})
export class Taken {
  protected readonly t = T;

  readonly work = input.required<Work>();

  private readonly reporter = inject(Reporter);

  protected readonly isClosed = computed(() => this.work().job.closedAt !== null);
  protected readonly lines = computed(() => {
    const { job } = this.work();
    const all = [
      ...job.readings.map((r) => this.readingLine(r)),
      ...job.figures.map((f) => this.figureLine(f)),
    ];
    return all.sort((a, b) => b.at.localeCompare(a.at));
  });

  private readingLine(reading: Reading): Line {
    const { job, machine } = this.work();
    const doubt = doubtOf(job, machine, reading);
    return {
      id: reading.eventId,
      at: reading.at,
      value: volts(reading.volts),
      name: readingName(reading.kind, reading.battery, machine),
      source: reading.source === 'typed' ? '' : `, ${reading.source}`,
      meaning: doubt
        ? { tone: 'watch', text: `${DOUBT_WORDS[doubt]}.` }
        : readingMeaning(this.work(), reading.kind, reading.volts, reading.battery, reading.tempC),
      doubted: doubt !== null,
    };
  }

  private figureLine({ eventId, at, check, found, source, battery }: Figure): Line {
    const name = FIGURE_WORDS[check]?.name ?? FINDING_NAMES[check];
    const outcome = outcomeOf(check, found);
    return {
      id: eventId,
      at,
      value: foundWords(check, found),
      name: ofBattery(name, battery),
      source: source === 'typed' ? '' : `, ${source}`,
      meaning: { tone: toneOf(outcome), text: OUTCOME_MEANINGS[check]?.[outcome] ?? '' },
      doubted: false,
    };
  }

  protected withdraw(readingId: string): void {
    this.reporter.report('reading.withdrawn', { readingId });
  }
}
