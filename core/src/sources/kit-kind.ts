import type { SchoolOf } from '../rules/index.js';
import { factorOver, type LeadSet, type LeadUse } from '../leads/index.js';
import type { SourceModel } from './source-model.js';

/** When a piece that carries a charge was made, and when its charge was last known: both left out where nobody said. */
export interface KeptCharge {
  /** Calendar year. */
  readonly madeIn?: number;
  /** Moment that the charge of the entry is of, ISO 8601. */
  readonly chargedAt?: string;
}

/** A pack with the results of its tries, oldest first: as many times the resistance of its rating, one a job. Left out where none has. */
export interface TriedPack {
  readonly uses?: readonly LeadUse[];
}

/** How many times the resistance of its rating a pack has, by its tries. */
export const triedFactor = ({ uses = [] }: TriedPack): number => factorOver(uses)?.factor ?? 1;

/** The fields that every piece of kit has. */
export interface AnyKit {
  readonly kind: string;
  readonly id: string;
  readonly name: string;
}

/** A charge of its own: what a try takes, and what has to be filled again. */
export interface OwnCharge<K> {
  /** Share of full, 0 to 1. */
  readonly shareOf: (item: K) => number;
  /** The same piece with another share of full, 0 to 1. */
  readonly withShare: (item: K, share: number) => K;
  /** Charge of a full one at its terminals, Ah. */
  readonly capacityAh: (item: K) => number;
  /** Share of its charge that is left after so many days at rest. */
  readonly leftAfter: (item: K, days: number) => number;
  /** The piece with the ratings that this many years leave it. */
  readonly aged: (item: K, years: number) => K;
}

/** The help that a running donor's engine gives: planned or not, and at which revs. */
export interface DonorWork {
  readonly runs: boolean;
  readonly revs: SchoolOf<'donorRevs'>;
}

/** The power that a kind lends. */
export interface Lending<K> {
  /** Its own leads, fixed to it behind a switch; null for a kind that is joined by one of the van's sets. */
  readonly fixedLeads: ((item: K) => LeadSet) | null;
  /** Outputs that it can be set to, V. */
  readonly outputs: (item: K) => readonly (12 | 24)[];
  readonly source: (item: K, output: 12 | 24, tempC: number, donor: DonorWork) => SourceModel;
  /** It has an engine that may run beside it. */
  readonly hasEngine: boolean;
  /** True for what charges the casualty's own battery, and must be off and unplugged before the crank. */
  readonly chargeOnly: (item: K) => boolean;
  /**
   * The batteries of a 24 V string that it may go across by itself: any, where its body does not join the chassis and it gives at once; that
   * at the chassis end alone, since across another its body would join the chassis at the wrong level; or none.
   */
  readonly acrossOne: 'any' | 'at-chassis' | 'none';
  /** How bad it is that the running casualty charges it: bare cells burn, a pack has a guard that may or may not stand it. */
  readonly charged: 'severe' | 'watch' | null;
}

/** All that is true of a kind of kit. A part that is missing does not compile. */
export interface KitKind<K extends AnyKit> {
  readonly charge: OwnCharge<K> | null;
  readonly lends: Lending<K> | null;
}
