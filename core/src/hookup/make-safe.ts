import { biteName, type ClampId, clampNode, rescueCircuit } from '../circuit/rescue.js';
import type { Circuit, NodeName, Solution } from '../circuit/circuit.js';
import { solveDc, voltsAcross } from '../circuit/solve-dc.js';
import { metresToNearestBlock, pointOf } from '../machine/machine.js';
import type { HouseRules } from '../rules/house-rules.js';
import { act, clampsOn, type HookupAction } from './actions.js';
import { type HookupScene, type HookupState, rescueOf } from './state.js';

/** A tool or body touching a free clamp, ohms. */
const TOUCH_OHMS = 0.002;
/** One unit of cost is this many watts at a breaking contact in clean air. */
const SPARK_WATTS_PER_UNIT = 100;
/** The same spark where gas gathers counts this many times: it can burst a case, so it outweighs every other cost here. */
const GAS_FACTOR = 100;
/** One unit of cost is this many amps that a live free clamp would drive into bodywork. */
const SHORT_AMPS_PER_UNIT = 200;
/** Cost of taking a clamp off out of turn: breaks ties in favour of the plain reverse, which hands know. */
const OUT_OF_TURN_COST = 4;

/**
 * The safest order that takes everything off, from any state of the clamps. Sources are stilled first; then every order of the
 * clamps that bite is tried on the solved circuit, and the one with the least spark, gas and live free metal wins.
 */
export function makeSafe(scene: HookupScene, state: HookupState, rules: HouseRules): HookupAction[] {
  const still: HookupAction[] = [];
  if (state.packOn) still.push({ kind: 'pack', on: false });
  if (state.donorRunning) still.push({ kind: 'donor-engine', running: false });
  const start = still.reduce(act, state);
  return [...still, ...cheapestOrder(scene, start, rules).actions];
}

interface Costed {
  readonly cost: number;
  readonly actions: readonly HookupAction[];
}

function cheapestOrder(scene: HookupScene, state: HookupState, rules: HouseRules): Costed {
  const on = clampsOn(state);
  let best: Costed | null = null;
  for (const clamp of on) {
    const action: HookupAction = { kind: 'detach', clamp };
    const inTurn = on[on.length - 1] === clamp;
    const step = detachCost(scene, state, clamp, rules) + (inTurn ? 0 : OUT_OF_TURN_COST);
    const rest = cheapestOrder(scene, act(state, action), rules);
    const cost = step + rest.cost;
    if (!best || cost < best.cost) best = { cost, actions: [action, ...rest.actions] };
  }
  return best ?? { cost: 0, actions: [] };
}

function detachCost(scene: HookupScene, state: HookupState, clamp: ClampId, rules: HouseRules): number {
  const before = solve(scene, state);
  const after = act(state, { kind: 'detach', clamp });
  const afterCircuit = rescueCircuit(rescueOf(scene, after));
  const opened = solveDc(afterCircuit);
  const bite = rescueCircuit(rescueOf(scene, state)).elements.find((e) => e.name === biteName(clamp));
  const target = bite?.kind === 'resistor' ? bite.b : null;
  const watts =
    Math.abs(before.amps.get(biteName(clamp)) ?? 0) * (target ? gapVolts(opened, clamp, target) : 0);
  const gas = gasNear(scene, state, clamp, rules) ? GAS_FACTOR : 1;
  return (
    (watts / SPARK_WATTS_PER_UNIT) * gas + liveFreeAmps(scene, after, afterCircuit) / SHORT_AMPS_PER_UNIT
  );
}

function solve(scene: HookupScene, state: HookupState): Solution {
  return solveDc(rescueCircuit(rescueOf(scene, state)));
}

function gapVolts(opened: Solution, clamp: ClampId, target: NodeName): number {
  return Math.abs(voltsAcross(opened, clampNode(clamp), target));
}

function gasNear(scene: HookupScene, state: HookupState, clamp: ClampId, rules: HouseRules): boolean {
  if (scene.enclosed || clamp === 'redSource' || clamp === 'blackSource') return true;
  const pointId = state.clamps[clamp];
  return (
    pointId !== null &&
    metresToNearestBlock(scene.machine, pointOf(scene.machine, pointId)) < rules.gasDistanceM
  );
}

/** The most that any free clamp would drive into either vehicle's body if it touched, amps. */
function liveFreeAmps(scene: HookupScene, state: HookupState, circuit: Circuit): number {
  const free: ClampId[] = (['redCasualty', 'redSource'] as const).filter(
    (clamp) =>
      state.clamps[clamp] === null && (clamp === 'redCasualty' || scene.option.sourceKind === 'donor'),
  );
  let most = 0;
  for (const clamp of free) {
    for (const body of ['casualty.body', 'source.minus']) {
      const touched = solveDc({
        ...circuit,
        elements: [
          ...circuit.elements,
          { kind: 'resistor', name: 'touch', a: clampNode(clamp), b: body, ohms: TOUCH_OHMS },
        ],
      });
      most = Math.max(most, Math.abs(touched.amps.get('touch') ?? 0));
    }
  }
  return most;
}
