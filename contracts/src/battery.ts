import type { BatteryEntry, BatteryRating, Machine } from '@voltrek/core';

/** The record of one machine's batteries over all its jobs. */
export interface BatteryRecord {
  readonly machine: Machine;
  /** One battery after another sat in each place; the last is in it now. */
  readonly batteries: readonly BatteryLife[];
  /** Coldest the machine was met in, degC: what its battery must still do. */
  readonly coldC: number;
  /** Share of its rating that the machine needs at that cold. */
  readonly needShare: number;
}

/** One battery, from when it was fitted or first met until it was changed. */
export interface BatteryLife {
  /** Stands for this battery in this place: machine, place and which in turn. */
  readonly id: string;
  readonly battery: number;
  readonly rating: BatteryRating;
  readonly entries: readonly BatteryEntry[];
  /** When it was changed for the next; null for the one that is in. */
  readonly endedAt: string | null;
}
