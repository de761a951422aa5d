import { timeOfDay } from '../../shared/model/dates';
import { fixed } from '@words/numbers';
import { inject, Injectable } from '@angular/core';
import type { ChargePlan } from '@voltrek/core/verdict';
import { MINUTE_MS } from '@voltrek/core/quantities';
import { type Steps, StepsPrompt } from '../../shared/ui/steps-dialog';
import { REVIVE_PROMPT as T } from '@words/screens/job-charge';

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
  const charger = fit.find((c) => c.amps <= amps * 1.5) ?? fit[0];
  return {
    title: T.liftItOverTheSenseVoltage,
    steps: [
      {
        act: T.proveItsPolarityTwice,
        why: T.theMarksOfItsCaseAnd,
      },
      {
        act: T.askItsAgeLookAtIts,
        why: T.swollenCrackedWetOrOlderThan,
      },
      {
        act: T.healthyBatteryBesideItRedTo({ lampWatts: revival.lampWatts }),
        why: T.theLampHoldsTheCurrentDown,
        risk: T.aAtTheFirstContactW({
          contactAmps: fixed(revival.contactAmps, 1),
          peakWatts: fixed(revival.peakWatts),
        }),
      },
      {
        act: T.leaveItForMinUntilAbout({ minutes, due }),
        why: T.thenItShouldReadOverV({ senseVolts }),
      },
      {
        act: T.handOnTheCaseEveryFew,
        why: T.warmMeansOffAtOnceNobody,
        risk: T.gasInTheOpenNoFlame,
      },
      {
        act: charger
          ? T.lampOffBlackFirstThenSet({
              name: charger.name,
              amps: fixed(Math.min(amps, charger.amps), amps < 10 ? 1 : 0),
            })
          : T.lampOffBlackFirstThenA({ amps: fixed(amps, amps < 10 ? 1 : 0) }),
        why: T.aTenthOfItsCapacityMore,
      },
      {
        act: T.restHAfterTheChargeThen({ restHours: plan.restHours }),
        why: T.beforeThatNothingTellsWhetherIt,
      },
    ],
    note: T.theMakersInstructionsComeFirstA,
    yes: T.itIsOverReadItAgain,
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
