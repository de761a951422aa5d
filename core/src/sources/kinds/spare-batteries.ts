import { parameter } from '../../quantities/index.js';
import type { BatteryRating } from '../../battery/index.js';
import type { KeptCharge, KitKind } from '../kit-kind.js';
import { leadCharge, seriesOf } from '../series.js';
import type { SourceModel } from '../source-model.js';

/** Loose 12 V batteries: one across one battery of a string, or two linked in series for 24 V. They have no switch and no leads. */
export interface SpareBatteriesKit extends KeptCharge {
  readonly kind: 'spare-batteries';
  readonly id: string;
  readonly name: string;
  readonly count: 1 | 2;
  readonly battery: BatteryRating;
  readonly soc: number;
}

/** Resistance of the lead that links two spare batteries in series, ohms. */
export const LINK_LEAD_OHMS = parameter(0.0012, {
  id: 'cable.linkLead',
  name: 'link lead of two spare batteries',
  low: 0.0005,
  high: 0.003,
  unit: 'ohm',
  reason: 'Half a metre of 25 mm2 with two clamps.',
});

/** One spare battery, or two in series with their link lead. */
export function spareBatteriesSource(kit: SpareBatteriesKit, output: 12 | 24, tempC: number): SourceModel {
  const source = seriesOf(kit.battery, kit.soc, output / 12, tempC);
  return output === 24 ? { ...source, ohms: source.ohms + LINK_LEAD_OHMS } : source;
}

export const spareBatteries = {
  charge: leadCharge<SpareBatteriesKit>(),
  lends: {
    fixedLeads: null,
    outputs: (item) => (item.count === 2 ? [12, 24] : [12]),
    source: spareBatteriesSource,
    hasEngine: false,
    chargeOnly: () => false,
    acrossOne: 'any',
    charged: null,
  },
} satisfies KitKind<SpareBatteriesKit>;
