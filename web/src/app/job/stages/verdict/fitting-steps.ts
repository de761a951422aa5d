import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { FEEDS, type FeedKind, type FittingOrderStep, isInForce } from '@voltrek/core/hookup';
import type { Job } from '@voltrek/core/job';
import { fittingWords } from '@words/earth-words';
import { amps } from '@words/figures';
import { CIRCUMSTANCE_WORDS } from '@words/words';
import { FITTING_STEPS_PART as T } from '@words/screens/job-stages-verdict';
import type { Work } from '../../../shared/job/job-selectors';
import { Arms } from '../../arms';
import { Reporter } from '../../../shared/job/reporter';

/** A slip that carries less than this is no lesson, A. */
const SLIP_TOLD_AMPS = 50;

/** Other feeds of the machine, as noted on the job. */
export const feedsNoted = ({ hookup }: Pick<Job, 'hookup'>): readonly FeedKind[] =>
  FEEDS.filter((feed) => isInForce(hookup, feed));

/** The next step at a battery that comes out or goes in, with what a spanner that slips would carry; nothing once all are done. */
@Component({
  selector: 'vt-fitting-steps',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Arms],
  host: { class: 'step' },
  template: `
    @if (next(); as step) {
      <p class="count">{{ t.stepOf({ step: doneCount() + 1, steps: order().length }) }}</p>
      <p class="act">{{ words().act }}</p>
      <p class="dim">{{ words().why }}</p>
      @if (slip(); as text) {
        <p>{{ text }}</p>
      }
      <button
        type="button"
        class="key strong"
        [disabled]="isClosed()"
        [vtArms]="words().act"
        (click)="done(step)"
      >
        {{ t.done }}
      </button>
      <div class="keys" role="group" [attr.aria-label]="t.fedBy">
        @for (feed of feedKinds(); track feed) {
          <button type="button" class="key" [attr.aria-pressed]="feeds().includes(feed)" (click)="note(feed)">
            {{ feedWords[feed] }}
          </button>
        }
      </div>
    }
  `,
  styles: `
    @use 'step';

    :host {
      @include step.box;
    }
    @include step.parts;
    .strong {
      margin-top: 6px;
      min-width: 200px;
      justify-self: start;
    }
    .keys {
      margin-top: 6px;
    }
  `,
})
export class FittingSteps {
  protected readonly t = T;

  readonly work = input.required<Work>();
  /** The battery of the machine. */
  readonly at = input.required<number>();
  readonly order = input.required<readonly FittingOrderStep[]>();

  private readonly reporter = inject(Reporter);
  protected readonly feedWords = CIRCUMSTANCE_WORDS;
  /** A memory keeper that the order itself asks for counts anyway. */
  protected readonly feedKinds = computed(() =>
    FEEDS.filter((feed) => feed !== 'memory-keeper' || this.work().machine.resets.length === 0),
  );
  protected readonly feeds = computed(() => feedsNoted(this.work().job));
  protected readonly isClosed = computed(() => this.work().job.closedAt !== null);
  private readonly left = computed(() => stepsLeft(this.work().job, this.at(), this.order()));
  protected readonly doneCount = computed(() => this.order().length - this.left().length);
  protected readonly next = computed(() => this.left()[0] ?? null);
  protected readonly words = computed(() => fittingWords(this.next()!.step, this.work().machine));

  /** The current of a slip of the spanner at this step, and with the order turned round. */
  protected readonly slip = computed(() => {
    const step = this.next();
    if (step?.slipAmps == null || step.otherWayAmps === null) return null;
    const now = T.slipAmps({ slipAmps: amps(step.slipAmps) });
    // With the negative off nothing but a feed can drive a slip at the positive.
    if (step.slipAmps > 0 && step.step.startsWith('positive')) return T.slipFed({ amps: now });
    return step.otherWayAmps > SLIP_TOLD_AMPS
      ? T.slipBothWays({ amps: now, otherAmps: amps(step.otherWayAmps) })
      : `${now}.`;
  });

  protected note(what: FeedKind): void {
    this.reporter.report('circumstance.noted', { what, on: !this.feeds().includes(what) });
  }

  protected done({ step }: FittingOrderStep): void {
    this.reporter.report('fitting.confirmed', { battery: this.at(), step });
  }
}

/** The steps of an order that are not done yet at this battery. */
export const stepsLeft = (
  { fitting }: Pick<Job, 'fitting'>,
  at: number,
  order: readonly FittingOrderStep[],
): readonly FittingOrderStep[] =>
  order.filter(({ step }) => !fitting.some((f) => f.battery === at && f.step === step));
