import {
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  input,
  linkedSignal,
  signal,
} from '@angular/core';
import { chargePlanOfJob, isLiftJoined, liftState, nextLiftStep } from '@voltrek/core/job';
import { LIFT_STEPS } from '@voltrek/core/charging';
import { MINUTE_MS, voltsRange } from '@voltrek/core/quantities';
import { LIFT_STATE_TONES, LIFT_STATE_WORDS } from '@words/charge-words';
import { ampsFigure } from '@words/figures';
import { fixed } from '@words/numbers';
import { outOfRange } from '@words/range-words';
import { LIFT as T } from '@words/screens/job-charge';
import type { Work } from '../../shared/job/job-selectors';
import { Reporter } from '../../shared/job/reporter';
import { timeOfDay } from '../../shared/model/dates';
import { typedVolts } from '../../shared/ui/typed-volts';
import { When } from '../../shared/ui/when';
import { Arms } from '../arms';
import { Countdown } from '../countdown';

/** One battery is lifted. */
const RANGE = voltsRange(1);

/** Lifts a battery too flat for its charger: the offer, one step at a time, and the looks while its lamp is joined. */
@Component({
  selector: 'vt-lift',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Arms, Countdown, When],
  template: `
    @if (isBegun()) {
      <section class="step" [attr.aria-label]="t.title">
        <p class="count">{{ t.stepOf({ step: done() + 1, steps: steps.length }) }}</p>
        @let says = words();
        <p class="act">{{ says.act }}</p>
        <p class="dim">{{ says.why }}</p>
        @if (figures(); as line) {
          <p class="risk"><span aria-hidden="true">!</span> {{ line }}</p>
        }
        @if (isJoined()) {
          <vt-countdown [seconds]="minutes() * 60" [since]="lifting()!.joinedAt" />
          <div class="fields">
            <label
              ><span>{{ t.volts }}</span
              ><input
                class="field"
                inputmode="decimal"
                autocomplete="off"
                [value]="voltsText()"
                #volts
                (input)="voltsText.set(volts.value)"
            /></label>
            <button type="button" class="key" [attr.aria-pressed]="isWarm()" (click)="isWarm.set(!isWarm())">
              {{ t.isWarm }}
            </button>
            <button type="button" class="key strong" [disabled]="reading() === null" (click)="note()">
              {{ t.note }}
            </button>
          </div>
          @if (fault(); as text) {
            <p class="problem" role="alert">{{ text }}</p>
          }
          @for (line of lines(); track line.at) {
            <p class="line" [class.dim]="!$first">
              <span>{{ line.at | when: 'time' }}</span> <span>{{ fixed(line.volts, 2) }} V</span>
              <strong [class]="'tone-' + line.tone" [attr.role]="$first ? 'status' : null">{{
                line.words
              }}</strong>
            </p>
          }
        }
        @if (!isJoined()) {
          <button type="button" class="key strong" [vtArms]="next()" (click)="confirm()">
            {{ says.done }}
          </button>
        }
      </section>
    } @else if (offer(); as o) {
      <p class="offer">
        <span
          ><strong>{{ t.offer({ senseVolts: senseVolts() }) }}.</strong> {{ o }}</span
        >
        <button type="button" class="key" [disabled]="!mayBegin()" (click)="begin()">{{ t.begin }}</button>
      </p>
    }
  `,
  styles: `
    @use 'media';

    :host {
      display: block;
    }
    :host:empty {
      display: none;
    }
    .step {
      display: grid;
      gap: 4px;
      padding: 12px 18px;
      border: 2px solid var(--ink);
      border-radius: 6px;
      background: var(--sheet);
    }
    .count {
      font-size: var(--text-xs);
      color: var(--dim);
    }
    .act {
      font-size: var(--text-xl);
      font-weight: 700;
      line-height: 1.15;
    }
    .risk {
      color: var(--watch);
      font-weight: 700;
    }
    .fields {
      display: grid;
      grid-template-columns: minmax(120px, 1fr) auto auto;
      align-items: end;
      gap: 10px;
    }
    .line {
      display: grid;
      grid-template-columns: 64px 80px 1fr;
      gap: 12px;
      line-height: 1.25;
    }
    .step > .strong {
      margin-top: 6px;
      min-width: 200px;
      justify-self: start;
    }
    .offer {
      display: flex;
      flex-wrap: wrap;
      align-items: center;
      justify-content: space-between;
      gap: 4px 12px;
      font-size: var(--text-s);
      line-height: 1.2;
    }
    .offer > span {
      flex: 1 1 260px;
    }
    @include media.narrow {
      .fields {
        grid-template-columns: 1fr 1fr;
      }
    }
  `,
})
export class Lift {
  protected readonly t = T;
  protected readonly fixed = fixed;
  protected readonly steps = LIFT_STEPS;

  readonly work = input.required<Work>();

  private readonly reporter = inject(Reporter);

  protected readonly lifting = computed(() => this.work().job.lifting ?? null);
  private readonly battery = computed(
    () => this.lifting()?.battery ?? this.work().situation.batteries.weakest,
  );
  private readonly plan = computed(() => chargePlanOfJob(this.work().situation, this.battery()));
  protected readonly senseVolts = computed(() => this.work().rules.chargerSenseVolts);
  private readonly isAsked = signal(false);
  protected readonly isBegun = computed(
    () =>
      this.work().job.closedAt === null &&
      (this.lifting() !== null || (this.isAsked() && this.offer() !== null)),
  );
  protected readonly isJoined = computed(() => isLiftJoined(this.work().job));
  protected readonly next = computed(() => nextLiftStep(this.work().job, this.battery()));
  protected readonly done = computed(() => LIFT_STEPS.indexOf(this.next()));
  protected readonly minutes = computed(() => Math.max(1, Math.ceil(this.plan().revival?.minutes ?? 1)));
  /** Nothing is begun under a stop. */
  protected readonly mayBegin = computed(() => this.work().situation.stops.length === 0);

  /** One line of how it is done; null where this battery is not lifted. */
  protected readonly offer = computed(() => {
    const { revival, reviveRefusedByHouse } = this.plan();
    const isLifted = revival !== null && revival.refused === null && revival.minutes !== null;
    if (!isLifted || reviveRefusedByHouse || this.work().job.closedAt !== null) return null;
    const { lampWatts, contactAmps } = revival;
    return T.how({ lampWatts, contactAmps: fixed(contactAmps, 1), minutes: this.minutes() });
  });
  protected readonly words = computed(() => {
    const { revival, chargers, amps } = this.plan();
    const fit = chargers.filter(({ unfit }) => !unfit);
    const charger = fit.find(({ isTooLarge }) => !isTooLarge) ?? fit[0];
    switch (this.next()) {
      case 'prove-polarity':
        return { act: T.polarity, why: T.polarityWhy, done: T.done };
      case 'look-at-case':
        return { act: T.caseCheck, why: T.caseWhy, done: T.done };
      case 'join-lamp':
        return {
          act: T.join({ lampWatts: revival?.lampWatts ?? 0 }),
          why: T.joinWhy,
          done: T.joined,
        };
      case 'part-lamp':
        return {
          act: T.wait({ senseVolts: this.senseVolts(), due: this.due() }),
          why: charger
            ? T.charger({ name: charger.name, amps: ampsFigure(charger.amps) })
            : T.chargerAny({ amps: ampsFigure(amps) }),
          done: '',
        };
    }
  });
  protected readonly figures = computed(() => {
    const { revival } = this.plan();
    switch (this.next()) {
      case 'join-lamp':
        return revival === null
          ? null
          : T.joinFigures({
              contactAmps: fixed(revival.contactAmps, 1),
              inrushAmps: fixed(revival.inrushAmps),
              peakWatts: fixed(revival.peakWatts),
            });
      case 'part-lamp':
        return T.hand;
      default:
        return null;
    }
  });
  private readonly due = computed(() => {
    const since = this.lifting()?.joinedAt;
    return since ? timeOfDay(Date.parse(since) + this.minutes() * MINUTE_MS) : '';
  });

  private readonly count = computed(() => this.lifting()?.readings.length ?? 0);
  protected readonly voltsText = linkedSignal({ source: this.count, computation: () => '' });
  protected readonly isWarm = linkedSignal({ source: this.count, computation: () => false });
  private readonly typed = computed(() => typedVolts(this.voltsText(), RANGE.max));
  protected readonly fault = computed(() => {
    const volts = this.typed();
    return volts === null ? null : outOfRange(T.volts, volts, RANGE);
  });
  protected readonly reading = computed(() => {
    const volts = this.typed();
    return volts === null || this.fault() !== null ? null : { volts, isWarm: this.isWarm() };
  });
  /** Looks at this lift, newest first, each with its meaning. */
  protected readonly lines = computed(() => {
    const lifting = this.lifting();
    const { situation } = this.work();
    if (!lifting) return [];
    return lifting.readings
      .map((reading, i) => {
        const state = liftState({ ...lifting, readings: lifting.readings.slice(0, i + 1) }, situation)!;
        return { ...reading, words: LIFT_STATE_WORDS[state], tone: LIFT_STATE_TONES[state] };
      })
      .reverse();
  });

  protected begin(): void {
    this.isAsked.set(true);
  }

  protected confirm(): void {
    this.reporter.report('lift.confirmed', { battery: this.battery(), step: this.next() });
  }

  protected note(): void {
    const reading = this.reading();
    if (reading) this.reporter.report('lift.read', reading);
  }
}
