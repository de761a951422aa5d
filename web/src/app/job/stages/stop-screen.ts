import { ChangeDetectionStrategy, Component, computed, inject, input, output } from '@angular/core';
import { CAUTION_WORDS, STOP_WORDS } from '@words/words';
import { type StopCondition, STOPS_READ_AGAIN } from '@voltrek/core/diagnosis';
import { isToBeCleared } from '@voltrek/core/hookup';
import { isShownBy, type PlannedRescue, type Stage } from '@voltrek/core/job';
import { goWords } from '@words/next-words';
import { NextAction, type StageAction } from '../next-action';
import { nextActionAt } from '../../shared/job/next-action-at';
import { actionTitle } from '../step-words';
import { offFirst } from '../take-off';
import { ReasonPrompt } from '../../shared/ui/reason-prompt';
import type { Work } from '../../shared/job/job-selectors';
import { Reporter } from '../../shared/job/reporter';
import { withdrawStop } from '../withdraw-stop';
import { STOP_SCREEN as T } from '@words/screens/job-stages';

/** The stop, and the act against it. Shown in place of every stage that would go on. */
@Component({
  selector: 'vt-stop-screen',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [NextAction],
  template: `
    <section class="stage" aria-labelledby="stage-title" role="alert">
      <header>
        <h1 id="stage-title">{{ t.stop }}</h1>
      </header>
      <div class="frame">
        <div class="inner">
          @for (stop of work().situation.stops; track stop) {
            <h2 class="sign">{{ words[stop].sign }}</h2>
            <p>{{ words[stop].wrong }}</p>
            <p class="instead">{{ words[stop].instead }}</p>
            @if (canWithdraw(stop)) {
              <button type="button" class="key" (click)="withdraw(stop)">{{ t.withdraw }}</button>
            }
            @if (readsAgain.includes(stop)) {
              <button type="button" class="key" (click)="readAgain.emit()">{{ t.readItAgain }}</button>
            }
          }
        </div>
      </div>
      @if (firstOff(); as title) {
        <p class="problem" role="status">{{ t.firstOff({ step: title }) }}</p>
      } @else if (isOn()) {
        <p class="problem" role="status">{{ t.leaveTheClamps }}</p>
      }
      <p class="dim">{{ t.caution({ caution }) }}</p>
    </section>
    @let does = action();
    <vt-next-action
      [label]="does.label"
      [action]="does.key"
      [disabled]="does.waits ?? false"
      (go)="does.go()"
    />
  `,
  styles: `
    :host {
      display: contents;
    }
    .frame {
      padding: 12px;
      border-radius: 6px;
      background: repeating-linear-gradient(-45deg, var(--bad) 0 18px, var(--sheet) 18px 36px);
    }
    .inner {
      display: grid;
      gap: 12px;
      justify-items: start;
      padding: 22px;
      border-radius: 4px;
      background: var(--sheet);
    }
    .sign {
      font-size: var(--text-xxl);
      line-height: 1.1;
    }
    .instead {
      font-size: var(--text-l);
      font-weight: 600;
    }
  `,
})
export class StopScreen {
  protected readonly t = T;

  readonly work = input.required<Work>();
  readonly rescue = input.required<PlannedRescue | null>();
  readonly goOn = output<Stage>();
  readonly readAgain = output();

  private readonly reporter = inject(Reporter);
  private readonly reasons = inject(ReasonPrompt);

  protected readonly words = STOP_WORDS;
  protected readonly readsAgain = STOPS_READ_AGAIN;
  protected readonly caution = CAUTION_WORDS.standing;
  // Under a stop every stage but the verdict asks the same; at Measure the lamp of a lift comes off.
  private readonly next = nextActionAt('measure');
  /** Something is on that is better not touched. */
  protected readonly isOn = computed(() => isToBeCleared(this.work().job.hookup));
  /** The first thing to take off, as an order; null where nothing is on. */
  protected readonly firstOff = computed(() => {
    const next = this.next();
    return next.act === 'take-off'
      ? actionTitle(next.action, this.work(), this.rescue(), this.work().job.hookup)
      : null;
  });
  protected readonly action = computed((): StageAction => {
    const next = this.next();
    const off = offFirst(next, this.work(), this.reporter);
    if (off) return off;
    return next.act === 'go'
      ? { label: goWords(next.to, next.why), go: () => this.goOn.emit(next.to) }
      : { label: T.stop, waits: true, go: () => undefined };
  });

  /** A stop that the readings show stands until they are read again. A frozen battery may have thawed since: that may be said. */
  protected canWithdraw(stop: StopCondition): boolean {
    const { bar, coldestC, tempC } = this.work().situation;
    return !isShownBy(bar, stop) || (stop === 'frozen' && coldestC < tempC);
  }

  protected async withdraw(stop: StopCondition): Promise<void> {
    await withdrawStop(this.reasons, this.reporter, stop);
  }
}
