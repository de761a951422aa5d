import type { Chemistry } from '../battery/chemistry.js';

/** Volts that a charger may hold a 12 V battery at by chemistry: less charges too little, more gases or swells it. */
export const CHARGE_VOLTS: Record<Chemistry, { readonly least: number; readonly most: number }> = {
  flooded: { least: 14.1, most: 14.8 },
  efb: { least: 14.1, most: 14.8 },
  agm: { least: 14.1, most: 14.7 },
  gel: { least: 13.8, most: 14.4 },
  lfp: { least: 14, most: 14.6 },
};
/** The charging current that every battery stands, as a share of its capacity per hour. */
export const CHARGE_SHARE_PER_H = 0.1;
/** To keep a full battery full, A. */
export const MAINTAIN_AMPS = 1;

/** Current to charge a battery with: a tenth of its capacity. */
export function chargeAmps(capacityAh: number): number {
  return capacityAh * CHARGE_SHARE_PER_H;
}
