import { timeOfDay } from '../../shared/model/dates';
import { fixed } from '@words/numbers';
import { inject, Injectable } from '@angular/core';
import type { ChargePlan } from '@voltrek/core/verdict';
import { MINUTE_MS } from '@voltrek/core/quantities';
import { type Steps, StepsPrompt } from '../../shared/ui/steps-dialog';
import { REVIVE_PROMPT as T } from '@words/screens/job-charge';
import { ampsFigure } from '@words/figures';

/** The volts that this battery must rise to before its charger takes it, V. */
export interface Lift {
  readonly plan: ChargePlan;
  readonly senseVolts: number;
}

/** The steps that lift a battery over its charger's sense voltage, with the figures of this one. */
export function reviveSteps({ plan, senseVolts }: Lift, now: Date): Steps | null {
  const { revival, chargers, amps } = plan;
  if (!revival || revival.refused || revival.minutes === null) return null;
  const minutes = Math.max(1, Math.ceil(revival.minutes));
  const due = timeOfDay(now.getTime() + minutes * MINUTE_MS);
  const fit = chargers.filter(({ unfit }) => !unfit);
  const charger = fit.find(({ isTooLarge }) => !isTooLarge) ?? fit[0];
  return {
    title: T.title,
    steps: [
      {
        act: T.polarity,
        why: T.polarityWhy,
      },
      {
        act: T.caseCheck,
        why: T.caseWhy,
      },
      {
        act: T.join({ lampWatts: revival.lampWatts }),
        why: T.joinWhy,
        risk: T.joinFigures({
          contactAmps: fixed(revival.contactAmps, 1),
          peakWatts: fixed(revival.peakWatts),
        }),
      },
      {
        act: T.wait({ minutes, due }),
        why: T.waitWhy({ senseVolts }),
      },
      {
        act: T.watch,
        why: T.watchWhy,
        risk: T.watchGas,
      },
      {
        act: charger
          ? T.charger({
              name: charger.name,
              amps: ampsFigure(charger.amps),
            })
          : T.chargerAny({ amps: ampsFigure(amps) }),
        why: T.chargerWhy,
      },
      {
        act: T.rest({ restHours: plan.restHours }),
        why: T.restWhy,
      },
    ],
    note: T.caution,
    yes: T.done,
    leave: T.notDone,
  };
}

/** Goes through lifting a battery with whoever does it. */
@Injectable({ providedIn: 'root' })
export class RevivePrompt {
  private readonly steps = inject(StepsPrompt);

  /** True when it rose over the sense voltage. */
  async goThrough(lift: Lift): Promise<boolean> {
    const steps = reviveSteps(lift, new Date());
    return steps !== null && (await this.steps.goThrough(steps)) === true;
  }
}
