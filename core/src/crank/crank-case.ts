import type { BatteryRating, BatteryState } from '../battery/index.js';
import type { Rescue } from '../circuit/index.js';
import type { Engine, Starter } from '../engine/index.js';
import type { Bank } from '../sources/index.js';

/** A battery of the casualty, or a capacitor bank in the place of one. */
export type CrankBattery =
  | { readonly rating: BatteryRating; readonly state: BatteryState }
  | { readonly bank: Bank; readonly volts: number };

/** A crank to be followed in time: the rescue, what is known of the casualty's batteries, and the engine. */
export interface CrankCase {
  readonly rescue: Rescue;
  readonly batteries: readonly CrankBattery[];
  readonly engine: Engine;
  readonly starter?: Starter;
  readonly seconds: number;
  /** How well each cylinder compresses, in firing order: 1 is sound, 0 not at all. Left out: all sound. */
  readonly compression?: readonly number[];
}
