import { type ClampId, clampNode, isRedClamp } from '../../circuit/index.js';
import { hasLooseLeads } from '../../plan/index.js';
import type { HouseRules } from '../../rules/index.js';
import { type Hazard, newHazard } from '../judge/hazard.js';
import { touchAmps } from '../judge/solve-state.js';
import { clampsInHand, type HookupScene, type HookupState } from '../judge/state.js';

/** Clamps in hand that are on nothing. */
export function freeClamps(scene: HookupScene, state: HookupState): ClampId[] {
  return clampsInHand(scene.option).filter((clamp) => state.clamps[clamp] === null);
}

/** The most that each free clamp would drive into either vehicle's body if it touched, amps. */
export function freeAmps(scene: HookupScene, state: HookupState): number[] {
  return freeClamps(scene, state).map((clamp) => bodyAmps(scene, state, clamp));
}

/** The most that a clamp would drive into either vehicle's body if it touched or was laid down there, amps. */
export function bodyAmps(scene: HookupScene, state: HookupState, clamp: ClampId): number {
  const bodies = ['casualty.body', ...(hasLooseLeads(scene.option) ? ['source.minus'] : [])];
  return Math.max(...bodies.map((body) => touchAmps(scene, state, clampNode(clamp), body)));
}

/** Clamps that hang free and live after an action. */
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
  const red = free.find(isRedClamp);
  const black = free.find((clamp) => !isRedClamp(clamp));
  return red && black ? touchAmps(scene, state, clampNode(red), clampNode(black)) : 0;
}
