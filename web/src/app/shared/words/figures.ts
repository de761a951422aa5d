import { vehicleName } from '@voltrek/contracts/words';
import type { BatteryRating } from '@voltrek/core/battery';
import { CHEMISTRY_WORDS } from './plan-words';

/** Figures as they are read: fixed places, unit after a space. */
export const volts = (value: number, places = 2): string => `${value.toFixed(places)} V`;
export const amps = (value: number): string => `${Math.round(value)} A`;
export const percent = (fraction: number): string => `${Math.round(fraction * 100)} %`;

/** A band of fractions: "3-9 %", or one figure when both ends round alike. */
export function percentBand(low: number, high: number): string {
  const a = Math.round(low * 100);
  const b = Math.round(high * 100);
  return a === b ? `${a} %` : `${a}-${b} %`;
}

const CLOCK_HOURS_FROM_S = 7200;

/** Seconds as 1:05; from two hours on as 2 h 05. */
export function clock(seconds: number): string {
  const whole = Math.max(0, Math.round(seconds));
  if (whole >= CLOCK_HOURS_FROM_S)
    return `${Math.floor(whole / 3600)} h ${String(Math.floor((whole % 3600) / 60)).padStart(2, '0')}`;
  return `${Math.floor(whole / 60)}:${String(whole % 60).padStart(2, '0')}`;
}

/** Odds as they are said: "97 in 100"; never quite none and never quite sure. */
export function inHundred(share: number): string {
  if (share < 0.01) return 'under 1 in 100';
  if (share > 0.99) return 'over 99 in 100';
  return `${Math.round(share * 100)} in 100`;
}

/** A line of its own at the end of a sentence: small first letter, and a stop unless it asks. */
export function inSentence(line: string): string {
  const small = line.charAt(0).toLowerCase() + line.slice(1);
  return /[.?!]$/.test(small) ? small : `${small}.`;
}

/** A battery's rating in one line. */
export function ratingWords({ chemistry, capacityAh, ccaAmps, ccaStandard }: BatteryRating): string {
  return `${CHEMISTRY_WORDS[chemistry]} ${capacityAh} Ah, ${ccaAmps} A ${ccaStandard}`;
}

/** Returns the name of a vehicle, or the words that nothing is known of it. */
export function vehicleWord(vehicle: Parameters<typeof vehicleName>[0]): string {
  return vehicleName(vehicle) ?? 'no plate known';
}

/** The name of one of these people or vans; its id until they are here. */
export function nameOf(all: readonly { readonly id: string; readonly name: string }[], id: string): string {
  return all.find((one) => one.id === id)?.name ?? id;
}
