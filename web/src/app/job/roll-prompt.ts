import { inject, Injectable } from '@angular/core';
import { rollingOfJob } from '@voltrek/core/job';
import { rollOrder } from '@voltrek/core/machine';
import type { Work } from '../shared/job/job-selectors';
import { type StepsEnd, StepsPrompt } from '../shared/ui/steps-dialog';
import { ROLL_STEP_WORDS } from '@words/roll-words';
import { ROLL_PROMPT as T } from '@words/screens/job';

/** Goes through a rolling start with whoever drives. */
@Injectable({ providedIn: 'root' })
export class RollPrompt {
  private readonly steps = inject(StepsPrompt);

  /** True: it runs; false: it does not; null: it was not rolled. */
  goThrough({ job, situation }: Work): Promise<StepsEnd> {
    return this.steps.goThrough({
      title: T.rollingStart,
      steps: rollOrder(rollingOfJob(job, situation)).map((step) => ROLL_STEP_WORDS[step]),
      note: T.caution,
      yes: T.itRuns,
      no: T.itDoesNotRun,
      leave: T.notRolled,
    });
  }
}
