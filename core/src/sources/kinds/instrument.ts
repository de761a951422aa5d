import type { KitKind } from '../kit-kind.js';

/** Something to measure with. */
export interface InstrumentKit {
  readonly kind: 'instrument';
  readonly id: string;
  readonly name: string;
  readonly tool: 'meter' | 'clamp-meter' | 'tester' | 'load-tester' | 'hydrometer';
}

export const instrument = { charge: null, lends: null } satisfies KitKind<InstrumentKit>;
