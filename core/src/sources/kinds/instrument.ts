import type { KitKind } from '../kit-kind.js';

/** The instruments that a van carries. */
export const INSTRUMENT_TOOLS = ['meter', 'clamp-meter', 'tester', 'load-tester', 'hydrometer'] as const;
export type InstrumentTool = (typeof INSTRUMENT_TOOLS)[number];

/** Something to measure with. */
export interface InstrumentKit {
  readonly kind: 'instrument';
  readonly id: string;
  readonly name: string;
  readonly tool: InstrumentTool;
}

export const instrument = { charge: null, lends: null } satisfies KitKind<InstrumentKit>;
