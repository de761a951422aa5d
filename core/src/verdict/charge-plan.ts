import { batteryBar, type BatteryBar, type BatteryRating, type Chemistry } from '../battery/index.js';
import { COLD_FILAMENT_SHARE } from '../capacitor/index.js';
import {
  ampsToSet,
  CHARGE_VOLTS,
  chargeAmps,
  chargeHours,
  MAINTAIN_AMPS,
  type Revival,
  revive,
} from '../charging/index.js';
import type { MachineBattery } from '../machine/index.js';
import type { HouseRules } from '../rules/index.js';
import type { KitItem } from '../sources/index.js';

export const CHARGE_PLACES = ['at-the-points', 'negative-off', 'take-out'] as const;
export type ChargePlace = (typeof CHARGE_PLACES)[number];
export const PLACE_REASONS = ['house-rule', 'long', 'closed-in', 'very-flat', 'short'] as const;
export type PlaceReason = (typeof PLACE_REASONS)[number];

/** One charger for this battery. */
export interface ChargerHours {
  readonly kitId: string;
  readonly name: string;
  /** Current to set on it, A. */
  readonly amps: number;
  /** To full at that current where the battery is, in its own cold; null where it is not reached. */
  readonly hours: number | null;
  /** It may push more than a battery of this size stands: it is set lower, or a smaller one is found. */
  readonly isTooLarge: boolean;
  /** Its volts are wrong for this chemistry: not to be used. */
  readonly unfit: 'volts-too-high' | 'volts-too-low' | 'lithium-own-charger' | null;
}

/** A lift through a lamp. */
export interface LampLift extends Omit<Revival, 'refused'> {
  /** Why it must not be tried, when it must not. `stayed`: it was tried, and its volts did not rise. */
  readonly refused: Revival['refused'] | 'stayed';
  readonly lampWatts: number;
  /** For the moment that its filament is cold, A. */
  readonly inrushAmps: number;
}

/** How a battery is brought back to full. */
export interface ChargePlan {
  readonly chemistry: Chemistry;
  /** A tenth of its capacity, A. */
  readonly amps: number;
  readonly maintainAmps: number;
  readonly leastVolts: number;
  readonly mostVolts: number;
  readonly fromSoc: number;
  readonly toSoc: number;
  /** At the usual current on a bench. */
  readonly hours: number | null;
  readonly chargers: readonly ChargerHours[];
  readonly place: ChargePlace;
  readonly placeReason: PlaceReason;
  /** For a battery that rests below a charger's sense voltage; null otherwise. */
  readonly revival: LampLift | null;
  /** The house would rather replace it than lift it over the sense voltage. */
  readonly reviveRefusedByHouse: boolean;
  /** Returns the state that forbids any charge now; null when none does. */
  readonly bar: BatteryBar | null;
  /** Rest after the charge, before it is judged, h. */
  readonly restHours: number;
}

/** A battery brought in from the cold warms to about this, degC. */
export const BENCH_TEMP_C = 15;
/** Charge that counts as full: the last hundredth takes as long as the tenth before. */
export const CHARGED_TO_SOC = 0.98;
/** Past this a battery is better charged out of the vehicle, h. */
const LONG_HOURS = 2;
const REST_HOURS = 24;
/** A healthy battery that lifts another, V. */
const HEALTHY_VOLTS = 12.6;
/** Lamps of 12 V that any van has in its box, the brightest first: rated watts, and what each is hot, ohm. */
const LAMPS = [
  { watts: 55, ohms: 2.6 },
  { watts: 21, ohms: 6.9 },
  { watts: 5, ohms: 28.8 },
] as const;
/**
 * The most that a battery this flat may get at first contact, as a share of capacity per hour: it warms before its plates have
 * woken.
 */
const LIFT_SHARE_PER_H = 0.2;

/**
 * Current, volts, hours by charger, where, and what to do first with a battery that a charger would refuse.
 *
 * @param restVolts of this battery; null when not read
 * @param coldestC the coldest it has been since it last ran, degC
 */
export function chargePlan(
  battery: MachineBattery,
  soc: number,
  restVolts: number | null,
  tempC: number,
  kit: readonly KitItem[],
  rules: HouseRules,
  coldestC: number = tempC,
): ChargePlan {
  const { rating } = battery;
  const { chemistry } = rating;
  const isBank = chemistry === 'capacitor';
  const amps = chargeAmps(rating);
  const from = Math.min(soc, CHARGED_TO_SOC);
  const hoursAt = (supply: number, atC: number): number | null =>
    chargeHours(rating, from, CHARGED_TO_SOC, supply, atC);
  const hours = hoursAt(amps, Math.max(tempC, BENCH_TEMP_C));
  const isVeryFlat = restVolts !== null && restVolts < rules.chargerSenseVolts;
  const { least, most } = CHARGE_VOLTS[chemistry];
  return {
    chemistry,
    amps,
    maintainAmps: MAINTAIN_AMPS,
    leastVolts: least,
    mostVolts: most,
    fromSoc: from,
    toSoc: CHARGED_TO_SOC,
    hours,
    chargers: kit.flatMap((item) => {
      if (item.kind !== 'mains-charger') return [];
      const unfit = unfitFor(chemistry, item.volts);
      const set = ampsToSet(item.amps, rating);
      const isTooLarge = !isBank && item.amps > rating.capacityAh * MOST_SHARE_PER_H;
      return [
        {
          kitId: item.id,
          name: item.name,
          amps: set,
          hours: unfit ? null : hoursAt(set, tempC),
          isTooLarge,
          unfit,
        },
      ];
    }),
    ...placeOf(battery, hours, isVeryFlat && !isBank, rules),
    revival: isVeryFlat ? lampLift(rating, restVolts, coldestC, rules) : null,
    reviveRefusedByHouse: isVeryFlat && !isBank && rules.veryFlatBattery === 'replace',
    bar: batteryBar(chemistry, restVolts, coldestC),
    restHours: REST_HOURS,
  };
}
/** The most that a charger may have for a battery, as a share of capacity per hour: past this a battery warms. */
const MOST_SHARE_PER_H = 0.25;

function unfitFor(chemistry: Chemistry, volts: number): ChargerHours['unfit'] {
  if (chemistry === 'lfp') return 'lithium-own-charger';
  const { least, most } = CHARGE_VOLTS[chemistry];
  if (volts > most) return 'volts-too-high';
  return volts < least ? 'volts-too-low' : null;
}

function placeOf(
  battery: MachineBattery,
  hours: number | null,
  isVeryFlat: boolean,
  rules: HouseRules,
): { place: ChargePlace; placeReason: PlaceReason } {
  if (isVeryFlat) return { place: 'take-out', placeReason: 'very-flat' };
  if (battery.closedIn && !battery.ventHose) return { place: 'take-out', placeReason: 'closed-in' };
  if (rules.chargeOnVehicle === 'take-out') return { place: 'take-out', placeReason: 'house-rule' };
  if (rules.chargeOnVehicle === 'negative-off') return { place: 'negative-off', placeReason: 'house-rule' };
  return hours === null || hours > LONG_HOURS
    ? { place: 'take-out', placeReason: 'long' }
    : { place: 'at-the-points', placeReason: 'short' };
}

/** Returns the lift through the brightest lamp that this battery stands; the dimmest for one that stands none. */
export function lampLift(
  rating: BatteryRating,
  restVolts: number,
  coldestC: number,
  rules: HouseRules,
): LampLift {
  const through = ({ watts, ohms }: (typeof LAMPS)[number]): LampLift => {
    const lift = revive(rating, restVolts, HEALTHY_VOLTS, rules.chargerSenseVolts, ohms, coldestC);
    return { ...lift, lampWatts: watts, inrushAmps: lift.contactAmps / COLD_FILAMENT_SHARE };
  };
  const lifts = LAMPS.map(through);
  // A bank has no plates to warm: the brightest lamp is the quickest.
  if (rating.chemistry === 'capacitor') return lifts[0]!;
  return lifts.find((lift) => lift.contactAmps <= LIFT_SHARE_PER_H * rating.capacityAh) ?? lifts.at(-1)!;
}
