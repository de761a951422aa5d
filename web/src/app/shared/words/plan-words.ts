import type { BatteryBar, Chemistry } from '@voltrek/core/battery';
import type { Revival } from '@voltrek/core/charging';
import type { FittingStep } from '@voltrek/core/hookup';
import type { ChargePlace, ChargerHours, Misfit, PlaceReason } from '@voltrek/core/verdict';

/** Acts after a verdict: charging, changing, telling a workshop. */

export const CHEMISTRY_WORDS: Record<Chemistry, string> = {
  flooded: 'flooded',
  efb: 'EFB',
  agm: 'AGM',
  gel: 'gel',
  lfp: 'lithium (LFP)',
  capacitor: 'capacitor bank',
};

export const CHARGE_PLACE_WORDS: Record<ChargePlace, string> = {
  'at-the-points': 'On the vehicle, at its points',
  'negative-off': 'On the vehicle, negative clamp off',
  'take-out': 'Take it out to charge',
};

export const PLACE_REASON_WORDS: Record<PlaceReason, string> = {
  'house-rule': 'house rule',
  long: 'over 2 h: at the points only as first aid',
  'closed-in': 'closed in, without a vent hose',
  'very-flat': 'very flat: watch it warm, never on the roadside',
  short: 'short enough for first aid',
};

export const UNFIT_CHARGER_WORDS: Record<NonNullable<ChargerHours['unfit']>, string> = {
  'volts-too-high': 'too many volts for this chemistry',
  'volts-too-low': 'too few volts to fill it',
  'lithium-own-charger': 'lithium: only its own charger',
};

/** The act on a battery that no current may go through. */
export const BAR_WORDS: Readonly<Record<BatteryBar, string>> = {
  frozen:
    'Frozen, or about to be: no charge, no crank, nothing joined. Take it indoors until it is warm through, look for cracks, and measure again.',
  reversed:
    'Charged the wrong way round: no charger is joined to it. Replace it, and look for what reversed it.',
};

export const REVIVE_REFUSED_WORDS: Record<NonNullable<Revival['refused']>, string> = {
  ...BAR_WORDS,
  lithium: 'Lithium is never revived.',
};

export const FITTING_WORDS: Record<FittingStep, { readonly act: string; readonly why: string }> = {
  'fill-cells': {
    act: 'Fill each cell of the bank by itself, slowly',
    why: 'The first charge forms it. In series the smallest cell passes its limit first.',
  },
  'balance-cells': {
    act: 'Read each cell: all within 0.05 V',
    why: 'Join plus to plus and minus to minus until they are. One that lags again is bad.',
  },
  'memory-keeper-on': {
    act: 'Join a memory keeper, or note the codes',
    why: 'The positive stays live with a keeper on: wrap its clamp when it is off.',
  },
  'all-off': { act: 'Key out, all consumers off', why: 'Nothing then sparks as the clamp comes off.' },
  'negative-off': {
    act: 'Take the negative clamp off first',
    why: 'A spanner here meets only its own metal.',
  },
  'positive-off': {
    act: 'Take the positive clamp off',
    why: 'With the negative off only what else feeds it can drive a slip.',
  },
  'link-off': {
    act: 'Take the link between the batteries off',
    why: 'It stands at 12 V to the chassis: cover it.',
  },
  'vent-hose-off': { act: 'Pull the vent hose off', why: 'It leads the gas outside. Keep it.' },
  'hold-down-off': { act: 'Loosen the hold-down', why: 'Mind the posts with the long spanner.' },
  'lift-out': { act: 'Lift it out with a strap', why: 'Keep it upright: acid.' },
  clean: { act: 'Clean tray and clamps to bright metal', why: 'A film under the clamp is the next call.' },
  'set-in': {
    act: 'Set the new battery in, posts the right way round',
    why: 'The wrong layout strains the cables.',
  },
  'hold-down-on': { act: 'Tighten the hold-down', why: 'A loose battery shakes its plates to pieces.' },
  'vent-hose-on': { act: 'Push the vent hose on, not pinched', why: 'Gas must not gather inside.' },
  'link-on': { act: 'Put the link back', why: 'Positive of one to negative of the next.' },
  'positive-on': {
    act: 'Put the positive clamp on first',
    why: 'With the negative off only what else feeds it can drive a slip.',
  },
  'negative-on': { act: 'Put the negative clamp on last', why: 'The last contact is the harmless one.' },
  'memory-keeper-off': { act: 'Take the memory keeper off', why: 'The new battery feeds the memories now.' },
  'cut-off': {
    act: 'Set the low cut-off to the house’s volts',
    why: 'A parked bank is down within days: what is left must still crank.',
  },
  teach: { act: 'Tell the vehicle of its new battery', why: 'It doses the charge by age and kind.' },
  'mark-date': { act: 'Mark the date on the battery', why: 'The next technician asks for it.' },
};

export const MISFIT_WORDS: Record<Misfit, string> = {
  chemistry: 'the wrong chemistry',
  capacity: 'less capacity than the original',
  cca: 'fewer cold-cranking amps than the original',
};

/** Minutes as they are said: under two in seconds, over two hours in hours. */
export function shortMinutes(minutes: number): string {
  if (minutes < 2) return `${Math.round(minutes * 60)} s`;
  return minutes < 120 ? `${Math.round(minutes)} min` : `${(minutes / 60).toFixed(minutes < 600 ? 1 : 0)} h`;
}

/** Hours as they are said: under two in minutes. */
export function hoursWords(hours: number | null): string {
  if (hours === null) return 'not within five days';
  return hours < 2 ? `${Math.max(1, Math.round(hours * 60))} min` : `${hours.toFixed(hours < 10 ? 1 : 0)} h`;
}
