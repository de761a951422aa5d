import { type ClampId, clampNode, rescueCircuit } from '../circuit/rescue.js';
import { solveDc } from '../circuit/solve-dc.js';
import { hasLooseLeads } from '../crank/options.js';
import type { HouseRules } from '../rules/house-rules.js';
import { act, clampsOn, type HookupAction } from './actions.js';
import { contactAt } from './contact.js';
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
  if (state.pluggedIn) still.push({ kind: 'plug', in: false });
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
  const pointId = state.clamps[clamp];
  if (pointId === null) return 0;
  const { biteAmps, gapVolts, gasNear } = contactAt(scene, state, clamp, pointId, rules);
  const spark = ((biteAmps * gapVolts) / SPARK_WATTS_PER_UNIT) * (gasNear ? GAS_FACTOR : 1);
  return spark + liveFreeAmps(scene, act(state, { kind: 'detach', clamp })) / SHORT_AMPS_PER_UNIT;
}

/** The most that any free clamp would drive into either vehicle's body if it touched, amps. */
function liveFreeAmps(scene: HookupScene, state: HookupState): number {
  const circuit = rescueCircuit(rescueOf(scene, state));
  const free: ClampId[] = (['redCasualty', 'redSource'] as const).filter(
    (clamp) => state.clamps[clamp] === null && (clamp === 'redCasualty' || hasLooseLeads(scene.option)),
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
