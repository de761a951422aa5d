import type { BatteryRating } from '../../battery/index.js';
import type { LeadSet } from '../../leads/index.js';
import { type KeptCharge, type KitKind, type TriedPack, triedFactor } from '../kit-kind.js';
import { leadCharge, seriesOf } from '../series.js';
import type { SourceModel } from '../source-model.js';

export interface LeadPackKit extends KeptCharge, TriedPack {
  readonly kind: 'lead-pack';
  readonly id: string;
  readonly name: string;
  /** Selectable output; a 24 V setting puts two equal batteries in series. */
  readonly outputs: readonly (12 | 24)[];
  readonly battery: BatteryRating;
  readonly soc: number;
  readonly leads: LeadSet;
}

/** A lead-acid pack at its chosen output, as its tries have shown it. */
export function leadPackSource(pack: LeadPackKit, output: 12 | 24, tempC: number): SourceModel {
  const source = seriesOf(pack.battery, pack.soc, output / 12, tempC);
  return { ...source, ohms: source.ohms * triedFactor(pack) };
}

export const leadPack = {
  charge: leadCharge<LeadPackKit>(),
  lends: {
    fixedLeads: (item) => item.leads,
    outputs: (item) => item.outputs,
    source: leadPackSource,
    hasEngine: false,
    chargeOnly: () => false,
    acrossOne: 'any',
    charged: null,
  },
} satisfies KitKind<LeadPackKit>;
