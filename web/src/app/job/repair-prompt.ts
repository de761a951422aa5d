import { inject, Injectable } from '@angular/core';
import { repairOrder } from '@voltrek/core/hookup';
import type { Repair } from '@voltrek/core/diagnosis';
import { FEEDS, isInForce } from '@voltrek/core/hookup';
import type { Work } from '../shared/job/job-selectors';
import { StepsPrompt } from '../shared/ui/steps-dialog';
import { amps } from '@words/figures';
import { repairStepWords } from '@words/earth-words';
import { repairName } from '@words/repair-words';
import { REPAIR_PROMPT as T } from '@words/screens/job';

/** A slip that carries less is not shown, A. */
const SLIP_TOLD_AMPS = 1;

/** Goes through a repair with whoever makes it, with what to mind at each step. */
@Injectable({ providedIn: 'root' })
export class RepairPrompt {
  private readonly steps = inject(StepsPrompt);

  /** True when it was mended. */
  async goThrough({ job, machine, situation }: Work, repair: Repair): Promise<boolean> {
    const feeds = FEEDS.filter((feed) => isInForce(job.hookup, feed));
    const { batteries, tempC } = situation;
    const order = repairOrder(repair, machine, batteries.models, tempC, feeds);
    const end = await this.steps.goThrough({
      title: repairName(repair),
      steps: order.map(({ step, slipAmps }) => ({
        ...repairStepWords(step, machine),
        ...((slipAmps ?? 0) > SLIP_TOLD_AMPS && {
          risk: T.slipAmps({ slipAmps: amps(slipAmps!) }),
        }),
      })),
      note: T.caution,
      yes: T.mended,
      leave: T.notMended,
    });
    return end === true;
  }
}
