import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { fixed } from '@words/numbers';
import { bankCondition } from '@voltrek/core/verdict';
import { volts } from '@words/figures';
import { shortMinutes } from '@words/plan-words';
import { BANK_NOW as T } from '@words/screens/job-stages-measure';
import type { Work } from '../../../shared/job/job-selectors';

/** A capacitor bank in the battery's place: cranks left, how long it holds, how soon it is full. Nothing for any other machine. */
@Component({
  selector: 'vt-bank-now',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (bank(); as b) {
      <h2 class="part">{{ t.bank({ farads: fixed(b.farads), volts: volts(b.volts) }) }}</h2>
      <p [class]="tone(b.cranks)">
        {{ t.cranksLeft({ cranks: b.cranks, cutOff: volts(b.minVolts, 1) }) }}
      </p>
      <dl>
        @if (b.parkedHours > 0) {
          <dt>{{ t.holds }}</dt>
          <dd>
            {{
              t.withLampsOn({
                headlamps: minutes(b.minutesOn.headlamps),
                parking: minutes(b.minutesOn['parking-lamps']),
                parked: minutes(b.parkedHours * 60),
              })
            }}
          </dd>
        }
        <dt>{{ t.fullAgain }}</dt>
        <dd>
          {{
            t.byWhat({
              alternator: minutes(b.minutesToFull.alternator),
              converter: minutes(b.minutesToFull.converter),
              solar: minutes(b.minutesToFull.solar),
            })
          }}
        </dd>
      </dl>
    }
  `,
  styles: `
    p {
      margin: 0;
      font-weight: 600;
    }
    dl {
      display: grid;
      grid-template-columns: auto 1fr;
      gap: 0 12px;
      margin: 4px 0 8px;
      line-height: 1.2;
    }
    dd {
      margin: 0;
    }
  `,
})
export class BankNow {
  protected readonly fixed = fixed;
  protected readonly t = T;

  /** The last one is nothing to be at ease about. */
  protected tone(cranks: number): string {
    return cranks > 1 ? 'tone-good' : cranks === 1 ? 'tone-watch' : 'tone-bad';
  }

  readonly work = input.required<Work>();

  protected readonly bank = computed(() => {
    const { machine, rules, situation } = this.work();
    const [restVolts = null] = situation.restVolts;
    return restVolts === null ? null : bankCondition(machine, restVolts, situation.tempC, rules);
  });
  protected readonly minutes = shortMinutes;
  protected readonly volts = volts;
}
