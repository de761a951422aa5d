/** A named electrical node, such as `casualty.body`. */
export type NodeName = string;

/** A resistance between two nodes: a conductor, a clamp's contact, a strap. */
export interface Resistor {
  readonly kind: 'resistor';
  readonly name: string;
  readonly a: NodeName;
  readonly b: NodeName;
  readonly ohms: number;
}

/** Volts behind a resistance: a battery, a pack, the back-EMF of a turning starter. */
export interface VoltSource {
  readonly kind: 'source';
  readonly name: string;
  readonly plus: NodeName;
  readonly minus: NodeName;
  readonly volts: number;
  readonly ohms: number;
}

/** A regulated supply such as an alternator: holds `volts` until it reaches `maxAmps`, and never takes current back. */
export interface Regulated {
  readonly kind: 'regulated';
  readonly name: string;
  readonly plus: NodeName;
  readonly minus: NodeName;
  readonly volts: number;
  readonly ohms: number;
  readonly maxAmps: number;
}

/** A load that draws a set current from `plus` to `minus`: a control unit waking up. */
export interface CurrentLoad {
  readonly kind: 'load';
  readonly name: string;
  readonly plus: NodeName;
  readonly minus: NodeName;
  readonly amps: number;
}

export type Element = Resistor | VoltSource | Regulated | CurrentLoad;

/** A rescue as the solver sees it. Everything drawn, ranked or warned about is a view of one of these. */
export interface Circuit {
  /** The node that counts as 0 V. */
  readonly ground: NodeName;
  readonly elements: readonly Element[];
}

/** Volts at every node and amps in every element. Amps count from `a` to `b`, and out of the plus end of a source. */
export interface Solution {
  readonly volts: ReadonlyMap<NodeName, number>;
  readonly amps: ReadonlyMap<string, number>;
}

/** The named failure of a circuit that has no solution. */
export class CircuitError extends Error {
  constructor(
    readonly code: 'ideal-source' | 'not-finite' | 'singular' | 'no-settling',
    message: string,
  ) {
    super(message);
    this.name = 'CircuitError';
  }
}
