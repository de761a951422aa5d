import { DatePipe } from '@angular/common';
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  input,
  linkedSignal,
  output,
  signal,
} from '@angular/core';
import {
  chargingMeaning,
  crankMeaning,
  hasStarted,
  outOfRange,
  type Reading,
  type ReadingKind,
  restMeaning,
  restVoltsByBlock,
  socFromRestVolts,
  startsByWaking,
  type Tone,
  TYPED_RANGES,
  workingTempC,
} from '@voltrek/core';
import { NumberPad } from '../../shared/ui/number-pad';
import { typedVolts } from '../../shared/ui/typed-volts';
import { volts } from '../../shared/words/figures';
import { chargingWords, crankWords, restWords } from '../../shared/words/reading-words';
import { READING_WORDS } from '../../shared/words/words';
import { NextAction } from '../next-action';
import type { Work } from '../state/job-selectors';
import { Reporter } from '../state/reporter';

interface Choice {
  readonly kind: ReadingKind;
  readonly block: number;
  readonly name: string;
}

interface Meaning {
  readonly tone: Tone;
  readonly text: string;
}

/** The pad, the readings taken, and what each one says. */
@Component({
  selector: 'vt-measure',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [DatePipe, NextAction, NumberPad],
  template: `
    <section class="stage" aria-labelledby="stage-title">
      <header>
        <h1 id="stage-title">Measure</h1>
        <span class="dim">block {{ chemistry() }}, {{ tempC() }} °C</span>
      </header>
      <div class="kinds" role="radiogroup" aria-label="Which reading">
        @for (choice of choices(); track choice.name) {
          <button
            type="button"
            class="key"
            role="radio"
            [attr.aria-checked]="choice.name === chosen().name"
            (click)="choose(choice)"
          >
            {{ choice.name }}
          </button>
        }
      </div>
      <p class="dim how">{{ how() }}</p>
      <div class="desk">
        <div class="entry">
          <output class="display" [class.bad]="fault() !== null" aria-live="polite">
            {{ display() }} <small>V</small>
          </output>
          <vt-number-pad [(text)]="text" />
        </div>
        <div class="said">
          @if (fault(); as why) {
            <p class="problem" role="alert">{{ why }}</p>
          } @else if (preview(); as p) {
            <p class="preview" [class]="'tone-' + p.tone" aria-live="polite">{{ p.text }}</p>
          } @else {
            <p class="dim">Type 1162 for 11.62. Meter + on +, - on -.</p>
          }
          <h3>Taken</h3>
          <ul class="ruled">
            @for (r of taken(); track r.reading.eventId) {
              <li>
                <span class="value">{{ r.value }}</span>
                <span class="name"
                  >{{ r.name }} <span class="dim">{{ r.reading.at | date: 'HH:mm' }}</span></span
                >
                <span class="meaning" [class]="'tone-' + r.meaning.tone">{{ r.meaning.text }}</span>
              </li>
            } @empty {
              <li class="dim">Nothing yet. Rest volts are worth most now.</li>
            }
          </ul>
        </div>
      </div>
    </section>
    @if (text()) {
      <vt-next-action
        [label]="'Take ' + display() + ' V'"
        [disabled]="value() === null || fault() !== null"
        (go)="take()"
      />
    } @else {
      <vt-next-action
        [label]="taken().length ? 'Go on to Plan' : 'Plan without a reading'"
        (go)="next.emit()"
      />
    }
  `,
  styles: `
    :host {
      display: contents;
    }
    .kinds {
      display: flex;
      gap: 6px;
      flex-wrap: wrap;
    }
    .kinds .key {
      flex: 1 1 auto;
      padding: 4px 8px;
      font-size: 16px;
    }
    .how {
      min-height: 44px;
    }
    .desk {
      display: grid;
      grid-template-columns: 232px minmax(0, 1fr);
      gap: 22px;
      min-height: 0;
    }
    .display {
      display: block;
      margin-bottom: 8px;
      padding: 6px 12px;
      border: 2px solid var(--ink);
      border-radius: 5px;
      background: var(--sheet);
      font-size: 40px;
      font-weight: 700;
      line-height: 1.15;
      text-align: right;
    }
    .display.bad {
      border-color: var(--bad);
    }
    .display small {
      font-size: 18px;
      color: var(--dim);
    }
    .preview {
      font-size: 19px;
      font-weight: 700;
      line-height: 1.2;
    }
    .said {
      display: flex;
      flex-direction: column;
      gap: 10px;
      min-height: 0;
    }
    li {
      display: grid;
      grid-template-columns: 84px 1fr;
      gap: 0 12px;
      padding: 8px 0;
    }
    .value {
      grid-row: span 2;
      font-size: 22px;
      font-weight: 700;
    }
    .name {
      font-weight: 600;
    }
    .meaning {
      font-size: 15px;
      font-weight: 600;
    }
    li.dim {
      display: block;
    }
    @media (max-width: 720px) {
      .desk {
        grid-template-columns: 1fr;
      }
      .how {
        min-height: 0;
      }
    }
  `,
})
export class Measure {
  readonly work = input.required<Work>();
  readonly next = output();

  private readonly reporter = inject(Reporter);

  protected readonly text = signal('');
  protected readonly tempC = computed(() => workingTempC(this.work().job));
  protected readonly chemistry = computed(() => this.work().machine.blocks[0]!.rating.chemistry);

  protected readonly choices = computed<Choice[]>(() => {
    const { machine, job } = this.work();
    const rest = machine.blocks.map((_, block): Choice => {
      const which = machine.blocks.length > 1 ? (block === 0 ? ', lower' : ', upper') : '';
      return { kind: 'rest', block, name: `${READING_WORDS.rest.name}${which}` };
    });
    const plain = (kind: ReadingKind): Choice => ({ kind, block: 0, name: READING_WORDS[kind].name });
    const crank = startsByWaking(machine) ? [] : [plain('crank-minimum')];
    const charging = [plain('charging-idle'), plain('charging-loaded')];
    return hasStarted(job) ? [...charging, ...rest, ...crank] : [...rest, ...crank, ...charging];
  });

  /** Index of the first reading not yet taken. A number, so that events which leave it alone do not move the choice. */
  private readonly firstOpen = computed(() => {
    const { readings } = this.work().job;
    const open = this.choices().findIndex(
      (c) => !readings.some((r) => r.kind === c.kind && r.block === c.block),
    );
    return Math.max(0, open);
  });
  private readonly readingCount = computed(() => this.work().job.readings.length);

  /** Stands on the first reading not yet taken, until another is chosen; each reading taken moves it on. */
  private readonly chosenIndex = linkedSignal(() => {
    this.readingCount();
    return this.firstOpen();
  });
  protected readonly chosen = computed(() => this.choices()[this.chosenIndex()] ?? this.choices()[0]!);
  protected readonly how = computed(() => READING_WORDS[this.chosen().kind].how);
  protected readonly value = computed(() => typedVolts(this.text()));
  protected readonly display = computed(() => {
    const value = this.value();
    return value === null ? this.text() || '-' : this.text().endsWith('.') ? this.text() : value.toFixed(2);
  });
  protected readonly fault = computed(() => {
    if (!this.text() || this.text() === '-') return null;
    const value = this.value();
    if (value === null) return 'That is not a voltage.';
    return outOfRange('Volts', value, this.range());
  });
  protected readonly preview = computed(() => {
    const value = this.value();
    return value === null || this.fault()
      ? null
      : this.meaningOf(this.chosen().kind, value, this.chosen().block);
  });
  protected readonly taken = computed(() =>
    [...this.work().job.readings].reverse().map((reading) => ({
      reading,
      value: volts(reading.volts),
      name: this.choices().find((c) => c.kind === reading.kind && c.block === reading.block)?.name ?? '',
      meaning: this.meaningOf(reading.kind, reading.volts, reading.block, reading),
    })),
  );

  /** One block cannot read like a string: the range follows what is measured. */
  private range(): { min: number; max: number; unit: string } {
    const { kind } = this.chosen();
    const system = this.work().machine.systemVolts;
    if (kind === 'charging-idle' || kind === 'charging-loaded') {
      return { ...TYPED_RANGES.chargingVolts, max: TYPED_RANGES.chargingVolts.max * (system / 24) };
    }
    const blocks = kind === 'rest' ? 1 : system / 12;
    return { min: TYPED_RANGES.volts.min / 2, max: (TYPED_RANGES.volts.max / 2) * blocks, unit: 'V' };
  }

  protected choose(choice: Choice): void {
    this.chosenIndex.set(this.choices().indexOf(choice));
    this.text.set('');
  }

  protected take(): void {
    const value = this.value();
    if (value === null || this.fault()) return;
    const { kind, block } = this.chosen();
    const meaning = this.meaningOf(kind, value, block);
    this.reporter.report('reading.taken', {
      kind,
      volts: value,
      block,
      tempC: this.tempC(),
      source: 'typed',
    });
    this.text.set('');
    // A frozen block stops the job by itself; a backward reading leaves polarity open.
    if (kind === 'rest' && meaning.tone === 'stop') {
      this.reporter.report('stop.raised', { stop: value < 0 ? 'polarity-unknown' : 'frozen' });
    }
  }

  private meaningOf(kind: ReadingKind, value: number, block: number, reading?: Reading): Meaning {
    const { machine, job } = this.work();
    const { chemistry } = machine.blocks[block]!.rating;
    const tempC = reading?.tempC ?? this.tempC();
    switch (kind) {
      case 'rest': {
        const meaning = restMeaning(chemistry, value, tempC, this.work().rules);
        return { tone: meaning.tone, text: restWords(meaning) };
      }
      case 'crank-minimum': {
        const rest = restVoltsByBlock(job, machine.blocks.length).filter((v) => v !== null);
        const soc = rest.length ? socFromRestVolts(chemistry, Math.min(...rest), tempC).soc : null;
        const meaning = crankMeaning(value, tempC, machine.systemVolts, soc, this.work().rules);
        return { tone: meaning.tone, text: crankWords(meaning) };
      }
      case 'charging-idle':
      case 'charging-loaded': {
        const meaning = chargingMeaning(value, chemistry, tempC, machine.systemVolts, this.work().rules);
        return { tone: meaning.tone, text: chargingWords(meaning) };
      }
    }
  }
}
