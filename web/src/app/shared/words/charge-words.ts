import type { ChargeState, LiftState, LiftStep } from '@voltrek/core/charging';
import type { UnfitCharge } from '@voltrek/core/job';
import { BAR_WORDS, hoursWords, UNFIT_CHARGER_WORDS } from './plan-words';
import { messagesOf } from './messages-of';

const UNFIT = messagesOf('unfitCharge');
const STILL = messagesOf('stillToGo');

/** Why a battery is not put on a charger where it is. */
export function unfitChargeWords(unfit: UnfitCharge): string {
  switch (unfit.code) {
    case 'bar':
      return BAR_WORDS[unfit.bar];
    case 'charger':
      return UNFIT.charger({ why: UNFIT_CHARGER_WORDS[unfit.why] });
    default:
      return UNFIT[unfit.code];
  }
}

/** The meaning of a look at a charge, and the act of now. */
export const CHARGE_STATE_WORDS: Readonly<
  Record<ChargeState, { readonly name: string; readonly now: string }>
> = messagesOf('chargeState');

/** The colour and sign of each. */
export const CHARGE_STATE_TONES: Readonly<Record<ChargeState, 'bad' | 'watch' | 'good'>> = {
  hot: 'bad',
  'over-volts': 'bad',
  'full-at-once': 'watch',
  full: 'good',
  'takes-nothing': 'watch',
  tapering: 'good',
  charging: 'good',
};

/** The meaning of a look at a lift, and the act of now. */
export const LIFT_STATE_WORDS: Readonly<Record<LiftState, string>> = messagesOf('liftState');

/** Steps of a lift as the log tells them. */
export const LIFT_STEP_WORDS: Readonly<Record<LiftStep, string>> = messagesOf('liftStep');

export const LIFT_STATE_TONES: Readonly<Record<LiftState, 'bad' | 'watch' | 'good'>> = {
  warm: 'bad',
  stays: 'bad',
  early: 'watch',
  rises: 'good',
  over: 'good',
};

/** How long it still takes at these amps. */
export const stillToGo = (hoursLeft: number | null): string =>
  hoursLeft === null ? STILL.never : STILL.hours({ time: hoursWords(hoursLeft) });
