import type { ClampId } from '../../circuit/index.js';
import { pointOf } from '../../machine/index.js';
import { hasLooseLeads } from '../../plan/index.js';
import type { HouseRules } from '../../rules/index.js';
import {
  act,
  clampsOn,
  type HookupAction,
  isDone,
  type OrderProgress,
  progressOf,
  stillActions,
} from '../actions.js';
import { makeSafeWired } from './make-safe.js';
import { type HookupStep, lastBlackReason, looseReason } from './order.js';
import { hazardCost, hasSevere, isSound, permutations } from './safest-order.js';
import type { HookupScene, HookupState } from '../judge/state.js';

/**
 * How to go on from any state of the clamps, in order or not: a clamp in a wrong place comes off first. The rest follows in the sequence
 * that the circuit finds safest. Where none is without a severe step, everything comes off and the order begins again.
 *
 * @param order the order as it was planned from nothing
 */
export function replanWired(
  scene: HookupScene,
  order: readonly HookupStep[],
  state: HookupState,
  rules: HouseRules,
): OrderProgress<HookupStep> {
  if (isOnTrack(order, state)) return progressOf(order, state);
  const corrected = correction(scene, order, state, rules);
  const after = corrected.reduce((s, { action }) => act(s, action), state);
  const left = order.filter(({ action }) => !isDone(after, action));
  const rest = safestRest(scene, left, after, rules);
  const isSafe = rest !== null && !hasSevere(scene, [...corrected, ...rest], rules, state);
  const steps = isSafe
    ? [...corrected, ...rest]
    : [...makeSafeWired(scene, state, rules).map(again), ...order];
  const done = isSafe ? order.filter(({ action }) => isDone(after, action) && isDone(state, action)) : [];
  return { done, next: steps[0] ?? null, later: steps.slice(1) };
}

/** The acts so far are the beginning of the order, and nothing is on where it should not. */
function isOnTrack(order: readonly HookupStep[], state: HookupState): boolean {
  const { next, later } = progressOf(order, state);
  const isGap =
    next !== null && later.some(({ action }) => action.kind !== 'confirm' && isDone(state, action));
  return !isGap && wrongClamps(order, state).length === 0;
}

function wrongClamps(order: readonly HookupStep[], state: HookupState): ClampId[] {
  return clampsOn(state).filter(
    (clamp) =>
      !order.some(
        ({ action }) => action.kind === 'attach' && action.clamp === clamp && isDone(state, action),
      ),
  );
}

/** Takes off what is on a wrong place, sources stilled first, in the sequence the circuit finds safest. */
function correction(
  scene: HookupScene,
  order: readonly HookupStep[],
  state: HookupState,
  rules: HouseRules,
): HookupStep[] {
  const wrong = wrongClamps(order, state);
  if (wrong.length === 0) return [];
  const still = stillActions(state);
  const from = still.reduce(act, state);
  const ways = permutations(wrong).map((clamps) =>
    clamps.map((clamp): HookupStep => ({ action: { kind: 'detach', clamp }, reason: 'wrong-place' })),
  );
  return [...still.map(again), ...cheapest(scene, ways, from, rules)];
}

/**
 * Returns the rest of the order, its clamps in the safest sequence. Each reason is true of the clamps on by then; switches, looks and
 * waits stay behind them. Null where what is on already leaves no sequence that ends on black.
 */
function safestRest(
  scene: HookupScene,
  left: readonly HookupStep[],
  state: HookupState,
  rules: HouseRules,
): HookupStep[] | null {
  const before = left.filter(
    ({ action }) => action.kind === 'confirm' && action.what !== 'wait' && action.what !== 'guard-lamp',
  );
  const clamps = left.filter(({ action }) => action.kind === 'attach');
  const behind = left.filter((step) => !before.includes(step) && !clamps.includes(step));
  const isLoose = hasLooseLeads(scene.option);
  const on = clampsOn(state);
  const sound = permutations(clamps).filter(
    (sequence) =>
      !isLoose ||
      sequence.length === 0 ||
      isSound([...on, ...sequence.map(clampOf)], !isOnDonorsBattery(scene, sequence.at(-1)!)),
  );
  if (sound.length === 0) return null;
  const retold = (sequence: readonly HookupStep[]): HookupStep[] =>
    sequence.map((step, i) => ({
      ...step,
      reason: reasonNow(scene, step, [...on, ...sequence.slice(0, i).map(clampOf)], rules),
    }));
  const ways = sound.map((sequence) => [...before, ...(isLoose ? retold(sequence) : sequence), ...behind]);
  return cheapest(scene, ways, state, rules);
}

/** The place of a source's clamp is the donor's battery, which has just been charged. */
function isOnDonorsBattery({ donor }: HookupScene, step: HookupStep): boolean {
  const { pointId } = step.action as AttachAction;
  return donor !== null && donor.points.find((p) => p.id === pointId)?.kind !== 'ground-point';
}

type AttachAction = Extract<HookupAction, { kind: 'attach' }>;
const clampOf = ({ action }: HookupStep): ClampId => (action as AttachAction).clamp;

/** The reason of a loose clamp after what is on by then. */
function reasonNow(
  { machine, option }: HookupScene,
  step: HookupStep,
  on: readonly ClampId[],
  rules: HouseRules,
): HookupStep['reason'] {
  const { clamp, pointId } = step.action as AttachAction;
  const last =
    clamp === 'blackCasualty'
      ? lastBlackReason(machine, pointOf(machine, pointId), option, rules)
      : step.reason;
  return looseReason(clamp, on, option.sourceKind === 'donor', last);
}

function cheapest(
  scene: HookupScene,
  ways: readonly HookupStep[][],
  from: HookupState,
  rules: HouseRules,
): HookupStep[] {
  const costs = ways.map((way) => hazardCost(scene, way, rules, from));
  return ways[costs.indexOf(Math.min(...costs))] ?? [];
}

const again = (action: HookupAction): HookupStep => ({ action, reason: 'start-again' });
