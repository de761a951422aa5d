import { type Circuit, CircuitError, type Element, type NodeName, type Solution } from './circuit.js';

/**
 * Leak from every node to ground, siemens. A free clamp would float without it; this gives it the volts of the part that it hangs from. It
 * moves no other current by more than a nanoamp.
 */
const LEAK_S = 1e-9;
/** Regulated supplies change state at most this often before the circuit is called unsettled. */
const MAX_PASSES = 20;
/** Right at its limit a supply is both holding and limited: it stays what it is within this share, so that it settles. */
const LIMIT_SHARE = 1e-6;
/** A pivot below this belongs to a circuit without a unique solution. */
const LEAST_PIVOT = 1e-15;

/** States of a regulated supply. */
const [HOLDING, LIMITED, OFF] = [0, 1, 2];

/** A circuit made ready to be solved many times: only the values of its elements may change between solutions. */
export interface PreparedDc {
  /** @param elements the same elements in the same order as those it was prepared with */
  readonly solve: (elements: readonly Element[]) => Solution;
  /**
   * The same solution without its names, for loops that ask for one or two figures of thousands of circuits.
   *
   * @returns amps of the element at place `at` in the list, as `Solution` counts them
   */
  readonly ampsAt: (elements: readonly Element[], at: number) => number;
}

/**
 * Volts and amps of a circuit at rest, by nodal analysis on the small dense system. Regulated supplies are settled by repeated
 * solving: each is holding its volts, at its current limit, or off.
 *
 * @throws CircuitError `ideal-source` for a resistance of zero, `not-finite` for a value that is no number. `singular` without a unique
 *   answer, `no-settling` when the supplies chase each other
 */
export function solveDc(circuit: Circuit): Solution {
  return prepareDc(circuit).solve(circuit.elements);
}

/** Numbers the nodes once, so that solving again with other values costs only the arithmetic. Throws as `solveDc` does, on solving. */
export function prepareDc(circuit: Circuit): PreparedDc {
  const dc = new CompiledDc(circuit);
  const settle = (elements: readonly Element[]): void => {
    elements.forEach((element, at) => dc.put(at, element));
    dc.settle();
  };
  return {
    solve: (elements) => {
      settle(elements);
      return {
        volts: new Map([...dc.nodes].map((node) => [node, dc.volts(node)])),
        amps: new Map(elements.map(({ name }, at) => [name, dc.amps(at)])),
      };
    },
    ampsAt: (elements, at) => {
      settle(elements);
      return dc.amps(at);
    },
  };
}

/**
 * A circuit in flat arrays: values are put in place and solved without a new object. Use it for thousands of circuits that differ in values
 * alone. One source may move: the solution is then a straight line over its volts while no supply changes state.
 */
export class CompiledDc {
  readonly nodes: readonly NodeName[];
  private readonly index: ReadonlyMap<NodeName, number>;
  private readonly isResistor: readonly boolean[];
  private readonly isLoad: readonly boolean[];
  private readonly isRegulated: readonly boolean[];
  private readonly names: readonly string[];
  /** Row of each end's node; -1 is ground. */
  private readonly a: Int32Array;
  private readonly b: Int32Array;
  private readonly siemens: Float64Array;
  /** Volts of a source or supply, amps of a load. */
  private readonly drive: Float64Array;
  private readonly maxAmps: Float64Array;
  private readonly states: Uint8Array;
  private readonly size: number;
  /** [A | at rest | for one volt of the moving source], row after row. */
  private readonly matrix: Float64Array;
  private readonly rest: Float64Array;
  private readonly perVolt: Float64Array;
  private movedVolts = 0;
  /** A value was put since it was solved. */
  private isStale = true;

  private readonly moving: number;

  /** @param moving name of the source that moves; left out: none does */
  constructor({ ground, elements }: Circuit, moving?: string) {
    const index = new Map<NodeName, number>();
    const rowOf = (node: NodeName): number => {
      if (node === ground) return -1;
      if (!index.has(node)) index.set(node, index.size);
      return index.get(node)!;
    };
    const ends = elements.map((e) => (e.kind === 'resistor' ? [e.a, e.b] : [e.plus, e.minus]));
    this.a = Int32Array.from(ends, ([a]) => rowOf(a!));
    this.b = Int32Array.from(ends, ([, b]) => rowOf(b!));
    this.index = index;
    this.nodes = [ground, ...index.keys()];
    this.names = elements.map(({ name }) => name);
    this.moving = moving === undefined ? -1 : this.placeOf(moving);
    this.isResistor = elements.map(({ kind }) => kind === 'resistor');
    this.isLoad = elements.map(({ kind }) => kind === 'load');
    this.isRegulated = elements.map(({ kind }) => kind === 'regulated');
    this.siemens = new Float64Array(elements.length);
    this.drive = new Float64Array(elements.length);
    this.maxAmps = new Float64Array(elements.length);
    this.states = new Uint8Array(elements.length);
    this.size = index.size;
    this.matrix = new Float64Array(this.size * (this.size + 2));
    this.rest = new Float64Array(this.size);
    this.perVolt = new Float64Array(this.size);
    elements.forEach((element, at) => this.put(at, element));
  }

  /** Place of the element of this name; -1 where there is none. */
  placeOf(name: string): number {
    return this.names.indexOf(name);
  }

  /** Puts the values of an element in its place. */
  put(at: number, element: Element): void {
    if (element.kind === 'load') {
      if (!Number.isFinite(element.amps)) this.refuse(at);
      this.drive[at] = element.amps;
      this.isStale = true;
      return;
    }
    if (element.kind !== 'resistor') this.putVolts(at, element.volts);
    if (element.kind === 'regulated') this.maxAmps[at] = element.maxAmps;
    this.putOhms(at, element.ohms);
  }

  putOhms(at: number, ohms: number): void {
    if (!Number.isFinite(ohms)) this.refuse(at);
    if (ohms <= 0) throw new CircuitError('ideal-source', `${this.names[at]} needs a resistance above zero`);
    this.siemens[at] = 1 / ohms;
    this.isStale = true;
  }

  putVolts(at: number, volts: number): void {
    if (!Number.isFinite(volts)) this.refuse(at);
    this.drive[at] = volts;
    this.isStale = true;
  }

  private refuse(at: number): never {
    throw new CircuitError('not-finite', `${this.names[at]} has a value that is no number`);
  }

  /**
   * Solves the circuit, with the moving source at these volts. A supply starts in the state it settled in last time: the answer is the same,
   * found sooner.
   *
   * @returns true when no supply had to change state
   */
  settle(movingVolts = 0): boolean {
    this.movedVolts = movingVolts;
    // Other volts of the moving source lie on the line that is solved already.
    if (this.isStale) this.solve();
    for (let pass = 0; pass < MAX_PASSES; pass++) {
      if (!this.moveSupplies()) return pass === 0;
      this.solve();
    }
    throw new CircuitError('no-settling', 'the regulated supplies of this circuit do not settle');
  }

  /** Takes other volts of the moving source on the line that was solved last, whatever the supplies would do. */
  moveTo(movingVolts: number): void {
    this.movedVolts = movingVolts;
  }

  /** Volts of a node by its last solution; zero for one that is not in the circuit. */
  volts(node: NodeName): number {
    return this.at(this.index.get(node) ?? -1);
  }

  /** Amps of the element at this place: from `a` to `b`, and out of the plus end of a source. */
  amps(at: number): number {
    const across = this.across(at);
    if (this.isResistor[at]) return across * this.siemens[at]!;
    if (this.isLoad[at]) return this.drive[at]!;
    const volts = at === this.moving ? this.movedVolts : this.drive[at]!;
    const state = this.states[at]!;
    if (state === LIMITED) return this.maxAmps[at]!;
    return state === OFF ? 0 : (volts - across) * this.siemens[at]!;
  }

  private at(row: number): number {
    return row < 0 ? 0 : this.rest[row]! + this.movedVolts * this.perVolt[row]!;
  }

  private across(at: number): number {
    return this.at(this.a[at]!) - this.at(this.b[at]!);
  }

  /** Moves each supply to the state its surroundings ask for; true when one had to move. */
  private moveSupplies(): boolean {
    let hasMoved = false;
    for (let i = 0; i < this.isRegulated.length; i++) {
      if (!this.isRegulated[i]) continue;
      const now = this.states[i]!;
      const wanted = (this.drive[i]! - this.across(i)) * this.siemens[i]!;
      const limit = this.maxAmps[i]! * (now === LIMITED ? 1 - LIMIT_SHARE : 1 + LIMIT_SHARE);
      // By way of holding: what is off and limited alone need not settle, with holding between them it does.
      const next =
        wanted > limit
          ? now === OFF
            ? HOLDING
            : LIMITED
          : wanted < 0
            ? now === LIMITED
              ? HOLDING
              : OFF
            : HOLDING;
      if (next === now) continue;
      this.states[i] = next!;
      hasMoved = true;
    }
    return hasMoved;
  }

  /** Fills the rows with what the elements conduct and inject at each node, and eliminates with partial pivoting. */
  private solve(): void {
    const { size: n, matrix, a, b } = this;
    const wide = n + 2;
    matrix.fill(0);
    for (let i = 0; i < n; i++) matrix[i * wide + i] = LEAK_S;
    for (let i = 0; i < a.length; i++) {
      let siemens = this.siemens[i]!;
      let amps = 0;
      let perVolt = 0;
      if (this.isLoad[i]) amps = -this.drive[i]!;
      else if (this.states[i] !== HOLDING) {
        siemens = 0;
        amps = this.states[i] === LIMITED ? this.maxAmps[i]! : 0;
      } else if (i === this.moving) perVolt = siemens;
      else if (!this.isResistor[i]) amps = this.drive[i]! * siemens;
      const [from, to] = [a[i]!, b[i]!];
      if (from >= 0) {
        matrix[from * wide + from]! += siemens;
        matrix[from * wide + n]! += amps;
        matrix[from * wide + n + 1]! += perVolt;
        if (to >= 0) matrix[from * wide + to]! -= siemens;
      }
      if (to >= 0) {
        matrix[to * wide + to]! += siemens;
        matrix[to * wide + n]! -= amps;
        matrix[to * wide + n + 1]! -= perVolt;
        if (from >= 0) matrix[to * wide + from]! -= siemens;
      }
    }
    this.eliminate();
    this.isStale = false;
  }

  private eliminate(): void {
    const { size: n, matrix, rest, perVolt } = this;
    const wide = n + 2;
    for (let col = 0; col < n; col++) {
      let best = col;
      for (let r = col + 1; r < n; r++)
        if (Math.abs(matrix[r * wide + col]!) > Math.abs(matrix[best * wide + col]!)) best = r;
      const pivot = matrix[best * wide + col]!;
      if (Math.abs(pivot) < LEAST_PIVOT)
        throw new CircuitError('singular', 'this circuit has no unique solution');
      if (best !== col)
        for (let c = col; c < wide; c++) {
          const kept = matrix[best * wide + c]!;
          matrix[best * wide + c] = matrix[col * wide + c]!;
          matrix[col * wide + c] = kept;
        }
      for (let r = col + 1; r < n; r++) {
        const factor = matrix[r * wide + col]! / pivot;
        if (factor === 0) continue;
        for (let c = col; c < wide; c++) matrix[r * wide + c]! -= factor * matrix[col * wide + c]!;
      }
    }
    for (let r = n - 1; r >= 0; r--) {
      let still = matrix[r * wide + n]!;
      let moving = matrix[r * wide + n + 1]!;
      for (let c = r + 1; c < n; c++) {
        still -= matrix[r * wide + c]! * rest[c]!;
        moving -= matrix[r * wide + c]! * perVolt[c]!;
      }
      rest[r] = still / matrix[r * wide + r]!;
      perVolt[r] = moving / matrix[r * wide + r]!;
    }
  }
}

/** Volts from node `b` up to node `a`; zero when a node is not in the circuit. */
export function voltsAcross(solution: Solution, a: NodeName, b: NodeName): number {
  return (solution.volts.get(a) ?? 0) - (solution.volts.get(b) ?? 0);
}
