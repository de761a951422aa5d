import {
  biteName,
  type ClampId,
  clampNode,
  isSourceClamp,
  sourceTerminalNode,
  terminalNode,
} from '../circuit/rescue.js';
import { voltsAcross } from '../circuit/solve-dc.js';
import { metresToNearestBlock, pointOf } from '../machine/machine.js';
import type { HouseRules } from '../rules/house-rules.js';
import { act } from './actions.js';
import { terminalOf } from '../crank/clamp-points.js';
import { solved } from './solve-state.js';
import { type HookupScene, type HookupState, sourceTerminalOf } from './state.js';

/** What happens where a clamp meets metal. */
export interface Contact {
  /** Volts across the open gap. */
  readonly gapVolts: number;
  /** Amps once it bites (or that it carried before it was taken off). */
  readonly biteAmps: number;
  readonly gasNear: boolean;
  /** Metres to the nearest block of that vehicle; null at the source's own end. */
  readonly metresToBlock: number | null;
}

/** Less than this is the solver's leak, not a current, amps. */
const DEAD_AMPS = 0.001;

/** Solves the circuit with the clamp off and on `pointId`, everything else as it stands. */
export function contactAt(
  scene: HookupScene,
  state: HookupState,
  clamp: ClampId,
  pointId: string,
  rules: HouseRules,
): Contact {
  const isFree = state.clamps[clamp] === null;
  const open = isFree ? state : act(state, { kind: 'detach', clamp });
  const bitten = act(open, { kind: 'attach', clamp, pointId });
  const target = isSourceClamp(clamp)
    ? sourceTerminalNode(sourceTerminalOf(scene, clamp, pointId))
    : terminalNode(terminalOf(scene.machine, pointId));
  const before = solved(scene, open);
  const after = solved(scene, bitten);
  const biteAmps = Math.abs(after.amps.get(biteName(clamp)) ?? 0);
  // A lead whose far end hangs free floats at no particular volts: what drives no current makes no spark.
  const isLive = biteAmps > DEAD_AMPS && before.volts.has(target);
  const metres = metresFor(scene, clamp, pointId);
  return {
    gapVolts: isLive ? Math.abs(voltsAcross(before, clampNode(clamp), target)) : 0,
    biteAmps: isLive ? biteAmps : 0,
    gasNear: scene.enclosed || metres === null || metres < rules.gasDistanceM,
    metresToBlock: metres,
  };
}

function metresFor(scene: HookupScene, clamp: ClampId, pointId: string): number | null {
  if (isSourceClamp(clamp)) return null;
  return metresToNearestBlock(scene.machine, pointOf(scene.machine, pointId));
}
