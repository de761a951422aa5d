import type { HouseRules } from '../../rules/index.js';
import { act, clampsOn, type HookupAction, stillActions } from '../actions.js';
import { hazardCost } from './safest-order.js';
import type { HookupScene, HookupState } from '../judge/state.js';

/** Cost of taking a clamp off out of turn: breaks ties in favour of the plain reverse, which hands know. */
const OUT_OF_TURN_COST = 4;

/**
 * The safest order that takes everything off, from any state of the clamps. Sources are stilled first; then each order of the clamps is
 * judged on the solved circuit. The one with the least hazard wins.
 */
export function makeSafeWired(scene: HookupScene, state: HookupState, rules: HouseRules): HookupAction[] {
  const still = stillActions(state);
  const start = still.reduce(act, state);
  return [...still, ...cheapestOrder(scene, start, rules, new Map()).actions];
}

/**
 * True where {@link makeSafeWired} has something to do, without the search for its best order.
 *
 * @example isToBeCleared(NOTHING_CONNECTED) // => false
 */
export function isToBeCleared(state: HookupState): boolean {
  return stillActions(state).length > 0 || clampsOn(state).length > 0;
}

interface Costed {
  readonly cost: number;
  readonly actions: readonly HookupAction[];
}

/** @param known what was already found for a set of clamps that contact: many orders pass through the same one */
function cheapestOrder(
  scene: HookupScene,
  state: HookupState,
  rules: HouseRules,
  known: Map<string, Costed>,
): Costed {
  const on = clampsOn(state);
  const key = on.join();
  const found = known.get(key);
  if (found) return found;
  let best: Costed | null = null;
  for (const clamp of on) {
    const action: HookupAction = { kind: 'detach', clamp };
    const inTurn = on[on.length - 1] === clamp;
    const step =
      hazardCost(scene, [{ action, reason: 'start-again' }], rules, state) + (inTurn ? 0 : OUT_OF_TURN_COST);
    const rest = cheapestOrder(scene, act(state, action), rules, known);
    const cost = step + rest.cost;
    if (!best || cost < best.cost) best = { cost, actions: [action, ...rest.actions] };
  }
  const cheapest = best ?? { cost: 0, actions: [] };
  known.set(key, cheapest);
  return cheapest;
}
