import type { KitKind } from '../kit-kind.js';

/** A small supply of a few volts that only releases a latch. */
export interface LatchSourceKit {
  readonly kind: 'latch-source';
  readonly id: string;
  readonly name: string;
  readonly volts: number;
}

export const latchSource = { charge: null, lends: null } satisfies KitKind<LatchSourceKit>;
