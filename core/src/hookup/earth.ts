import type { ClampId, Rescue } from '../circuit/index.js';
import { asWired, isPositiveEarth, type Machine } from '../machine/index.js';
import { underWord } from '../quantities/index.js';
import type { HouseRules } from '../rules/index.js';
import { actWired, type HandAction, type HookupAction, type OrderProgress } from './actions.js';
import { type Contact, contactWired } from './judge/contact.js';
import type { Hazard } from './judge/hazard.js';
import { asIsWired, hazardsWired } from './judge/hazards.js';
import { makeSafeWired } from './order/make-safe.js';
import { clearingWired, type HookupStep } from './order/order.js';
import { replanWired } from './order/replan.js';
import { safestWired } from './order/safest-order.js';
import {
  crankingWired,
  type HookupScene,
  type HookupState,
  rescueWired,
  SPARE_POSTS,
} from './judge/state.js';

/*
 * A machine whose plus is on its body is the mirror image of the usual one. Hands, logs and screens name a clamp by its colour. The floor
 * below knows the clamp of the live side and the clamp of the body: here one is turned into the other, on the way in and on the way out.
 * For every other machine these functions are those below.
 */

const OTHER_CLAMP: Readonly<Record<ClampId, ClampId>> = {
  redCasualty: 'blackCasualty',
  blackCasualty: 'redCasualty',
  redSource: 'blackSource',
  blackSource: 'redSource',
};
const OTHER_SPARE_POST: Readonly<Record<string, string>> = {
  [SPARE_POSTS.plus]: SPARE_POSTS.minus,
  [SPARE_POSTS.minus]: SPARE_POSTS.plus,
};

/** A donor's body is its minus: it is never joined, so its circuit is left as it is. */
const isMirrored = ({ machine, option }: HookupScene): boolean =>
  isPositiveEarth(machine) && option.sourceKind !== 'donor';

const wired = (scene: HookupScene): HookupScene => ({ ...scene, machine: asWired(scene.machine) });
const place = (pointId: string): string => underWord(OTHER_SPARE_POST, pointId) ?? pointId;

function stateSeen(state: HookupState): HookupState {
  const { clamps, attachedInOrder, onto } = state;
  const at = (clamp: ClampId): string | null => {
    const pointId = clamps[OTHER_CLAMP[clamp]];
    return pointId === null ? null : place(pointId);
  };
  return {
    ...state,
    clamps: {
      redCasualty: at('redCasualty'),
      blackCasualty: at('blackCasualty'),
      redSource: at('redSource'),
      blackSource: at('blackSource'),
    },
    attachedInOrder: attachedInOrder.map((clamp) => OTHER_CLAMP[clamp]),
    ...(onto && {
      onto: Object.fromEntries(
        Object.entries(onto).map(([clamp, metal]) => [OTHER_CLAMP[clamp as ClampId], metal]),
      ),
    }),
    // The mirror itself stands for a plus on the body.
    ...(state.circumstances && {
      circumstances: state.circumstances.filter((what) => what !== 'positive-earth'),
    }),
  };
}

function actionSeen<A extends HandAction>(action: A): A {
  switch (action.kind) {
    case 'attach':
      return { ...action, clamp: OTHER_CLAMP[action.clamp], pointId: place(action.pointId) };
    case 'detach':
    case 'lay':
      return { ...action, clamp: OTHER_CLAMP[action.clamp] };
    case 'touch':
      return { ...action, a: OTHER_CLAMP[action.a], b: OTHER_CLAMP[action.b] };
    default:
      return action;
  }
}

const stepSeen = (step: HookupStep): HookupStep => ({
  ...step,
  action: actionSeen(step.action),
  isMirrored: true,
});

/** `hazardsOf` of the floor below, for whichever post is on the body. */
export function hazardsOf(
  scene: HookupScene,
  state: HookupState,
  action: HandAction,
  rules: HouseRules,
): Hazard[] {
  return mirrored(hazardsWired, scene, state, action, rules);
}

/** `hazardsAsIs` of the floor below, for whichever post is on the body. */
export const hazardsAsIs: typeof asIsWired = (scene, state, action, rules) =>
  mirrored(asIsWired, scene, state, action, rules);

function mirrored(
  judge: typeof hazardsWired,
  scene: HookupScene,
  state: HookupState,
  action: HandAction,
  rules: HouseRules,
): Hazard[] {
  if (!isMirrored(scene)) return judge(scene, state, action, rules);
  const found = judge(wired(scene), stateSeen(state), actionSeen(action), rules);
  return found.map((hazard) => ({ ...hazard, isMirrored: true }));
}

/** `contactAt` of the floor below, for whichever post is on the body. */
export function contactAt(
  scene: HookupScene,
  state: HookupState,
  clamp: ClampId,
  pointId: string,
  rules: HouseRules,
): Contact {
  return isMirrored(scene)
    ? contactWired(wired(scene), stateSeen(state), OTHER_CLAMP[clamp], place(pointId), rules)
    : contactWired(scene, state, clamp, pointId, rules);
}

/** `safestOrder` of the floor below; with plus on the body it ends with red on bare metal of the body. */
export function safestOrder(scene: HookupScene, waitMinutes: number, rules: HouseRules): HookupStep[] {
  return isMirrored(scene)
    ? safestWired(wired(scene), waitMinutes, rules).map(stepSeen)
    : safestWired(scene, waitMinutes, rules);
}

/** `clearingOrder` of the floor below, of an order that `safestOrder` here gave. */
export function clearingOrder(
  steps: readonly HookupStep[],
  machine: Machine,
  rules: HouseRules,
): HookupStep[] {
  return steps.some((step) => step.isMirrored)
    ? clearingWired(steps.map(stepSeen), asWired(machine), rules).map(stepSeen)
    : clearingWired(steps, machine, rules);
}

/** `makeSafe` of the floor below, for whichever post is on the body. */
export function makeSafe(scene: HookupScene, state: HookupState, rules: HouseRules): HookupAction[] {
  return isMirrored(scene)
    ? makeSafeWired(wired(scene), stateSeen(state), rules).map(actionSeen)
    : makeSafeWired(scene, state, rules);
}

/** `replan` of the floor below, for whichever post is on the body. */
export function replan(
  scene: HookupScene,
  order: readonly HookupStep[],
  state: HookupState,
  rules: HouseRules,
): OrderProgress<HookupStep> {
  if (!isMirrored(scene)) return replanWired(scene, order, state, rules);
  const { done, next, later } = replanWired(wired(scene), order.map(stepSeen), stateSeen(state), rules);
  return { done: done.map(stepSeen), next: next && stepSeen(next), later: later.map(stepSeen) };
}

/** `actByHand` of the floor below: which of its own clamps takes the battery off the body depends on the post that is on it. */
export function actByHand(state: HookupState, action: HandAction, machine: Machine): HookupState {
  return actWired(state, action, asWired(machine));
}

/** The circuit as the clamps stand now; with plus on the body it is the mirror image, every current and volt of it the same. */
export function rescueOf(scene: HookupScene, state: HookupState): Rescue {
  return isMirrored(scene) ? rescueWired(wired(scene), stateSeen(state)) : rescueWired(scene, state);
}

/** The same while its starter turns steadily. */
export function crankingRescueOf(scene: HookupScene, state: HookupState): Rescue {
  return isMirrored(scene) ? crankingWired(wired(scene), stateSeen(state)) : crankingWired(scene, state);
}
