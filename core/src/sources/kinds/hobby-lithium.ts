import type { LeadSet } from '../../leads/index.js';
import { interpolate, type Knots, parameter } from '../../quantities/index.js';
import { keptCharge, leftOfRating, LITHIUM_FADE_A_YEAR } from '../ageing.js';
import type { KeptCharge, KitKind } from '../kit-kind.js';
import type { SourceModel } from '../source-model.js';
import { LITHIUM_E_FOLD_C } from './lithium-pack.js';

/** Three lithium cells in series made for models: last resort, refused unless the house rule allows it. */
export interface HobbyLithiumKit extends KeptCharge {
  readonly kind: 'hobby-lithium';
  readonly id: string;
  readonly name: string;
  readonly capacityAh: number;
  /** Continuous amps as a multiple of capacity. */
  readonly cRate: number;
  readonly charge: number;
  readonly leads: LeadSet;
}

/** Open volts of three hobby cells in series by their charge: 12.6 V is their absolute limit. */
const HOBBY_VOLTS: Knots = [
  [0, 9.9],
  [0.2, 11.1],
  [0.8, 12],
  [1, 12.6],
];
/** Share of its volts that a hobby pack loses at its continuous amps and 25 degC. */
export const HOBBY_SAG_SHARE = parameter(0.12, {
  id: 'hobby.sag',
  name: 'volts lost at continuous amps',
  low: 0.05,
  high: 0.2,
  unit: 'of open',
  reason: 'Of a pack in good health.',
});

/** A hobby lithium pack: its amps are its rate times its capacity, and no more. */
export function hobbySource(pack: HobbyLithiumKit, tempC: number): SourceModel {
  const openVolts = interpolate(HOBBY_VOLTS, pack.charge);
  const maxAmps = pack.cRate * pack.capacityAh;
  const ohms = ((openVolts * HOBBY_SAG_SHARE) / maxAmps) * Math.exp((25 - tempC) / LITHIUM_E_FOLD_C);
  return { openVolts, ohms, maxAmps };
}

export const hobbyLithium = {
  charge: {
    shareOf: (item) => item.charge,
    withShare: (item, charge) => ({ ...item, charge }),
    capacityAh: (item) => item.capacityAh,
    leftAfter: (_item, days) => keptCharge('lfp', days),
    aged: (item, years) => ({
      ...item,
      capacityAh: item.capacityAh * leftOfRating(LITHIUM_FADE_A_YEAR, years),
    }),
  },
  lends: {
    fixedLeads: (item) => item.leads,
    outputs: () => [12],
    source: (item, _output, tempC) => hobbySource(item, tempC),
    hasEngine: false,
    chargeOnly: () => false,
    acrossOne: 'any',
    charged: 'severe',
  },
} satisfies KitKind<HobbyLithiumKit>;
