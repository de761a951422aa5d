import type { NodeName, Solution } from '../circuit/circuit.js';
import { type Rescue, rescueCircuit } from '../circuit/rescue.js';
import { solveDc } from '../circuit/solve-dc.js';
import { type HookupScene, type HookupState, rescueOf } from './state.js';

/** Metal on metal, ohms: a tool, bodywork, two clamps. */
export const TOUCH_OHMS = 0.002;

/** The circuit of this state solved, with metal touching where `bridges` say. */
export function solved(scene: HookupScene, state: HookupState, bridges: Rescue['bridges'] = []): Solution {
  const rescue = rescueOf(scene, state);
  return solveDc(rescueCircuit({ ...rescue, bridges: [...bridges, ...(rescue.bridges ?? [])] }));
}

/** Amps through metal that touches these two nodes. */
export function touchAmps(scene: HookupScene, state: HookupState, a: NodeName, b: NodeName): number {
  const touched = solved(scene, state, [{ a, b, ohms: TOUCH_OHMS }]);
  return Math.abs(touched.amps.get('bridge.0') ?? 0);
}
