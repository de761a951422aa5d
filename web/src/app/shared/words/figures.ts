import type { BatteryRating } from '@voltrek/core/battery';
import type { VehicleNumbers } from '@voltrek/contracts';
import { messagesOf } from './messages-of';
import { fixed, withinSentence } from './numbers';
import { CHEMISTRY_WORDS } from './plan-words';

const T = messagesOf('figures');

/** Figures as they are read: fixed places, unit after a space. */
export const volts = (value: number, places = 2): string => `${fixed(value, places)} V`;
/** A current without its unit: under 10 A with a tenth, since chargers are set so. */
export const ampsFigure = (value: number): string => fixed(value, value > 0.05 && value < 9.95 ? 1 : 0);
export const amps = (value: number): string => `${ampsFigure(value)} A`;
export const percent = (fraction: number): string => `${fixed(Math.round(fraction * 100))} %`;

/** A speed of the engine. */
export const rpmText = (rpm: number): string => T.rpm({ rpm: fixed(rpm) });

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
  if (share < 0.01) return T.underOne;
  if (share > 0.99) return T.overNinetyNine;
  return T.inHundred({ count: Math.round(share * 100) });
}

/** A line of its own at the end of a sentence: a small first letter where the language has it, and a stop unless it asks. */
export function inSentence(line: string): string {
  const small = withinSentence(line);
  return /[.?!]$/.test(small) ? small : `${small}.`;
}

/** A battery's rating in one line. */
export function ratingWords({ chemistry, capacityAh, ccaAmps, ccaStandard }: BatteryRating): string {
  return T.rating({ chemistry: CHEMISTRY_WORDS[chemistry], capacityAh, ccaAmps, standard: ccaStandard });
}

/**
 * Returns the name of a vehicle among people: its plate, else its fleet or serial number; null where none is known. Copies that a device
 * kept from before may lack the numbers.
 */
export function vehicleName(vehicle: VehicleNumbers | null | undefined): string | null {
  const { plate, fleetNumber, serialNumber } = vehicle ?? {};
  if (plate) return plate;
  if (fleetNumber) return T.fleet({ number: fleetNumber });
  return serialNumber ? T.serial({ number: serialNumber }) : null;
}

/** Returns the name of a vehicle, or the words that nothing is known of it. */
export const vehicleWord = (vehicle: VehicleNumbers): string => vehicleName(vehicle) ?? T.noPlate;

/** The name of one of these people or vans; its id until they are here. */
export function nameOf(all: readonly { readonly id: string; readonly name: string }[], id: string): string {
  return all.find((one) => one.id === id)?.name ?? id;
}
