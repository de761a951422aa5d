import type { ClampId } from '../../circuit/index.js';
import { hasLooseLeads } from '../../plan/index.js';
import type { HouseRules } from '../../rules/index.js';
import { act } from '../actions.js';
import type { Hazard, Severity } from '../judge/hazard.js';
import { hazardsWired } from '../judge/hazards.js';
import { clearingWired, hookupOrder, type HookupStep, usualSequence } from './order.js';
import { type HookupScene, type HookupState, NOTHING_CONNECTED } from '../judge/state.js';

/** How much worse each severity is than all of the one below it in an order. */
const WEIGHT: Record<Severity, number> = { note: 1, watch: 50, severe: 10_000 };

/** Of two orders that are alike otherwise the one whose slips carry less is taken: this many amps count as one point. */
const AMPS_A_POINT = 10_000;

/** Returns the hazards of an order, hooking up from nothing and clearing again once the casualty runs. */
export function hazardsThroughout(
  scene: HookupScene,
  steps: readonly HookupStep[],
  rules: HouseRules,
): Hazard[] {
  const end = steps.reduce((state, { action }) => act(state, action), NOTHING_CONNECTED);
  const running = { ...scene, casualtyRuns: !scene.option.chargeOnly };
  const clearing = clearingWired(steps, scene.machine, rules);
  return [...orderHazards(scene, steps, rules), ...orderHazards(running, clearing, rules, end)].flat();
}

/** Returns the cost of an order, hooking up and clearing. */
export const orderCost = (scene: HookupScene, steps: readonly HookupStep[], rules: HouseRules): number =>
  costOf(hazardsThroughout(scene, steps, rules));

const costOf = (hazards: readonly Hazard[]): number =>
  hazards.reduce((sum, h) => sum + WEIGHT[h.severity] + (h.amps ?? 0) / AMPS_A_POINT, 0);

/** Returns the cost of these steps, done from this state. */
export const hazardCost = (
  scene: HookupScene,
  steps: readonly HookupStep[],
  rules: HouseRules,
  from: HookupState = NOTHING_CONNECTED,
): number => costOf(orderHazards(scene, steps, rules, from).flat());

/** True when any of these steps, done from this state, is severe. */
export function hasSevere(
  scene: HookupScene,
  steps: readonly HookupStep[],
  rules: HouseRules,
  from: HookupState,
): boolean {
  return hazardCost(scene, steps, rules, from) >= WEIGHT.severe;
}

/** The hazards of each step of an order, judged in the state that the steps before it leave. */
export function orderHazards(
  scene: HookupScene,
  steps: readonly HookupStep[],
  rules: HouseRules,
  from: HookupState = NOTHING_CONNECTED,
): Hazard[][] {
  let state = from;
  return steps.map(({ action }) => {
    const found = hazardsWired(scene, state, action, rules);
    state = act(state, action);
    return found;
  });
}

/**
 * A law that no school and no circuit outranks: the last clamp on is black and not on the donor's battery, which was just charged. Its
 * ground point is allowed. Both reds are on before the bodies are joined, since a free red end would be live from both sides.
 *
 * @param mayEndAtSource its black does not go on a donor's battery
 * @example isSound(['redCasualty', 'redSource', 'blackSource', 'blackCasualty'], true) // => true
 */
export function isSound(sequence: readonly ClampId[], mayEndAtSource: boolean): boolean {
  const at = (clamp: ClampId): number => sequence.indexOf(clamp);
  const areRedsFirst =
    Math.max(at('redCasualty'), at('redSource')) < Math.max(at('blackCasualty'), at('blackSource'));
  return areRedsFirst && (mayEndAtSource || sequence.at(-1) === 'blackCasualty');
}

/** Sequences of loose clamps that the house rules allow, the usual one first. */
export function allowedSequences(rules: HouseRules, mayEndAtSource: boolean): (readonly ClampId[])[] {
  const usual = usualSequence(rules);
  const all = permutations(usual).filter((s) => isSound(s, mayEndAtSource) && isAllowed(s, rules));
  return [usual, ...all.filter((s) => s.join() !== usual.join())];
}

function isAllowed(sequence: readonly ClampId[], rules: HouseRules): boolean {
  const at = (clamp: ClampId): number => sequence.indexOf(clamp);
  const isFirstRed =
    rules.firstRed === 'casualty' ? at('redCasualty') < at('redSource') : at('redSource') < at('redCasualty');
  const isSourceFirst = Math.max(at('redSource'), at('blackSource')) < 2;
  const areRedsFirst = Math.max(at('redSource'), at('redCasualty')) < 2;
  const isGroundLast = rules.lastBlack !== 'ground-point' || at('blackCasualty') === 3;
  return rules.clampSequence === 'source-first'
    ? isSourceFirst && isGroundLast
    : areRedsFirst && isFirstRed && isGroundLast;
}

/**
 * Every sequence of a short list, as it stands first.
 *
 * @example permutations([1, 2, 3]).length // => 6
 */
export function permutations<T>(list: readonly T[]): T[][] {
  if (list.length < 2) return [[...list]];
  return list.flatMap((head, i) =>
    permutations([...list.slice(0, i), ...list.slice(i + 1)]).map((tail) => [head, ...tail]),
  );
}

/**
 * The safest order that the house rules allow, by what the circuit says of each step, hooking up and clearing; the usual one where
 * nothing is safer. Where every allowed order has a severe step, safety outranks the school: other sequences are tried, then the
 * ground point. A severe step that is left is shown: then it is not joined at all.
 *
 * @param waitMinutes charging before the crank, as the plan has it; 0 for none
 * @example
 * const order = safestWired(scene, 3, DEFAULT_RULES);
 * order.map((step) => step.action.kind); // 'confirm', 'attach' x 4, 'donor-engine', 'confirm'
 */
export function safestWired(scene: HookupScene, waitMinutes: number, rules: HouseRules): HookupStep[] {
  const { machine, donor, option } = scene;
  const orderOf =
    (by: HouseRules) =>
    (sequence: readonly ClampId[]): HookupStep[] =>
      hookupOrder(machine, donor, option, waitMinutes, by, sequence, rules);
  const onGround: HouseRules = { ...rules, lastBlack: 'ground-point' };
  if (!hasLooseLeads(option)) {
    const asRuled = hookupOrder(machine, donor, option, waitMinutes, rules);
    const grounded = hookupOrder(machine, donor, option, waitMinutes, onGround, usualSequence(rules), rules);
    return orderCost(scene, asRuled, rules) < WEIGHT.severe ? asRuled : grounded;
  }
  // An order that ends at the donor goes on its ground point.
  const mayEndAtSource = donor === null || donor.points.some((p) => p.kind === 'ground-point');
  const any = permutations(usualSequence(rules)).filter((s) => isSound(s, mayEndAtSource));
  const tiers = [
    () => allowedSequences(rules, mayEndAtSource).map(orderOf(rules)),
    () => any.map(orderOf(rules)),
    () => any.map(orderOf(onGround)),
  ];
  let best: { order: HookupStep[]; cost: number } | null = null;
  for (const tier of tiers) {
    for (const order of tier()) {
      const cost = orderCost(scene, order, rules);
      if (!best || cost < best.cost) best = { order, cost };
    }
    if (best && best.cost < WEIGHT.severe) break;
  }
  return best!.order;
}
