import type { KitKind } from './kit-kind.js';
import { capacitorBooster } from './kinds/capacitor-booster.js';
import { donor } from './kinds/donor.js';
import { hobbyLithium } from './kinds/hobby-lithium.js';
import { instrument } from './kinds/instrument.js';
import { latchSource } from './kinds/latch-source.js';
import { leadPack } from './kinds/lead-pack.js';
import { leadSet } from './kinds/lead-set.js';
import { lithiumPack } from './kinds/lithium-pack.js';
import { mainsCharger } from './kinds/mains-charger.js';
import { spareBatteries } from './kinds/spare-batteries.js';

/** Every kind of kit. Lists and types of kinds are made from it. */
export const KIT_KINDS = {
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
type Kinds = typeof KIT_KINDS;
type ItemOf<K extends keyof Kinds> = NonNullable<Kinds[K]['item']>;

export type KitItem = { [K in keyof Kinds]: ItemOf<K> }[keyof Kinds];
type WithPart<P extends 'charge' | 'lends'> = {
  [K in keyof Kinds]: Kinds[K][P] extends null ? never : K;
}[keyof Kinds];

/** The kinds of kit that lend power. */
export type SourceKind = WithPart<'lends'>;
/** Kit that gives of its own charge, and has to be filled again. */
export type ChargedKit = Extract<KitItem, { kind: WithPart<'charge'> }>;

/** All that is true of the kind of a piece. */
export const kindOf = <K extends KitItem>({ kind }: K): KitKind<K> =>
  KIT_KINDS[kind] as unknown as KitKind<K>;

export const SOURCE_KINDS = Object.entries(KIT_KINDS)
  .filter(([, { lends }]) => lends !== null)
  .map(([kind]) => kind) as readonly SourceKind[];

/** True for kit that carries a charge of its own. */
export const isCharged = (item: KitItem): item is ChargedKit => kindOf(item).charge !== null;
