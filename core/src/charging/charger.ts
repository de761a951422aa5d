import type { BatteryRating, Chemistry } from '../battery/index.js';

/** Volts that a charger may hold a 12 V battery at by chemistry: less charges too little, more gases or swells it. */
export const CHARGE_VOLTS: Record<Chemistry, { readonly least: number; readonly most: number }> = {
  flooded: { least: 14.1, most: 14.8 },
  efb: { least: 14.1, most: 14.8 },
  agm: { least: 14.1, most: 14.7 },
  gel: { least: 13.8, most: 14.4 },
  lfp: { least: 14, most: 14.6 },
  // Six cells of 2.7 V stand 16.2 V; unequal ones less.
  capacitor: { least: 13.5, most: 15 },
};
/** The charging current that every battery stands, as a share of its capacity per hour. */
export const CHARGE_SHARE_PER_H = 0.1;
/** To keep a full battery full, A. */
export const MAINTAIN_AMPS = 1;

/** A capacitor bank is filled with what any small charger gives, A: it stands far more, and is full within minutes. */
export const BANK_CHARGE_AMPS = 10;

/**
 * Current to charge a battery with: a tenth of its capacity; a bank has no such limit.
 *
 * @example chargeAmps({ chemistry: 'flooded', capacityAh: 60, ccaAmps: 540, ccaStandard: 'EN' }) // => 6
 */
export function chargeAmps({
  chemistry,
  capacityAh,
}: Pick<BatteryRating, 'chemistry' | 'capacityAh'>): number {
  return chemistry === 'capacitor' ? BANK_CHARGE_AMPS : capacityAh * CHARGE_SHARE_PER_H;
}

/**
 * Current to set on a charger for a battery: a tenth of its capacity, or all that the charger has. A bank takes all.
 *
 * @example ampsToSet(15, { chemistry: 'flooded', capacityAh: 60, ccaAmps: 540, ccaStandard: 'EN' }) // => 6
 */
export const ampsToSet = (
  chargerAmps: number,
  rating: Pick<BatteryRating, 'chemistry' | 'capacityAh'>,
): number => (rating.chemistry === 'capacitor' ? chargerAmps : Math.min(chargerAmps, chargeAmps(rating)));
