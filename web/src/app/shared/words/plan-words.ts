import type { BatteryBar, Chemistry } from '@voltrek/core/battery';
import type { LampLift } from '@voltrek/core/verdict';
import type { FittingStep } from '@voltrek/core/hookup';
import type { ChargePlace, ChargerHours, Misfit, PlaceReason } from '@voltrek/core/verdict';
import { messagesOf } from './messages-of';
import { fixed } from './numbers';

/** Acts after a verdict: charging, changing, telling a workshop. */

export const CHEMISTRY_WORDS: Record<Chemistry, string> = messagesOf('chemistry');

export const CHARGE_PLACE_WORDS: Record<ChargePlace, string> = messagesOf('chargePlace');

export const PLACE_REASON_WORDS: Record<PlaceReason, string> = messagesOf('placeReason');

export const UNFIT_CHARGER_WORDS: Record<NonNullable<ChargerHours['unfit']>, string> = messagesOf(
  'unfitCharger',
);

/** The act on a battery that no current may go through. */
export const BAR_WORDS: Readonly<Record<BatteryBar, string>> = messagesOf('bar');

/** Returns the reason why a battery is not revived. */
export const notRevivedWords = (refused: NonNullable<LampLift['refused']>): string =>
  refused === 'lithium' || refused === 'stayed' ? messagesOf('reviveRefused')[refused] : BAR_WORDS[refused];

export const FITTING_WORDS: Record<FittingStep, { readonly act: string; readonly why: string }> =
  messagesOf('fitting');

export const MISFIT_WORDS: Record<Misfit, string> = messagesOf('misfit');

/** Minutes as they are said: under two in seconds, over two hours in hours. */
export function shortMinutes(minutes: number): string {
  if (minutes < 2) return `${fixed(minutes * 60)} s`;
  return minutes < 120 ? `${fixed(minutes)} min` : `${fixed(minutes / 60, minutes < 600 ? 1 : 0)} h`;
}

/** Hours as they are said: under two in minutes. */
export function hoursWords(hours: number | null): string {
  if (hours === null) return messagesOf('figures').notWithinFiveDays;
  return hours < 2 ? `${Math.max(1, Math.round(hours * 60))} min` : `${fixed(hours, hours < 10 ? 1 : 0)} h`;
}
