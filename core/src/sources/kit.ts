import type { BatteryRating } from '../battery/index.js';
import { factorOver, type LeadSet, type LeadUse } from '../leads/index.js';
import type { CellBank } from './cell-bank.js';

/** When a piece that carries a charge was made, and when its charge was last known: both left out where nobody said. */
export interface KeptCharge {
  /** Calendar year. */
  readonly madeIn?: number;
  /** Moment that the charge of the entry is of, ISO 8601. */
  readonly chargedAt?: string;
}

/** A pack with what its tries have told of it, oldest first: as many times the resistance of its rating, one a job. Left out where none has. */
export interface TriedPack {
  readonly uses?: readonly LeadUse[];
}

/** The service van itself, lending its battery and alternator. */
export interface DonorKit {
  readonly kind: 'donor';
  readonly id: string;
  readonly name: string;
  /** Its entry in the atlas, which holds its points and drawing. */
  readonly modelId: string;
  readonly systemVolts: 12 | 24;
  readonly battery: BatteryRating;
  readonly soc: number;
  /** Current that the alternator can lend beyond the van's own needs at idle. */
  readonly alternatorSpareAmps: number;
}

export interface LeadSetKit {
  readonly kind: 'lead-set';
  readonly id: string;
  readonly name: string;
  readonly leads: LeadSet;
  /** Uses that measured it, oldest first; left out where none has. */
  readonly uses?: readonly LeadUse[];
}

/** A set as the circuit sees it: as its uses have measured it. */
export function leadsOf({ leads, uses = [] }: Pick<LeadSetKit, 'leads' | 'uses'>): LeadSet {
  const measured = factorOver(uses);
  return measured ? { ...leads, ohmsFactor: measured.factor } : leads;
}

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

export interface CapacitorBoosterKit extends CellBank, KeptCharge {
  readonly kind: 'capacitor-booster';
  readonly id: string;
  readonly name: string;
  /** Volts of the bank now. */
  readonly volts: number;
  /** Amps at its own volts that its converter lifts out of a weak casualty battery; null = charged only by itself. */
  readonly converterAmps: number | null;
  readonly leads: LeadSet;
}

/** Loose 12 V batteries: one across one battery of a string, or two linked in series for 24 V. They have no switch and no leads. */
export interface SpareBatteriesKit extends KeptCharge {
  readonly kind: 'spare-batteries';
  readonly id: string;
  readonly name: string;
  readonly count: 1 | 2;
  readonly battery: BatteryRating;
  readonly soc: number;
}

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

/** Something to measure with. */
export interface InstrumentKit {
  readonly kind: 'instrument';
  readonly id: string;
  readonly name: string;
  readonly tool: 'meter' | 'clamp-meter' | 'tester' | 'load-tester' | 'hydrometer';
}

/** A small supply of a few volts that only releases a latch. */
export interface LatchSourceKit {
  readonly kind: 'latch-source';
  readonly id: string;
  readonly name: string;
  readonly volts: number;
}

export type KitItem =
  | DonorKit
  | LeadSetKit
  | LithiumPackKit
  | LeadPackKit
  | CapacitorBoosterKit
  | SpareBatteriesKit
  | MainsChargerKit
  | HobbyLithiumKit
  | LatchSourceKit
  | InstrumentKit;
