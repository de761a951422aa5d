import {
  type Contact,
  contactAt,
  gasAt,
  type Hazard,
  hazardsOf,
  type HookupAction,
  type HookupScene,
  type HookupState,
} from '@voltrek/core/hookup';
import type { HouseRules } from '@voltrek/core/rules';

/** The circuit's judgement of a step, before it is done. */
export interface JudgedStep {
  /** Of the contact that is made or broken; null for a step that is no clamp's. */
  readonly contact: Contact | null;
  readonly gas: ReturnType<typeof gasAt>;
  readonly hazards: readonly Hazard[];
}

/** Judged already, by the circuit and the rules it was judged by; what nobody holds any more goes by itself. */
const known = new WeakMap<HookupScene, WeakMap<HouseRules, Map<string, JudgedStep>>>();

/** Judges a step, or gives what was judged of it before: the step to come is judged while the one before it is being done. */
export function judgedStep(
  scene: HookupScene,
  state: HookupState,
  action: HookupAction,
  rules: HouseRules,
): JudgedStep {
  const byRules = known.get(scene) ?? new WeakMap<HouseRules, Map<string, JudgedStep>>();
  known.set(scene, byRules);
  const byState = byRules.get(rules) ?? new Map<string, JudgedStep>();
  byRules.set(rules, byState);
  const key = JSON.stringify([state, action]);
  const judged = byState.get(key) ?? judge(scene, state, action, rules);
  byState.set(key, judged);
  return judged;
}

function judge(scene: HookupScene, state: HookupState, action: HookupAction, rules: HouseRules): JudgedStep {
  const pointId =
    action.kind === 'attach' ? action.pointId : action.kind === 'detach' ? state.clamps[action.clamp] : null;
  const contact =
    pointId !== null && (action.kind === 'attach' || action.kind === 'detach')
      ? contactAt(scene, state, action.clamp, pointId, rules)
      : null;
  return {
    contact,
    gas: contact ? gasAt(scene, state, contact) : 'none',
    hazards: hazardsOf(scene, state, action, rules),
  };
}
