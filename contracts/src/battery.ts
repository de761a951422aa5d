import type { BatteryEntry, BlockRating, Machine } from '@voltrek/core';

/** The record of one machine's blocks over all its jobs. */
export interface BatteryRecord {
  readonly machine: Machine;
  /** One block after another sat in each place; the last is in it now. */
  readonly blocks: readonly BatteryLife[];
  /** Coldest the machine was met in, degC: what its block must still do. */
  readonly coldC: number;
  /** Share of its rating that the machine needs at that cold. */
  readonly needShare: number;
}

/** One block, from when it was fitted or first met until it was changed. */
export interface BatteryLife {
  /** Stands for this block in this place: machine, place and which in turn. */
  readonly id: string;
  readonly block: number;
  readonly rating: BlockRating;
  readonly entries: readonly BatteryEntry[];
  /** When it was changed for the next; null for the one that is in. */
  readonly endedAt: string | null;
}
