import { CLAMP_IDS, type ClampId } from '../circuit/index.js';
import type { Machine } from '../machine/index.js';
import type { Circumstance, WrongMetal } from './judge/circumstances.js';
import { anyClampOn, type HookupState, NOTHING_CONNECTED, isInForce } from './judge/state.js';

/** Steps that change nothing the circuit can show, but must be done. */
export const CONFIRMATIONS = [
  'all-off',
  'machine-secured',
  'guard-lamp',
  'wait',
  'big-consumer-on',
  'charger-set',
  'cells-bagged',
  'cells-read',
  'series-sum',
  'negative-off',
  'negative-on',
] as const;
export type Confirmation = (typeof CONFIRMATIONS)[number];

/** One thing that hands do. */
export type HookupAction =
  | {
      readonly kind: 'attach';
      readonly clamp: ClampId;
      readonly pointId: string;
      /** The metal it truly went on, where that is not the point's own. */
      readonly onto?: WrongMetal;
    }
  | { readonly kind: 'detach'; readonly clamp: ClampId }
  | { readonly kind: 'donor-engine'; readonly running: boolean }
  | { readonly kind: 'pack'; readonly on: boolean }
  | { readonly kind: 'plug'; readonly in: boolean }
  | { readonly kind: 'confirm'; readonly what: Confirmation }
  | { readonly kind: 'circumstance'; readonly what: Circumstance; readonly on: boolean };

/** Acts that hands may also do, by plan or by slip: judged like every action, though no order holds them. */
export type HandAction =
  | HookupAction
  | { readonly kind: 'crank' }
  /** Two clamps meet. */
  | { readonly kind: 'touch'; readonly a: ClampId; readonly b: ClampId }
  /** A free clamp is laid down on bare metal of either vehicle. */
  | { readonly kind: 'lay'; readonly clamp: ClampId }
  /** A clamp or tool bridges this point of the casualty and its body. */
  | { readonly kind: 'bridge'; readonly pointId: string }
  /** A spanner takes the casualty's own clamp off this terminal. */
  | { readonly kind: 'loosen'; readonly pointId: string };

/** The state after an action. */
export function act(state: HookupState, action: HookupAction): HookupState {
  switch (action.kind) {
    case 'attach':
      return {
        ...state,
        clamps: { ...state.clamps, [action.clamp]: action.pointId },
        attachedInOrder: [...state.attachedInOrder, action.clamp],
        ...(action.onto && { onto: { ...state.onto, [action.clamp]: action.onto } }),
      };
    case 'detach':
      return detach(state, action.clamp);
    case 'donor-engine':
      return { ...state, donorRunning: action.running };
    case 'pack':
      return { ...state, packOn: action.on };
    case 'plug':
      return { ...state, pluggedIn: action.in };
    case 'confirm':
      return confirmed(state, action.what);
    case 'circumstance':
      return noted(state, action.what, action.on);
  }
}

/** The state after anything hands may do: a slip that is over leaves no trace, a terminal that is off does. */
export function actWired(state: HookupState, action: HandAction, machine: Machine): HookupState {
  switch (action.kind) {
    case 'crank':
    case 'touch':
    case 'lay':
    case 'bridge':
      return state;
    case 'loosen': {
      const point = machine.points.find((p) => p.id === action.pointId);
      const isLowest = point?.kind === 'battery-negative' && (point.battery ?? 0) === 0;
      return isLowest ? { ...state, negativeOff: true } : state;
    }
    default:
      return act(state, action);
  }
}

function confirmed(state: HookupState, what: Confirmation): HookupState {
  const next = { ...state, confirmed: [...state.confirmed, what] };
  if (what === 'negative-off') return { ...next, negativeOff: true };
  return what === 'negative-on' ? { ...next, negativeOff: false } : next;
}

function noted(state: HookupState, what: Circumstance, on: boolean): HookupState {
  const others = (state.circumstances ?? []).filter((c) => c !== what);
  return { ...state, circumstances: on ? [...others, what] : others };
}

function detach(state: HookupState, clamp: ClampId): HookupState {
  const next: HookupState = {
    ...state,
    clamps: { ...state.clamps, [clamp]: null },
    attachedInOrder: state.attachedInOrder.filter((c) => c !== clamp),
    ...(state.onto && { onto: { ...state.onto, [clamp]: undefined } }),
  };
  // With the last clamp off the next hook-up starts from its first look again.
  return anyClampOn(next) ? next : { ...next, confirmed: NOTHING_CONNECTED.confirmed };
}

/**
 * True when the state already shows the action done.
 *
 * @example isDone(NOTHING_CONNECTED, { kind: 'pack', on: false }) // => true
 */
export function isDone(state: HookupState, action: HookupAction): boolean {
  switch (action.kind) {
    case 'attach':
      // On a pipe beside the ground point it is not where it belongs.
      return state.clamps[action.clamp] === action.pointId && state.onto?.[action.clamp] === action.onto;
    case 'detach':
      return state.clamps[action.clamp] === null;
    case 'donor-engine':
      return state.donorRunning === action.running;
    case 'pack':
      return state.packOn === action.on;
    case 'plug':
      return state.pluggedIn === action.in;
    case 'confirm':
      if (action.what === 'negative-off') return state.negativeOff;
      if (action.what === 'negative-on') return !state.negativeOff;
      return state.confirmed.includes(action.what);
    case 'circumstance':
      return isInForce(state, action.what) === action.on;
  }
}

/**
 * Acts that still every source, before any clamp is touched: switch, plug, then engine.
 *
 * @example stillActions({ ...NOTHING_CONNECTED, packOn: true })[0].kind // => 'pack'
 */
export function stillActions(state: HookupState): HookupAction[] {
  return [
    ...(state.packOn ? [{ kind: 'pack', on: false } as const] : []),
    ...(state.pluggedIn ? [{ kind: 'plug', in: false } as const] : []),
    ...(state.donorRunning ? [{ kind: 'donor-engine', running: false } as const] : []),
  ];
}

/**
 * Clamps that are on, in the order they went on.
 *
 * @example clampsOn(NOTHING_CONNECTED).length // => 0
 */
export function clampsOn(state: HookupState): readonly ClampId[] {
  const on = CLAMP_IDS.filter((clamp) => state.clamps[clamp] !== null);
  return state.attachedInOrder.filter((clamp) => on.includes(clamp));
}

/** How far an order is: what is done, the step to do now, and what is still to come. */
export interface OrderProgress<S> {
  readonly done: readonly S[];
  /** Null when every step is done. */
  readonly next: S | null;
  readonly later: readonly S[];
}

/** Splits an order at its first step that the state does not yet show. */
export function progressOf<S extends { readonly action: HookupAction }>(
  steps: readonly S[],
  state: HookupState,
): OrderProgress<S> {
  const found = steps.findIndex((step) => !isDone(state, step.action));
  const at = found < 0 ? steps.length : found;
  return { done: steps.slice(0, at), next: steps[at] ?? null, later: steps.slice(at + 1) };
}
