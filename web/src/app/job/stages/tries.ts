import type { AttemptOutcome } from '@voltrek/core/crank';
import { fixed } from '@words/numbers';
import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { startsByWaking } from '@voltrek/core/machine';
import { type Attempt, type PlannedRescue, tryLimitSeconds } from '@voltrek/core/job';
import { comparePromise } from '@voltrek/core/plan';
import type { Work } from '../../shared/job/job-selectors';
import { volts } from '@words/figures';

import { CAUTION_WORDS, adviceAfter, outcomeWords, PROMISE_WORDS } from '@words/words';
import { TRIES as T } from '@words/screens/job-stages';

/** The tries that have ended, each against what the plan promised. */
@Component({
  selector: 'vt-tries',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <ol class="ruled tries">
      @for (a of work().job.attempts; track a.startedAt; let i = $index) {
        @if (a.outcome; as outcome) {
          <li>
            <strong>{{ t.try({ number: i + 1, name: words()[outcome].name }) }}</strong>
            <span class="dim"
              >{{ a.rolled ? t.rolled : fixed(a.seconds ?? 0) + ' s'
              }}{{ a.lowestVolts === null ? '' : ', ' + volts(a.lowestVolts) }}</span
            >
            @if (limitPassed(a); as seconds) {
              <span class="next-step">{{ t.late({ seconds }) }}</span>
            }
            @if (promise(a.lowestVolts, a.helped); as line) {
              <span class="next-step">{{ line }}</span>
            }
            <span class="next-step">{{
              a.rolled && outcome !== 'started' ? rolledInVain : advice(outcome, a.sourceId)
            }}</span>
          </li>
        }
      }
    </ol>
  `,
  styles: `
    li {
      display: grid;
      grid-template-columns: 1fr auto;
      gap: 0 14px;
      padding: 8px 0;
    }
    .next-step {
      grid-column: 1 / -1;
    }
  `,
})
export class Tries {
  protected readonly fixed = fixed;
  protected readonly t = T;

  readonly work = input.required<Work>();
  readonly rescue = input.required<PlannedRescue | null>();

  protected readonly rolledInVain = CAUTION_WORDS.rolledInVain;
  protected readonly volts = volts;
  protected readonly words = computed(() => outcomeWords(this.work().machine));

  /** Of what was joined in that try, and of nothing else. */
  protected advice(outcome: AttemptOutcome, sourceId: string | null): string {
    if (startsByWaking(this.work().machine)) return this.words()[outcome].next;
    const helper = this.work().kit.find((k) => k.id === sourceId)?.kind ?? null;
    return adviceAfter(outcome, helper);
  }

  /** The limit of a try that was answered after it, s: nobody knows how long it cranked. */
  protected limitPassed({ seconds, optionId, rolled }: Attempt): number | null {
    const { machine, rules } = this.work();
    const option = this.rescue()?.option;
    const limit = tryLimitSeconds(machine, rules, option?.id === optionId ? option.source : null);
    return limit !== null && !rolled && (seconds ?? 0) > limit ? limit : null;
  }

  /** The lowest volts read against the plan's; nothing to say without both. */
  protected promise(lowestVolts: number | null, helped: boolean): string | null {
    const { plan } = this.work().job;
    const promised = plan?.postVolts ?? plan?.wakeVolts ?? null;
    if (lowestVolts === null || promised === null || helped === plan?.chargeOnly) return null;
    const { differenceVolts, code } = comparePromise(
      promised,
      lowestVolts,
      this.work().machine.systemVolts,
      this.work().rules,
    );
    const sign = differenceVolts < 0 ? '-' : '+';
    return T.comparison({
      promised: volts(promised, 1),
      sign,
      difference: volts(Math.abs(differenceVolts), 1),
      comparison: PROMISE_WORDS[code],
    });
  }
}
