import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import type { BatteryFinding, LedgerLine, VerdictRecord } from '@voltrek/core/verdict';
import {
  CAUSE_WORDS,
  CONDITION_WORDS,
  FINDING_NAMES,
  foundWords,
  mayOccurTogether,
  pushWords,
} from '@words/diagnosis-words';
import { SUSPECTS } from '@words/screens/job';
import { inHundred, percent } from '@words/figures';
import { BAR_WORDS } from '@words/plan-words';
import { batteryWord, ofBattery } from '@words/words';
import { LEDGER as T } from '@words/screens/job-stages-verdict';

/** Doublings at which a bar is full. */
const FULL_BITS = 6;
const SHOWN = 9;
/** The standing of each battery of a string. */
const TOLD_OF_BATTERY = 2;

/** The likeliest causes, and what each finding says of the verdict: for to the right, against to the left. */
@Component({
  selector: 'vt-ledger',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (record().verdict !== 'unsafe') {
      <section [attr.aria-label]="t.causes">
        <h3>{{ t.causesTitle }}</h3>
        <ol>
          @for (c of record().causes ?? []; track c.cause) {
            <li>
              <span>{{ causeWords[c.cause] }}</span>
              <span class="bar" aria-hidden="true"><i [style.width.%]="c.share * 100"></i></span>
              <strong>{{ percent(c.share) }}</strong>
            </li>
          } @empty {
            <li class="dim">{{ t.noCauses }}</li>
          }
        </ol>
        @if (mayMeet()) {
          <p class="dim">{{ suspects.together }}</p>
        }
      </section>
    }
    <div class="right">
      @for (b of record().batteries ?? []; track $index) {
        <section class="standing">
          <h3>{{ batteryTitle($index, b) }}</h3>
          <p>
            @for (line of strongestOf($index, b); track $index) {
              <span
                >{{ ofBattery(names[line.check], line.battery) }}: {{ found(line) }}
                <span class="dim">{{ push(line.bits) }}</span></span
              >
            } @empty {
              <span class="dim">{{ t.notRead }}</span>
            }
          </p>
        </section>
      }
      <section [attr.aria-label]="t.evidence">
        <h3>{{ t.evidenceTitle }}</h3>
        <ul>
          @for (line of lines(); track $index) {
            <li class="move">
              <span>{{ ofBattery(names[line.check], line.battery) }}: {{ found(line) }}</span>
              <span class="scale" aria-hidden="true">
                <i
                  [class.against]="line.bits < 0"
                  [style.width.%]="width(line)"
                  [style.left.%]="line.bits < 0 ? 50 - width(line) : 50"
                ></i>
              </span>
              <span class="said" [class.against]="line.bits < 0">{{ push(line.bits) }}</span>
            </li>
          } @empty {
            <li class="dim">{{ instead() }}</li>
          }
        </ul>
      </section>
    </div>
  `,
  styles: `
    @use 'media';

    :host {
      display: grid;
      grid-template-columns: minmax(180px, 2fr) minmax(0, 5fr);
      gap: 22px;
    }
    .right {
      display: grid;
      align-content: start;
      gap: 10px;
      min-width: 0;
    }
    .right:only-child {
      grid-column: 1 / -1;
    }
    .standing h3::first-letter {
      text-transform: uppercase;
    }
    .standing p {
      display: flex;
      flex-wrap: wrap;
      gap: 2px 18px;
      font-size: var(--text-s);
      line-height: 1.2;
    }
    ol li {
      display: grid;
      grid-template-columns: 1fr 56px;
      gap: 0 8px;
      padding: 4px 0;
      font-size: var(--text-s);
      line-height: 1.2;
    }
    ol strong {
      grid-row: 1;
      grid-column: 2;
      text-align: right;
    }
    .bar {
      grid-column: 1 / -1;
      height: 8px;
      margin-top: 2px;
      background: var(--body);
    }
    i {
      display: block;
      height: 100%;
      background: var(--ink);
    }
    .move {
      display: grid;
      grid-template-columns: minmax(0, 1fr) 84px 128px;
      align-items: center;
      gap: 10px;
      padding: 5px 0;
      border-top: 1px solid var(--line);
      font-size: var(--text-s);
      line-height: 1.15;
    }
    .scale {
      position: relative;
      height: 10px;
      background: linear-gradient(var(--dim), var(--dim)) center / 2px 100% no-repeat var(--body);
    }
    .scale i {
      position: absolute;
      background: var(--ok);
    }
    .scale i.against {
      background: var(--watch);
    }
    .said {
      color: var(--ok);
      font-weight: 600;
      font-size: var(--text-xs);
    }
    .said.against {
      color: var(--watch);
    }
    li.dim {
      display: block;
    }
    @include media.narrow {
      :host {
        grid-template-columns: 1fr;
      }
      .move {
        grid-template-columns: minmax(0, 1fr) 60px 96px;
      }
    }
  `,
})
export class Ledger {
  protected readonly t = T;

  readonly record = input.required<VerdictRecord>();

  protected readonly ofBattery = ofBattery;
  protected readonly names = FINDING_NAMES;
  protected readonly causeWords = CAUSE_WORDS;
  protected readonly mayMeet = computed(() => mayOccurTogether(this.record().causes ?? []));
  protected readonly suspects = SUSPECTS;
  protected readonly percent = percent;
  protected readonly push = pushWords;
  protected readonly lines = computed(() => (this.record().ledger ?? []).slice(0, SHOWN));

  /** The words where no finding is weighed. */
  protected readonly instead = computed(() => {
    switch (this.record().ground) {
      case 'frozen-by-volts':
        return BAR_WORDS.frozen;
      case 'reversed-by-volts':
        return BAR_WORDS.reversed;
      case 'stop-stands':
        return T.stopOutranks;
      default:
        return T.noEvidence;
    }
  });

  protected batteryTitle(battery: number, { condition, share }: BatteryFinding): string {
    return `${batteryWord(battery)}: ${CONDITION_WORDS[condition]}, ${inHundred(share)}`;
  }

  /** The finding that moved it most, at it or of the whole machine. */
  protected strongestOf(battery: number, { ledger }: BatteryFinding): LedgerLine[] {
    return ledger.filter((l) => l.battery === undefined || l.battery === battery).slice(0, TOLD_OF_BATTERY);
  }

  protected found({ check, found }: LedgerLine): string {
    return foundWords(check, found);
  }

  protected width({ bits }: LedgerLine): number {
    return Math.min(50, (Math.abs(bits) / FULL_BITS) * 50);
  }
}
