import { ChangeDetectionStrategy, Component, computed, input, linkedSignal } from '@angular/core';
import { fixed } from '@words/numbers';
import { chargePlanOfJob, roadOfJob } from '@voltrek/core/job';
import {
  BAR_WORDS,
  CHARGE_PLACE_WORDS,
  CHEMISTRY_WORDS,
  hoursWords,
  PLACE_REASON_WORDS,
  notRevivedWords,
} from '@words/plan-words';
import { roadWords } from '@words/road-words';
import type { Work } from '../../../shared/job/job-selectors';
import { TakeOut } from './take-out';
import { PutOnCharge } from '../../charge/put-on-charge';
import { Lift } from '../../charge/lift-part';
import { CHARGE_ADVICE as T } from '@words/screens/job-stages-verdict';
import { ampsFigure } from '@words/figures';

/** How the weakest battery is brought back to full: current, volts, hours, where, and what comes first. */
@Component({
  selector: 'vt-charge-advice',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Lift, PutOnCharge, TakeOut],
  template: `
    <h3>
      {{
        t.title({
          chemistry: chemistryWords[plan().chemistry],
          theWeakestOfTheString: string() ? t.weakest : '',
        })
      }}
    </h3>
    @if (plan().bar; as bar) {
      <p class="problem" role="alert">{{ barWords[bar] }}</p>
    } @else {
      <dl class="figure-row">
        <div>
          <dt>{{ t.ampsWhy }}</dt>
          <dd class="figure">{{ ampsFigure(plan().amps) }} <small>A</small></dd>
        </div>
        <div>
          <dt>{{ t.holdAt }}</dt>
          <dd class="figure">
            {{ t.to({ leastVolts: plan().leastVolts, mostVolts: plan().mostVolts }) }} <small>V</small>
          </dd>
        </div>
        <div>
          <dt>{{ t.toFullFrom({ fromSoc: fixed(plan().fromSoc * 100) }) }}</dt>
          <dd class="figure">{{ hours(plan().hours) }}</dd>
        </div>
        <div>
          <dt>{{ t.keepWith }}</dt>
          <dd class="figure">{{ plan().maintainAmps }} <small>A</small></dd>
        </div>
      </dl>
      <ul class="ruled">
        <li>
          <strong>{{ placeWords[plan().place] }}</strong
          ><span class="dim">{{ reasonWords[plan().placeReason] }}</span>
          @if (work().job.closedAt === null) {
            <button
              type="button"
              class="key"
              [attr.aria-pressed]="takingOut()"
              (click)="takingOut.set(!takingOut())"
            >
              {{ t.takeOut }}
            </button>
          }
        </li>
        @if (plan().revival; as r) {
          <li class="revive">
            @if (r.refused) {
              <strong>{{ t.senseRefuses }}</strong>
              <span class="tone-bad">{{ notRevivedWords(r.refused) }}</span>
            } @else if (plan().reviveRefusedByHouse) {
              <strong>{{ t.senseRefuses }}</strong>
              <span class="tone-bad">{{ t.replaceByRule }}</span>
            } @else {
              <vt-lift [work]="work()" />
            }
          </li>
        }
        <li>
          <strong>{{ t.rest({ restHours: plan().restHours }) }}</strong
          ><span class="dim">{{ t.restWhy }}</span>
        </li>
        @if (drive(); as line) {
          <li>
            <strong>{{ t.onTheRoad }}</strong
            ><span>{{ line }}</span>
          </li>
        }
      </ul>
      @if (takingOut()) {
        <vt-take-out [work]="work()" [plan]="plan()" />
      } @else {
        <vt-put-on-charge [work]="work()" />
      }
    }
  `,
  styles: `
    @use 'media';

    :host {
      display: flex;
      flex-direction: column;
      gap: 10px;
    }
    li:has(vt-lift) {
      display: block;
    }
    li .dim {
      margin: 0;
    }
    li {
      display: grid;
      grid-template-columns: minmax(0, 2fr) minmax(0, 3fr);
      gap: 12px;
      padding: 6px 0;
      font-size: var(--text-s);
      line-height: 1.2;
    }
    @include media.narrow {
      li {
        grid-template-columns: 1fr;
        gap: 2px;
      }
    }
  `,
})
export class ChargeAdvice {
  protected readonly fixed = fixed;
  protected readonly ampsFigure = ampsFigure;
  protected readonly t = T;

  readonly work = input.required<Work>();

  protected readonly hours = hoursWords;
  protected readonly chemistryWords = CHEMISTRY_WORDS;
  protected readonly barWords = BAR_WORDS;
  protected readonly placeWords = CHARGE_PLACE_WORDS;
  protected readonly reasonWords = PLACE_REASON_WORDS;
  protected readonly notRevivedWords = notRevivedWords;

  protected readonly string = computed(() => this.work().machine.batteries.length > 1);
  protected readonly plan = computed(() => chargePlanOfJob(this.work().situation));
  /** Shown by itself once a step of it is done. */
  protected readonly takingOut = linkedSignal(() => this.work().job.fitting.length > 0);
  protected readonly drive = computed(() => {
    const { job, situation } = this.work();
    return roadWords(roadOfJob(job, situation), this.work().machine.machineClass);
  });
}
