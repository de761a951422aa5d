import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { chargePlanOfJob, isLiftJoined, liftState, nextLiftStep } from '@voltrek/core/job';
import { LIFT_STEPS } from '@voltrek/core/charging';
import { MINUTE_MS, voltsRange } from '@voltrek/core/quantities';
import { LIFT_STATE_TONES, LIFT_STATE_WORDS } from '@words/charge-words';
import { ampsFigure } from '@words/figures';
import { fixed } from '@words/numbers';
import { LIFT as T } from '@words/screens/job-charge';
import type { Work } from '../../shared/job/job-selectors';
import { Reporter } from '../../shared/job/reporter';
import { timeOfDay } from '../../shared/model/dates';
import { When } from '../../shared/ui/when';
import { Arms } from '../arms';
import { Countdown } from '../countdown';
import { type Look, WatchFields } from './watch-fields';

/** One battery is lifted. */
const RANGE = voltsRange(1);

/** The words of a step; one that the action bar ends has no key of its own. */
interface StepWords {
  readonly act: string;
  readonly why: string;
  readonly risk?: string;
  readonly done?: string;
}

/** Lifts a battery too flat for its charger: the offer, one step at a time, and the looks while its lamp is joined. */
@Component({
  selector: 'vt-lift',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Arms, Countdown, WatchFields, When],
  template: `
    @if (isBegun()) {
      <section class="step" [attr.aria-label]="t.title">
        <p class="count">{{ t.stepOf({ step: done() + 1, steps: steps.length }) }}</p>
        @let says = words();
        <p class="act">{{ says.act }}</p>
        <p class="dim">{{ says.why }}</p>
        @if (says.risk; as line) {
          <p class="risk"><span aria-hidden="true">!</span> {{ line }}</p>
        }
        @if (isJoined()) {
          <vt-countdown [seconds]="minutes() * 60" [since]="lifting()!.joinedAt" />
          <vt-watch-fields [range]="range" [count]="lines().length" (noted)="note($event)" />
          @for (line of lines(); track line.at) {
            <p class="line" [class.dim]="!$first">
              <span>{{ line.at | when: 'time' }}</span> <span>{{ fixed(line.volts, 2) }} V</span>
              <strong [class]="'tone-' + line.tone" [attr.role]="$first ? 'status' : null">{{
                line.words
              }}</strong>
            </p>
          }
        }
        @if (says.done; as done) {
          <button type="button" class="key strong" [vtArms]="next()" (click)="confirm()">
            {{ done }}
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
    @use 'step';

    :host {
      display: block;
    }
    :host:empty {
      display: none;
    }
    .step {
      @include step.box;
      @include step.parts;
    }
    .risk {
      color: var(--watch);
      font-weight: 700;
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
  `,
})
export class Lift {
  protected readonly t = T;
  protected readonly fixed = fixed;
  protected readonly steps = LIFT_STEPS;
  protected readonly range = RANGE;

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
  protected readonly words = computed((): StepWords => {
    const { revival, chargers, amps } = this.plan();
    switch (this.next()) {
      case 'prove-polarity':
        return { act: T.polarity, why: T.polarityWhy, done: T.done };
      case 'look-at-case':
        return { act: T.caseCheck, why: T.caseWhy, done: T.done };
      case 'join-lamp': {
        const risk = revival && {
          contactAmps: fixed(revival.contactAmps, 1),
          inrushAmps: fixed(revival.inrushAmps),
          peakWatts: fixed(revival.peakWatts),
        };
        return {
          act: T.join({ lampWatts: revival?.lampWatts ?? 0 }),
          why: T.joinWhy,
          ...(risk && { risk: T.joinFigures(risk) }),
          done: T.joined,
        };
      }
      case 'part-lamp': {
        const fit = chargers.filter(({ unfit }) => !unfit);
        const charger = fit.find(({ isTooLarge }) => !isTooLarge) ?? fit[0];
        const why = charger
          ? T.charger({ name: charger.name, amps: ampsFigure(charger.amps) })
          : T.chargerAny({ amps: ampsFigure(amps) });
        return { act: T.wait({ senseVolts: this.senseVolts(), due: this.due() }), why, risk: T.hand };
      }
    }
  });
  private readonly due = computed(() => {
    const since = this.lifting()?.joinedAt;
    return since ? timeOfDay(Date.parse(since) + this.minutes() * MINUTE_MS) : '';
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

  protected note({ volts, isWarm }: Look): void {
    this.reporter.report('lift.read', { volts, isWarm });
  }
}
