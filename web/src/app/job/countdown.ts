import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { NgbProgressbar } from '@ng-bootstrap/ng-bootstrap/progressbar';
import { clock } from '@words/figures';
import { Cues } from '../shared/ui/cues';
import { Voice } from '../shared/ui/voice';
import { whenPassed } from '../shared/ui/when-passed';
import { serverTicker } from '../shared/job/ticker';
import { COUNTDOWN as T } from '@words/screens/job';
import { SPOKEN } from '@words/screens/shell';

/** The seconds left that are told aloud. */
const TOLD_AT_S = [60, 30, 10] as const;

/** A wait, counted down from the act that began it, so that a reload does not start it again. */
@Component({
  selector: 'vt-countdown',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [NgbProgressbar],
  template: `
    <div class="row">
      <span class="figure" role="timer">{{ left() }}</span>
      <ngb-progressbar [value]="share()" [max]="1" [ariaLabel]="t.wait" />
    </div>
  `,
  styles: `
    .row {
      display: grid;
      grid-template-columns: minmax(96px, auto) 1fr;
      align-items: center;
      gap: 14px;
      margin-top: 14px;
      padding-top: 12px;
      border-top: 1px solid var(--line);
    }
    .figure {
      white-space: nowrap;
      font-size: var(--text-xxl);
    }
  `,
})
export class Countdown {
  protected readonly t = T;

  readonly seconds = input.required<number>();

  /** ISO 8601; null counts from now. */
  readonly since = input.required<string | null>();

  private readonly now = serverTicker();
  private readonly started = computed(() => Date.parse(this.since() ?? new Date().toISOString()));
  private readonly passed = computed(() => Math.max(0, (this.now() - this.started()) / 1000));

  private readonly secondsLeft = computed(() => this.seconds() - this.passed());
  protected readonly left = computed(() => clock(this.secondsLeft()));
  protected readonly share = computed(() => Math.min(1, this.passed() / this.seconds()));

  constructor() {
    const cues = inject(Cues);
    whenPassed(this.secondsLeft, () => cues.give('over'));
    const voice = inject(Voice);
    for (const seconds of TOLD_AT_S)
      whenPassed(
        computed(() => this.secondsLeft() - seconds),
        () => voice.say(SPOKEN.secondsLeft({ seconds })),
      );
  }
}
