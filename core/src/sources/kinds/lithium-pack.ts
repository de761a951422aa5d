import { parameter } from '../../quantities/index.js';
import { restVoltsAt } from '../../battery/index.js';
import type { LeadSet } from '../../leads/index.js';
import { keptCharge, leftOfRating, LITHIUM_FADE_A_YEAR } from '../ageing.js';
import { type KeptCharge, type KitKind, type TriedPack, triedFactor } from '../kit-kind.js';
import type { SourceModel } from '../source-model.js';

export interface LithiumPackKit extends KeptCharge, TriedPack {
  readonly kind: 'lithium-pack';
  readonly id: string;
  readonly name: string;
  readonly peakAmps: number;
  /** How long the peak lasts before the pack guards itself. */
  readonly peakSeconds: number;
  readonly charge: number;
  /** Charge at 12 V when full, Ah; left out where its maker does not say. */
  readonly capacityAh?: number;
  readonly leads: LeadSet;
}

/** Volts a lithium pack is pulled to by its rated peak at 25 degC; the rating means that or less. */
export const LITHIUM_PEAK_VOLTS = parameter(8, {
  id: 'lithium.peakVolts',
  name: 'volts at the rated peak',
  low: 6,
  high: 9.5,
  unit: 'V',
  reason: 'The rating means that or less.',
});
/** Lithium resistance grows by e per this many degC of cold. */
export const LITHIUM_E_FOLD_C = parameter(29, {
  id: 'lithium.coldFold',
  name: 'cold that multiplies its resistance by e',
  low: 25,
  high: 36,
  unit: 'degC',
  reason: 'At -20 degC three to five times its resistance at 20 degC.',
});
/** Peak amps of a lithium pack per Ah at 12 V, where its maker does not say: pocket packs lie between 100 and 160. */
const PEAK_AMPS_PER_AH = 130;

/** A lithium pack: open volts by its charge, resistance from its peak rating and its tries, worse in the cold. */
export function lithiumSource(pack: LithiumPackKit, tempC: number): SourceModel {
  const openVolts = restVoltsAt('lfp', pack.charge, tempC);
  const ohms = ((openVolts - LITHIUM_PEAK_VOLTS) / pack.peakAmps) * Math.exp((25 - tempC) / LITHIUM_E_FOLD_C);
  return { openVolts, ohms: ohms * triedFactor(pack), maxAmps: pack.peakAmps, maxSeconds: pack.peakSeconds };
}

export const lithiumPack = {
  charge: {
    shareOf: (item) => item.charge,
    withShare: (item, charge) => ({ ...item, charge }),
    capacityAh: (item) => item.capacityAh ?? item.peakAmps / PEAK_AMPS_PER_AH,
    leftAfter: (_item, days) => keptCharge('lfp', days),
    aged: (item, years) => {
      const left = leftOfRating(LITHIUM_FADE_A_YEAR, years);
      return {
        ...item,
        peakAmps: item.peakAmps * left,
        ...(item.capacityAh !== undefined && { capacityAh: item.capacityAh * left }),
      };
    },
  },
  lends: {
    fixedLeads: (item) => item.leads,
    outputs: () => [12],
    source: (item, _output, tempC) => lithiumSource(item, tempC),
    hasEngine: false,
    chargeOnly: () => false,
    acrossOne: 'any',
    charged: 'watch',
  },
} satisfies KitKind<LithiumPackKit>;
