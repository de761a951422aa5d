import { inject, Injectable } from '@angular/core';
import { type Repair, repairOrder } from '@voltrek/core/diagnosis';
import { FEEDS, stands } from '@voltrek/core/hookup';
import { batteriesOfJob, workingTempC } from '@voltrek/core/job';
import type { Work } from '../shared/job/job-selectors';
import { StepsPrompt } from '../shared/ui/steps-dialog';
import { amps } from '../shared/words/figures';
import { repairStepWords } from '../shared/words/earth-words';
import { repairName } from '../shared/words/repair-words';

/** A slip that carries less is not told, A. */
const SLIP_TOLD_AMPS = 1;

/** Goes through a repair with whoever makes it, with what to mind at each step. */
@Injectable({ providedIn: 'root' })
export class RepairPrompt {
  private readonly steps = inject(StepsPrompt);

  /** True when it was mended. */
  async goThrough({ job, machine }: Work, repair: Repair): Promise<boolean> {
    const feeds = FEEDS.filter((feed) => stands(job.hookup, feed));
    const { models } = batteriesOfJob(job, machine);
    const order = repairOrder(repair, machine, models, workingTempC(job), feeds);
    const end = await this.steps.goThrough({
      title: repairName(repair),
      steps: order.map(({ step, slipAmps }) => ({
        ...repairStepWords(step, machine),
        ...((slipAmps ?? 0) > SLIP_TOLD_AMPS && {
          risk: `A spanner slipping to bodywork now: ${amps(slipAmps!)}.`,
        }),
      })),
      note: "The maker's instructions come first. What a hand cannot mend here is for a workshop.",
      yes: 'Mended',
      leave: 'Not mended',
    });
    return end === true;
  }
}
