import {
  type Circuit,
  CircuitError,
  type Element,
  type NodeName,
  type Regulated,
  type Solution,
} from './circuit.js';

/**
 * Leak from every node to ground, siemens. A free clamp would float without it; this gives it the volts of whatever it hangs
 * from and moves nothing that carries current by more than a nanoamp.
 */
const LEAK_S = 1e-9;
/** Regulated supplies change state at most this often before the circuit is called unsettled. */
const MAX_PASSES = 20;

type RegulatedState = 'holding' | 'limited' | 'off';

/**
 * Volts and amps of a circuit at rest, by nodal analysis on the small dense system. Regulated supplies are settled by repeated
 * solving: each is holding its volts, at its current limit, or off.
 *
 * @throws CircuitError `ideal-source` for a resistance of zero, `not-finite` for a value that is no number, `singular` when no
 *   unique answer exists, `no-settling` when the supplies chase each other
 */
export function solveDc(circuit: Circuit): Solution {
  circuit.elements.forEach(requireSolvable);
  const states = new Map<Regulated, RegulatedState>();
  for (const e of circuit.elements) if (e.kind === 'regulated') states.set(e, 'holding');
  for (let pass = 0; pass < MAX_PASSES; pass++) {
    const solution = solveLinear(circuit, states);
    let changed = false;
    for (const [supply, state] of states) {
      const next = settle(supply, solution);
      if (next !== state) {
        states.set(supply, next);
        changed = true;
      }
    }
    if (!changed) return solution;
  }
  throw new CircuitError('no-settling', 'the regulated supplies of this circuit do not settle');
}

function requireSolvable(e: Element): void {
  const figures = e.kind === 'load' ? [e.amps] : e.kind === 'resistor' ? [e.ohms] : [e.volts, e.ohms];
  if (!figures.every(Number.isFinite))
    throw new CircuitError('not-finite', `${e.name} has a value that is no number`);
  if (e.kind !== 'load' && e.ohms <= 0) {
    throw new CircuitError('ideal-source', `${e.name} needs a resistance above zero`);
  }
}

function settle(supply: Regulated, solution: Solution): RegulatedState {
  const across = voltsAcross(solution, supply.plus, supply.minus);
  const wanted = (supply.volts - across) / supply.ohms;
  if (wanted > supply.maxAmps) return 'limited';
  if (wanted < 0) return 'off';
  return 'holding';
}

function solveLinear(circuit: Circuit, states: ReadonlyMap<Regulated, RegulatedState>): Solution {
  const index = indexNodes(circuit);
  const n = index.size;
  const matrix = Array.from({ length: n }, () => new Float64Array(n + 1));
  const at = (node: NodeName): number => (node === circuit.ground ? -1 : index.get(node)!);
  const conduct = (a: NodeName, b: NodeName, siemens: number): void => {
    const i = at(a);
    const j = at(b);
    if (i >= 0) matrix[i]![i]! += siemens;
    if (j >= 0) matrix[j]![j]! += siemens;
    if (i >= 0 && j >= 0) {
      matrix[i]![j]! -= siemens;
      matrix[j]![i]! -= siemens;
    }
  };
  const inject = (into: NodeName, outOf: NodeName, amps: number): void => {
    if (at(into) >= 0) matrix[at(into)]![n]! += amps;
    if (at(outOf) >= 0) matrix[at(outOf)]![n]! -= amps;
  };
  for (let i = 0; i < n; i++) matrix[i]![i]! += LEAK_S;
  for (const e of circuit.elements) {
    switch (e.kind) {
      case 'resistor':
        conduct(e.a, e.b, 1 / e.ohms);
        break;
      case 'source':
        conduct(e.plus, e.minus, 1 / e.ohms);
        inject(e.plus, e.minus, e.volts / e.ohms);
        break;
      case 'load':
        inject(e.minus, e.plus, e.amps);
        break;
      case 'regulated':
        if (states.get(e) === 'holding') {
          conduct(e.plus, e.minus, 1 / e.ohms);
          inject(e.plus, e.minus, e.volts / e.ohms);
        } else if (states.get(e) === 'limited') inject(e.plus, e.minus, e.maxAmps);
        break;
    }
  }
  const x = eliminate(matrix);
  const volts = new Map<NodeName, number>([[circuit.ground, 0]]);
  for (const [node, i] of index) volts.set(node, x[i]!);
  return { volts, amps: branchAmps(circuit, states, volts) };
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

/** Gaussian elimination with partial pivoting on [A | b]; returns x. */
function eliminate(rows: Float64Array[]): Float64Array {
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
  const x = new Float64Array(n);
  for (let r = n - 1; r >= 0; r--) {
    const row = rows[r]!;
    let sum = row[n]!;
    for (let c = r + 1; c < n; c++) sum -= row[c]! * x[c]!;
    x[r] = sum / row[r]!;
  }
  return x;
}

function branchAmps(
  circuit: Circuit,
  states: ReadonlyMap<Regulated, RegulatedState>,
  volts: ReadonlyMap<NodeName, number>,
): Map<string, number> {
  const amps = new Map<string, number>();
  const across = (a: NodeName, b: NodeName): number => volts.get(a)! - volts.get(b)!;
  for (const e of circuit.elements) {
    switch (e.kind) {
      case 'resistor':
        amps.set(e.name, across(e.a, e.b) / e.ohms);
        break;
      case 'source':
        amps.set(e.name, (e.volts - across(e.plus, e.minus)) / e.ohms);
        break;
      case 'load':
        amps.set(e.name, e.amps);
        break;
      case 'regulated': {
        const state = states.get(e);
        const held = (e.volts - across(e.plus, e.minus)) / e.ohms;
        amps.set(e.name, state === 'limited' ? e.maxAmps : state === 'off' ? 0 : held);
        break;
      }
    }
  }
  return amps;
}

/** Volts from node `b` up to node `a`; zero when a node is not in the circuit. */
export function voltsAcross(solution: Solution, a: NodeName, b: NodeName): number {
  return (solution.volts.get(a) ?? 0) - (solution.volts.get(b) ?? 0);
}
