import { interpolate, type Knots, parameter } from '../quantities/index.js';
import { BANK_FULL_VOLTS, type BatteryRating, type Chemistry, isLeadAcid } from '../battery/index.js';
import { RULES } from '../rules/index.js';

/** Charge given for charge kept: the rest gases and warms. */
export const CHARGE_FACTOR: Record<Chemistry, number> = {
  flooded: parameter(1.2, {
    id: 'charge.flooded',
    name: 'charge given for charge kept, flooded',
    low: 1.1,
    high: 1.3,
    unit: '',
    reason: 'The rest gases and warms.',
  }),
  efb: 1.18,
  agm: parameter(1.12, {
    id: 'charge.agm',
    name: 'the same, AGM',
    low: 1.05,
    high: 1.2,
    unit: '',
    reason: 'Gas recombines, less is lost.',
  }),
  gel: 1.12,
  lfp: 1.02,
  capacitor: 1,
};

/**
 * Most current a battery takes, as a multiple of its capacity per hour, by state of charge at 25 degC. Lead-acid takes little at the
 * very bottom and tapers from four fifths up; LFP takes much until it is nearly full.
 */
const ACCEPTANCE_LEAD: Knots = [
  [0, 0.3],
  [0.05, 0.45],
  [0.2, 0.45],
  [0.6, 0.28],
  [0.8, 0.12],
  [0.9, 0.06],
  [1, 0.015],
];
const ACCEPTANCE_LFP: Knots = [
  [0, 0.5],
  [0.9, 0.5],
  [1, 0.05],
];
/** Cold slows the plates: acceptance by e per this many degC. LFP takes nothing below freezing. */
export const ACCEPTANCE_E_FOLD_C = parameter(40, {
  id: 'charge.coldFold',
  name: 'cold that cuts acceptance to a third',
  low: 25,
  high: 60,
  unit: 'degC',
  reason: 'Slow plates: acceptance falls by e over this.',
});

/**
 * Most current this battery takes now, A; a capacitor bank takes whatever it is given.
 *
 * @example acceptanceAmps({ chemistry: 'flooded', capacityAh: 60, ccaAmps: 540, ccaStandard: 'EN' }, 0.5, 20) // => 17.1
 */
export function acceptanceAmps(rating: BatteryRating, soc: number, tempC: number): number {
  if (rating.chemistry === 'capacitor') return Infinity;
  if (!isLeadAcid(rating.chemistry))
    return tempC < 0 ? 0 : rating.capacityAh * interpolate(ACCEPTANCE_LFP, soc);
  return (
    rating.capacityAh *
    interpolate(ACCEPTANCE_LEAD, soc) *
    Math.exp(Math.min(0, tempC - 25) / ACCEPTANCE_E_FOLD_C)
  );
}

/** Charging stops being worth the wait beyond this, hours. */
const MOST_HOURS = 120;
const STEP_HOURS = 0.05;

/**
 * Hours to charge a battery from one state to another: by the charger's current or what the battery takes, whichever is less.
 *
 * @param supplyAmps what the charger, or the alternator's spare, can give
 * @returns null when it does not get there within five days
 * @throws RangeError for a current that is not above zero or a target below the start
 * @example chargeHours({ chemistry: 'flooded', capacityAh: 60, ccaAmps: 540, ccaStandard: 'EN' }, 0.3, 0.8, 10, 20) // => 3.7
 */
export function chargeHours(
  rating: BatteryRating,
  fromSoc: number,
  toSoc: number,
  supplyAmps: number,
  tempC: number,
): number | null {
  if (!(supplyAmps > 0)) throw new RangeError('the charging current must be above zero');
  if (!(toSoc >= fromSoc && fromSoc >= 0 && toSoc <= 1))
    throw new RangeError('charge must rise, within 0 and 1');
  const factor = CHARGE_FACTOR[rating.chemistry];
  let soc = fromSoc;
  for (let hours = 0; hours <= MOST_HOURS; hours += STEP_HOURS) {
    const amps = Math.min(supplyAmps, acceptanceAmps(rating, soc, tempC));
    const gained = (amps * STEP_HOURS) / factor / rating.capacityAh;
    if (soc + gained >= toSoc) return hours + (gained > 0 ? (STEP_HOURS * (toSoc - soc)) / gained : 0);
    if (gained <= 0) return null;
    soc += gained;
  }
  return null;
}

/** A capacitor bank below this charge, which is its volts, does not crank any more, share: the usual low cut-off. */
export const BANK_LEAST_SOC = RULES.capacitorMinVolts.value / BANK_FULL_VOLTS;

/** Share of a battery's capacity that a parked vehicle may draw before it will not start. */
export const USABLE_SHARE = parameter(0.5, {
  id: 'charge.usable',
  name: 'share a parked machine may draw',
  low: 0.3,
  high: 0.6,
  unit: '',
  reason: 'Below half charge a cold start is in doubt.',
});

/**
 * Days until a parasitic draw has taken what a start needs: usable Ah / A / 24.
 *
 * @example daysToFlat({ chemistry: 'flooded', capacityAh: 60, ccaAmps: 540, ccaStandard: 'EN' }, 0.9, 0.05) // => 20
 */
export function daysToFlat(rating: BatteryRating, soc: number, drawAmps: number): number {
  if (!(drawAmps > 0)) throw new RangeError('the draw must be above zero');
  const least = rating.chemistry === 'capacitor' ? BANK_LEAST_SOC : 1 - USABLE_SHARE;
  const usableAh = rating.capacityAh * Math.max(0, soc - least);
  return usableAh / drawAmps / 24;
}
