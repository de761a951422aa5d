import {
  type Circuit,
  CircuitError,
  type Element,
  type NodeName,
  type Regulated,
  type Solution,
} from './circuit.js';

/**
 * Leak from every node to ground, siemens. A free clamp would float without it; this gives it the volts of the part that it hangs from. It
 * moves no other current by more than a nanoamp.
 */
const LEAK_S = 1e-9;
/** Regulated supplies change state at most this often before the circuit is called unsettled. */
const MAX_PASSES = 20;

type RegulatedState = 'holding' | 'limited' | 'off';

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
  const index = indexNodes(circuit);
  const ends = circuit.elements.map((e) => {
    const [a, b] = e.kind === 'resistor' ? [e.a, e.b] : [e.plus, e.minus];
    return { a: index.get(a) ?? -1, b: index.get(b) ?? -1 };
  });
  const n = index.size;
  const rows = Array.from({ length: n }, () => new Float64Array(n + 1));
  // A supply starts in the state it settled in last time: the answer is the same, found sooner.
  const states = circuit.elements.map((): RegulatedState => 'holding');
  const order = [...rows];
  const x = new Float64Array(n);
  const settle = (elements: readonly Element[]): void => {
    for (const e of elements) requireSolvable(e);
    for (let pass = 0; pass < MAX_PASSES; pass++) {
      assemble(rows, elements, ends, states);
      for (let i = 0; i < n; i++) order[i] = rows[i]!;
      eliminate(order, x);
      if (settled(elements, ends, states, x)) return;
    }
    throw new CircuitError('no-settling', 'the regulated supplies of this circuit do not settle');
  };
  return {
    solve: (elements) => {
      settle(elements);
      return solutionOf(circuit.ground, index, elements, ends, states, x);
    },
    ampsAt: (elements, at) => {
      settle(elements);
      return branchAmps(elements[at]!, across(x, ends[at]!), states[at]!);
    },
  };
}

interface Ends {
  /** Row of each end's node; -1 is ground. */
  readonly a: number;
  readonly b: number;
}

/** Moves each supply to the state its surroundings ask for; true when none had to move. */
function settled(
  elements: readonly Element[],
  ends: readonly Ends[],
  states: RegulatedState[],
  x: Float64Array,
): boolean {
  let unchanged = true;
  for (let i = 0; i < elements.length; i++) {
    const e = elements[i]!;
    if (e.kind !== 'regulated') continue;
    const next = stateOf(e, across(x, ends[i]!), states[i]!);
    if (next !== states[i]) unchanged = false;
    states[i] = next;
  }
  return unchanged;
}

function across(x: Float64Array, { a, b }: Ends): number {
  return (a < 0 ? 0 : x[a]!) - (b < 0 ? 0 : x[b]!);
}

function requireSolvable(e: Element): void {
  const isFinite =
    e.kind === 'load'
      ? Number.isFinite(e.amps)
      : Number.isFinite(e.ohms) && (e.kind === 'resistor' || Number.isFinite(e.volts));
  if (!isFinite) throw new CircuitError('not-finite', `${e.name} has a value that is no number`);
  if (e.kind !== 'load' && e.ohms <= 0) {
    throw new CircuitError('ideal-source', `${e.name} needs a resistance above zero`);
  }
}

/** Right at its limit a supply is both holding and limited: it stays what it is within this share, so that it settles. */
const LIMIT_SHARE = 1e-6;

function stateOf(supply: Regulated, acrossVolts: number, now: RegulatedState): RegulatedState {
  const wanted = (supply.volts - acrossVolts) / supply.ohms;
  const limit = supply.maxAmps * (now === 'limited' ? 1 - LIMIT_SHARE : 1 + LIMIT_SHARE);
  // By way of holding: what is off and limited alone need not settle, with holding between them it does.
  if (wanted > limit) return now === 'off' ? 'holding' : 'limited';
  if (wanted < 0) return now === 'limited' ? 'holding' : 'off';
  return 'holding';
}

/** Fills the rows of [A | b] with what the elements conduct and inject at each node. */
function assemble(
  rows: readonly Float64Array[],
  elements: readonly Element[],
  ends: readonly Ends[],
  states: readonly RegulatedState[],
): void {
  const n = rows.length;
  for (let i = 0; i < n; i++) {
    rows[i]!.fill(0);
    rows[i]![i] = LEAK_S;
  }
  for (let i = 0; i < elements.length; i++) {
    const e = elements[i]!;
    const { a, b } = ends[i]!;
    let siemens = 0;
    let amps = 0;
    if (e.kind === 'load') amps = -e.amps;
    else if (e.kind === 'regulated' && states[i] !== 'holding')
      amps = states[i] === 'limited' ? e.maxAmps : 0;
    else {
      siemens = 1 / e.ohms;
      if (e.kind !== 'resistor') amps = e.volts / e.ohms;
    }
    if (a >= 0) {
      rows[a]![a]! += siemens;
      rows[a]![n]! += amps;
      if (b >= 0) rows[a]![b]! -= siemens;
    }
    if (b >= 0) {
      rows[b]![b]! += siemens;
      rows[b]![n]! -= amps;
      if (a >= 0) rows[b]![a]! -= siemens;
    }
  }
}

function solutionOf(
  ground: NodeName,
  index: ReadonlyMap<NodeName, number>,
  elements: readonly Element[],
  ends: readonly Ends[],
  states: readonly RegulatedState[],
  x: Float64Array,
): Solution {
  const volts = new Map<NodeName, number>([[ground, 0]]);
  for (const [node, i] of index) volts.set(node, x[i]!);
  const amps = new Map<string, number>();
  elements.forEach((e, i) => amps.set(e.name, branchAmps(e, across(x, ends[i]!), states[i]!)));
  return { volts, amps };
}

function branchAmps(e: Element, acrossVolts: number, state: RegulatedState): number {
  switch (e.kind) {
    case 'resistor':
      return acrossVolts / e.ohms;
    case 'source':
      return (e.volts - acrossVolts) / e.ohms;
    case 'load':
      return e.amps;
    case 'regulated':
      if (state === 'limited') return e.maxAmps;
      return state === 'off' ? 0 : (e.volts - acrossVolts) / e.ohms;
  }
}

function indexNodes(circuit: Circuit): Map<NodeName, number> {
  const index = new Map<NodeName, number>();
  const see = (node: NodeName): void => {
    if (node !== circuit.ground && !index.has(node)) index.set(node, index.size);
  };
  for (const e of circuit.elements) {
    if (e.kind === 'resistor') {
      see(e.a);
      see(e.b);
    } else {
      see(e.plus);
      see(e.minus);
    }
  }
  return index;
}

/** Gaussian elimination with partial pivoting on [A | b], into `x`. */
function eliminate(rows: Float64Array[], x: Float64Array): void {
  const n = rows.length;
  for (let col = 0; col < n; col++) {
    let best = col;
    for (let r = col + 1; r < n; r++) if (Math.abs(rows[r]![col]!) > Math.abs(rows[best]![col]!)) best = r;
    const pivot = rows[best]!;
    if (Math.abs(pivot[col]!) < 1e-15)
      throw new CircuitError('singular', 'this circuit has no unique solution');
    rows[best] = rows[col]!;
    rows[col] = pivot;
    for (let r = col + 1; r < n; r++) {
      const row = rows[r]!;
      const factor = row[col]! / pivot[col]!;
      if (factor === 0) continue;
      for (let c = col; c <= n; c++) row[c]! -= factor * pivot[c]!;
    }
  }
  for (let r = n - 1; r >= 0; r--) {
    const row = rows[r]!;
    let sum = row[n]!;
    for (let c = r + 1; c < n; c++) sum -= row[c]! * x[c]!;
    x[r] = sum / row[r]!;
  }
}

/** Volts from node `b` up to node `a`; zero when a node is not in the circuit. */
export function voltsAcross(solution: Solution, a: NodeName, b: NodeName): number {
  return (solution.volts.get(a) ?? 0) - (solution.volts.get(b) ?? 0);
}
