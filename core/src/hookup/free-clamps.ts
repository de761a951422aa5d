import { type ClampId, clampNode } from '../circuit/rescue.js';
import { hasLooseLeads } from '../crank/options.js';
import type { HouseRules } from '../rules/house-rules.js';
import { type Hazard, newHazard } from './hazard.js';
import { solved, TOUCH_OHMS } from './solve-state.js';
import { clampsInHand, type HookupScene, type HookupState } from './state.js';

/** Clamps in hand that bite nothing. */
export function freeClamps(scene: HookupScene, state: HookupState): ClampId[] {
  return clampsInHand(scene.option).filter((clamp) => state.clamps[clamp] === null);
}

/** The most that each free clamp would drive into either vehicle's body if it touched, amps. */
export function freeAmps(scene: HookupScene, state: HookupState): number[] {
  const free = freeClamps(scene, state);
  const isLoose = hasLooseLeads(scene.option);
  return free.map((clamp) =>
    Math.max(
      ...['casualty.body', ...(isLoose ? ['source.minus'] : [])].map((body) => {
        const touched = solved(scene, state, [{ a: clampNode(clamp), b: body, ohms: TOUCH_OHMS }]);
        return Math.abs(touched.amps.get('bridge.0') ?? 0);
      }),
    ),
  );
}

/** What hangs free and live after an action. */
export function liveFree(scene: HookupScene, state: HookupState, rules: HouseRules): Hazard[] {
  const live = freeAmps(scene, state).filter((amps) => amps > rules.liveFreeAmps);
  if (live.length === 0) return [];
  const most = Math.max(...live);
  const both = freeEndsAmps(scene, state);
  return both > rules.liveFreeAmps
    ? [newHazard('two-live-free-clamps', 'watch', both)]
    : [newHazard('live-free-clamp', most > rules.unequalSevereAmps ? 'watch' : 'note', most)];
}

/** Amps if the two free ends of red and black met. */
export function freeEndsAmps(scene: HookupScene, state: HookupState): number {
  const free = freeClamps(scene, state);
  const red = free.find((c) => c === 'redCasualty' || c === 'redSource');
  const black = free.find((c) => c === 'blackCasualty' || c === 'blackSource');
  if (!red || !black) return 0;
  const touched = solved(scene, state, [{ a: clampNode(red), b: clampNode(black), ohms: TOUCH_OHMS }]);
  return Math.abs(touched.amps.get('bridge.0') ?? 0);
}
