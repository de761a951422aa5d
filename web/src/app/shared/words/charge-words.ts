import type { ChargeState } from '@voltrek/core/charging';
import type { UnfitCharge } from '@voltrek/core/job';
import { BAR_WORDS, hoursWords, UNFIT_CHARGER_WORDS } from './plan-words';

/** Why a battery is not put on a charger where it is. */
export function unfitChargeWords(unfit: UnfitCharge): string {
  switch (unfit.code) {
    case 'bar':
      return BAR_WORDS[unfit.bar];
    case 'charger':
      return `not with this one: ${UNFIT_CHARGER_WORDS[unfit.why]}`;
    case 'stopped':
      return 'a stop is in force';
    case 'runs':
      return 'the engine runs: its own alternator charges it';
    case 'unread':
      return 'read its rest volts first';
    case 'no-mains':
      return 'no socket near, by Scene';
    case 'take-out':
      return 'take it out to charge';
    case 'sense':
      return 'too flat for a charger: lift it first';
  }
}

export const TOO_LARGE_WORDS = 'pushes more than it should take: set it lower';

/** The meaning of a look at a charge, and the act of now. */
export const CHARGE_STATE_WORDS: Readonly<
  Record<
    ChargeState,
    { readonly name: string; readonly now: string; readonly tone: 'bad' | 'watch' | 'good' }
  >
> = {
  hot: {
    name: 'Too warm',
    now: 'Charger off, plug out, then the clamps. Let it cool in the open; it is not charged again here.',
    tone: 'bad',
  },
  'over-volts': {
    name: 'Above its volts',
    now: 'Charger off and out: it boils. Another setting, or another charger.',
    tone: 'bad',
  },
  'full-at-once': {
    name: 'Full far too soon',
    now: 'A flat battery that is full in minutes holds nothing any more. Note it as found.',
    tone: 'watch',
  },
  full: {
    name: 'Full',
    now: 'Charger off, plug out, then the clamps. Rest a day before it is judged.',
    tone: 'good',
  },
  'takes-nothing': {
    name: 'Takes nothing',
    now: 'Look at clamps, plug and fuse of the charger; then at the battery: a broken link takes nothing.',
    tone: 'watch',
  },
  charging: { name: 'Charging', now: '', tone: 'good' },
};

/** How long it still takes at these amps. */
export const stillToGo = (hoursLeft: number | null): string =>
  hoursLeft === null
    ? 'It does not get full at these amps.'
    : `Still ${hoursWords(hoursLeft)} at these amps.`;
