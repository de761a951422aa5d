import type { LeadSet } from '../../leads/index.js';
import type { KitKind } from '../kit-kind.js';
import type { SourceModel } from '../source-model.js';

/** A charger that needs a socket. */
export interface MainsChargerKit {
  readonly kind: 'mains-charger';
  readonly id: string;
  readonly name: string;
  readonly amps: number;
  readonly volts: number;
  /** Amps of its engine-start setting; null for an ordinary charger, which must be off before the crank. */
  readonly startAmps: number | null;
  readonly leads: LeadSet;
}

/** Behind a charger's regulation there is next to nothing: this keeps its output node from floating, ohms. */
const BEHIND_CHARGER_OHMS = 1000;

/** A mains charger: holds its volts up to its amps. With `starting` at its engine-start setting. */
export function chargerSource(charger: MainsChargerKit, starting: boolean): SourceModel {
  const maxAmps = starting ? (charger.startAmps ?? 0) : charger.amps;
  return {
    openVolts: charger.volts,
    ohms: BEHIND_CHARGER_OHMS,
    alternator: { volts: charger.volts, maxAmps },
  };
}

export const mainsCharger = {
  charge: null,
  lends: {
    fixedLeads: (item) => item.leads,
    outputs: () => [12],
    source: (item) => chargerSource(item, item.startAmps !== null),
    hasEngine: false,
    chargeOnly: (item) => item.startAmps === null,
    acrossOne: 'none',
    charged: null,
  },
} satisfies KitKind<MainsChargerKit>;
