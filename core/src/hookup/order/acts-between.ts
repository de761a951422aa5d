import { CLAMP_IDS } from '../../circuit/index.js';
import type { HookupAction } from '../actions.js';
import { CIRCUMSTANCES } from '../judge/circumstances.js';
import { type HookupState, isInForce } from '../judge/state.js';

/**
 * Returns the acts that lead from one state of the hook-up to another: sources stilled first, then clamps off, clamps on, circumstances, and
 * sources started last. Use it where hands report how things stand and the log holds how they stood. Confirmations are left out: nobody can
 * see them.
 *
 * @example actsBetween({ ...NOTHING_CONNECTED, packOn: true }, NOTHING_CONNECTED).length // => 1
 */
export function actsBetween(from: HookupState, to: HookupState): HookupAction[] {
  const moved = CLAMP_IDS.filter(
    (clamp) => from.clamps[clamp] !== to.clamps[clamp] || from.onto?.[clamp] !== to.onto?.[clamp],
  );
  const turned = (on: boolean): HookupAction[] => [
    ...(from.packOn !== on && to.packOn === on ? [{ kind: 'pack', on } as const] : []),
    ...(from.pluggedIn !== on && to.pluggedIn === on ? [{ kind: 'plug', in: on } as const] : []),
    ...(from.donorRunning !== on && to.donorRunning === on
      ? [{ kind: 'donor-engine', running: on } as const]
      : []),
  ];
  return [
    ...turned(false),
    ...moved
      .filter((clamp) => from.clamps[clamp] !== null)
      .map((clamp) => ({ kind: 'detach', clamp }) as const),
    ...moved.flatMap((clamp): HookupAction[] => {
      const pointId = to.clamps[clamp];
      const onto = to.onto?.[clamp];
      return pointId === null ? [] : [{ kind: 'attach', clamp, pointId, ...(onto && { onto }) }];
    }),
    ...CIRCUMSTANCES.filter((what) => isInForce(from, what) !== isInForce(to, what)).map(
      (what) => ({ kind: 'circumstance', what, on: isInForce(to, what) }) as const,
    ),
    ...turned(true).reverse(),
  ];
}
