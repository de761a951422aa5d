import { CLAMP_IDS } from '../../circuit/index.js';
import { type HookupAction, isDone, stillActions } from '../actions.js';
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
  return [
    ...stillActions(from).filter((action) => isDone(to, action)),
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
    ...(!from.donorRunning && to.donorRunning ? [{ kind: 'donor-engine', running: true } as const] : []),
    ...(!from.pluggedIn && to.pluggedIn ? [{ kind: 'plug', in: true } as const] : []),
    ...(!from.packOn && to.packOn ? [{ kind: 'pack', on: true } as const] : []),
  ];
}
