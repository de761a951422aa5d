import {
  type ClampId,
  clampNode,
  contactName,
  isSourceClamp,
  sourceTerminalNode,
  terminalNode,
  voltsAcross,
} from '../../circuit/index.js';
import { metresToNearestBattery, pointOf } from '../../machine/index.js';
import type { HouseRules } from '../../rules/index.js';
import { act } from '../actions.js';
import { terminalOf } from '../../plan/index.js';
import { solved } from './solve-state.js';
import { type HookupScene, type HookupState, sourceTerminalOf } from './state.js';

/** The moment in which a clamp meets metal. */
export interface Contact {
  /** Volts across the open gap. */
  readonly gapVolts: number;
  /** Amps once it is on (or that it carried before it was taken off). */
  readonly contactAmps: number;
  readonly gasNear: boolean;
  /** The battery whose gas it may meet: the casualty's, the donor's, or that of a source that stands by itself. */
  readonly end: 'casualty' | 'donor' | 'source';
  /** Metres to the nearest battery of that vehicle; null at a source that stands by itself. */
  readonly metresToBattery: number | null;
}

/** Less than this is the solver's leak, not a current, amps. */
const DEAD_AMPS = 0.001;

/** Solves the circuit with the clamp off and on `pointId`, everything else as it stands. */
export function contactWired(
  scene: HookupScene,
  state: HookupState,
  clamp: ClampId,
  pointId: string,
  rules: HouseRules,
): Contact {
  const isFree = state.clamps[clamp] === null;
  const open = isFree ? state : act(state, { kind: 'detach', clamp });
  const made = act(open, { kind: 'attach', clamp, pointId });
  const target = isSourceClamp(clamp)
    ? sourceTerminalNode(sourceTerminalOf(scene, clamp, pointId))
    : terminalNode(terminalOf(scene.machine, pointId));
  const before = solved(scene, open);
  const after = solved(scene, made);
  const contactAmps = Math.abs(after.amps.get(contactName(clamp)) ?? 0);
  // A lead whose far end hangs free floats at no particular volts: what drives no current makes no spark.
  const isLive = contactAmps > DEAD_AMPS && before.volts.has(target);
  const metres = metresFor(scene, clamp, pointId);
  return {
    gapVolts: isLive ? Math.abs(voltsAcross(before, clampNode(clamp), target)) : 0,
    contactAmps: isLive ? contactAmps : 0,
    gasNear: scene.enclosed || metres === null || metres < rules.gasDistanceM,
    end: isSourceClamp(clamp) ? (scene.donor ? 'donor' : 'source') : 'casualty',
    metresToBattery: metres,
  };
}

function metresFor(scene: HookupScene, clamp: ClampId, pointId: string): number | null {
  if (!isSourceClamp(clamp)) return metresToNearestBattery(scene.machine, pointOf(scene.machine, pointId));
  const point = scene.donor?.points.find((p) => p.id === pointId);
  return scene.donor && point ? metresToNearestBattery(scene.donor, point) : null;
}
