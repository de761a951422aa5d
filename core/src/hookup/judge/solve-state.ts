import { type NodeName, type Rescue, rescueCircuit, type Solution, solveDc } from '../../circuit/index.js';
import { type HookupScene, type HookupState, rescueWired } from './state.js';

/** Metal on metal, ohms: a tool, bodywork, two clamps. */
export const TOUCH_OHMS = 0.002;

/** The circuit of this state solved, with metal touching where `bridges` say. */
export function solved(scene: HookupScene, state: HookupState, bridges: Rescue['bridges'] = []): Solution {
  const rescue = rescueWired(scene, state);
  return solveDc(rescueCircuit({ ...rescue, bridges: [...bridges, ...(rescue.bridges ?? [])] }));
}

/** Amps through metal that touches these two nodes. */
export function touchAmps(scene: HookupScene, state: HookupState, a: NodeName, b: NodeName): number {
  const touched = solved(scene, state, [{ a, b, ohms: TOUCH_OHMS }]);
  return Math.abs(touched.amps.get('bridge.0') ?? 0);
}
