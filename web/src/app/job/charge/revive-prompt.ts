import { formatDate } from '@angular/common';
import { inject, Injectable } from '@angular/core';
import type { ChargePlan } from '@voltrek/core/verdict';
import { MINUTE_MS } from '@voltrek/core/quantities';
import { type Steps, StepsPrompt } from '../../shared/ui/steps-dialog';

/** What a reading of this battery must rise to before its charger takes it, V. */
export interface Lift {
  readonly plan: ChargePlan;
  readonly senseVolts: number;
}

/** The steps that lift a battery over its charger's sense voltage, with the figures of this one. */
export function reviveSteps({ plan, senseVolts }: Lift, now: Date): Steps | null {
  const { revival, chargers, amps } = plan;
  if (!revival || revival.refused || revival.minutes === null) return null;
  const minutes = Math.max(1, Math.ceil(revival.minutes));
  const due = formatDate(new Date(now.getTime() + minutes * MINUTE_MS), 'HH:mm', 'en');
  const fit = chargers.filter(({ unfit }) => !unfit);
  const charger = fit.find((c) => c.amps <= amps * 1.5) ?? fit[0];
  return {
    title: 'Lift it over the sense voltage',
    steps: [
      {
        act: 'Prove its polarity twice',
        why: 'The marks of its case and the meter must agree. One that reads backwards is never lifted.',
      },
      {
        act: 'Ask its age, look at its case',
        why: 'Swollen, cracked, wet, or older than six years: it is replaced, not lifted.',
      },
      {
        act: `Healthy battery beside it: red to red, then black to black through a ${revival.lampWatts} W lamp`,
        why: 'The lamp holds the current down: it glows at first and fades as the volts come up.',
        risk: `${revival.contactAmps.toFixed(1)} A at the first contact, ${revival.peakWatts.toFixed(0)} W in the lamp: it gets hot.`,
      },
      {
        act: `Leave it for ${minutes} min, until about ${due}`,
        why: `Then it should read over ${senseVolts} V. Does it not rise in twice that time, suspect a shorted cell: it is tested, not charged on.`,
      },
      {
        act: 'Hand on the case every few minutes',
        why: 'Warm means off at once. Nobody leaves it alone.',
        risk: 'Gas: in the open, no flame, eyes covered.',
      },
      {
        act: charger
          ? `Lamp off, black first. Then ${charger.name}, set to ${Math.min(amps, charger.amps).toFixed(amps < 10 ? 1 : 0)} A`
          : `Lamp off, black first. Then a charger of its kind, ${amps.toFixed(amps < 10 ? 1 : 0)} A`,
        why: 'A tenth of its capacity: more warms plates that have slept.',
      },
      {
        act: `Rest ${plan.restHours} h after the charge, then read and test it`,
        why: 'Before that nothing tells whether it holds.',
      },
    ],
    note: "The maker's instructions come first. A deep discharge has cost it life, whatever it reads afterwards.",
    yes: 'It is over: read it again',
    leave: 'Not done',
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
