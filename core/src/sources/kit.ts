import type { KitKind, Lending, OwnCharge } from './kit-kind.js';
import { capacitorBooster, type CapacitorBoosterKit } from './kinds/capacitor-booster.js';
import { donor, type DonorKit } from './kinds/donor.js';
import { hobbyLithium, type HobbyLithiumKit } from './kinds/hobby-lithium.js';
import { instrument, type InstrumentKit } from './kinds/instrument.js';
import { latchSource, type LatchSourceKit } from './kinds/latch-source.js';
import { leadPack, type LeadPackKit } from './kinds/lead-pack.js';
import { leadSet, type LeadSetKit } from './kinds/lead-set.js';
import { lithiumPack, type LithiumPackKit } from './kinds/lithium-pack.js';
import { mainsCharger, type MainsChargerKit } from './kinds/mains-charger.js';
import { spareBatteries, type SpareBatteriesKit } from './kinds/spare-batteries.js';

/** Kit that gives of its own charge, and has to be filled again. */
export type ChargedKit =
  | LithiumPackKit
  | LeadPackKit
  | CapacitorBoosterKit
  | SpareBatteriesKit
  | HobbyLithiumKit;
/** Kit that lends power. */
export type LendingKit = DonorKit | ChargedKit | MainsChargerKit;
export type KitItem = LendingKit | LeadSetKit | LatchSourceKit | InstrumentKit;
/** The kinds of kit that lend power. */
export type SourceKind = LendingKit['kind'];

/** A kind has the parts of the unions that it is in, and no other. */
interface PartsOf<K extends KitItem> {
  readonly charge: K extends ChargedKit ? OwnCharge<K> : null;
  readonly lends: K extends LendingKit ? Lending<K> : null;
}

/** Every kind of kit. One that is missing, or lacks a part, does not compile. */
export const KIT_KINDS: { readonly [K in KitItem['kind']]: PartsOf<Extract<KitItem, { kind: K }>> } = {
  donor,
  'lead-set': leadSet,
  'lithium-pack': lithiumPack,
  'lead-pack': leadPack,
  'capacitor-booster': capacitorBooster,
  'spare-batteries': spareBatteries,
  'mains-charger': mainsCharger,
  'hobby-lithium': hobbyLithium,
  'latch-source': latchSource,
  instrument,
};

/** All that is true of the kind of a piece. */
export const kindOf = <K extends KitItem>({ kind }: K): KitKind<K> =>
  KIT_KINDS[kind] as unknown as KitKind<K>;

export const SOURCE_KINDS = Object.entries(KIT_KINDS)
  .filter(([, { lends }]) => lends !== null)
  .map(([kind]) => kind) as readonly SourceKind[];

/** True for kit that carries a charge of its own. */
export const isCharged = (item: KitItem): item is ChargedKit => kindOf(item).charge !== null;
