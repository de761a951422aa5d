import type { BlockRating, BlockState } from '../battery/block.js';
import type { Rescue } from '../circuit/rescue.js';
import type { Engine, Starter } from '../engine/engine.js';
import type { Bank } from '../sources/cell-bank.js';

/** What stands in the place of a casualty block: a block, or a capacitor bank instead of one. */
export type CrankBlock =
  | { readonly rating: BlockRating; readonly state: BlockState }
  | { readonly bank: Bank; readonly volts: number };

/** A crank to be followed in time: the rescue, what is known of the casualty's blocks, and the engine. */
export interface CrankCase {
  readonly rescue: Rescue;
  readonly blocks: readonly CrankBlock[];
  readonly engine: Engine;
  readonly starter?: Starter;
  readonly seconds: number;
  /** How well each cylinder compresses, in firing order: 1 is sound, 0 not at all. Left out: all sound. */
  readonly compression?: readonly number[];
}
