import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { ampsFigure } from '@words/figures';
import { Router } from '@angular/router';
import { anyClampOn } from '@voltrek/core/hookup';
import { type ChargeChoice, chargeChoices, chargeRecord } from '@voltrek/core/job';
import type { Work } from '../../shared/job/job-selectors';
import { Reporter } from '../../shared/job/reporter';
import { unfitChargeWords } from '@words/charge-words';
import { hoursWords } from '@words/plan-words';
import { CAUTION_WORDS, batteryWord } from '@words/words';
import { PUT_ON_CHARGE as T } from '@words/screens/job-charge';

/** The chargers of the van, the batteries that they fit, the hours, and the tap that begins it. */
@Component({
  selector: 'vt-put-on-charge',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (shown().length > 0 && work().job.closedAt === null) {
      @if (isInPlan()) {
        <h2>{{ t.title }}</h2>
      } @else {
        <h3>{{ t.action }}</h3>
      }
      <ul class="ruled">
        @for (c of shown(); track c.option.id) {
          <li>
            <strong>{{ c.charger }}{{ many() ? ', ' + batteryWord(c.battery) : '' }}</strong>
            @if (c.unfit; as unfit) {
              <span class="dim">{{ why(unfit) }}</span>
            } @else {
              <span
                >{{ t.aInThisCold({ amps: ampsFigure(c.amps), hours: hours(c.hours) }) }}
                @if (c.isTooLarge) {
                  <span class="tone-watch">{{ tooLarge }}</span>
                }
              </span>
              <button type="button" class="key strong" [disabled]="clampsOn()" (click)="begin(c)">
                {{ clampsOn() ? t.clearDownFirst : t.putItOn }}
              </button>
            }
          </li>
        }
      </ul>
    }
  `,
  styles: `
    @use 'media';

    li {
      display: grid;
      grid-template-columns: minmax(0, 3fr) minmax(0, 4fr) 150px;
      align-items: center;
      gap: 12px;
      min-height: 48px;
      font-size: var(--text-s);
      line-height: 1.2;
    }
    li .dim {
      grid-column: span 2;
      margin: 0;
    }
    @include media.narrow {
      li {
        grid-template-columns: minmax(0, 1fr) auto;
        gap: 4px 12px;
        padding: 6px 0;
      }
      li strong {
        grid-column: 1 / -1;
      }
    }
  `,
})
export class PutOnCharge {
  protected readonly ampsFigure = ampsFigure;
  protected readonly t = T;

  readonly work = input.required<Work>();
  /** Beside the ways to get it going: only what can be done is shown. */
  readonly isInPlan = input(false);

  private readonly reporter = inject(Reporter);
  private readonly router = inject(Router);

  protected readonly batteryWord = batteryWord;
  protected readonly hours = hoursWords;
  protected readonly why = unfitChargeWords;
  protected readonly tooLarge = CAUTION_WORDS.tooLarge;
  protected readonly many = computed(() => this.work().machine.batteries.length > 1);
  protected readonly clampsOn = computed(() => anyClampOn(this.work().job.hookup));
  protected readonly shown = computed(() => {
    const choices = chargeChoices(this.work().situation);
    return this.isInPlan() ? choices.filter(({ unfit }) => unfit === null) : choices;
  });

  protected begin(choice: ChargeChoice): void {
    const record = chargeRecord(choice);
    if (!record) return;
    this.reporter.report('plan.chosen', record);
    void this.router.navigate(['/job', this.work().job.id, 'hookup']);
  }
}
