import {
  act,
  type Hazard,
  type HazardCode,
  hazardsOf,
  type HookupAction,
  NOTHING_CONNECTED,
} from '../../hookup/index.js';
import type { Job } from '../job.js';
import type { PlannedRescue } from './rescue-runs.js';
import type { Situation } from '../situation.js';

/** The same fault, before its last contact and after it. */
const COMES_TO: Partial<Record<HazardCode, HazardCode>> = {
  'will-short': 'dead-short',
  'will-reverse': 'reversed',
  'will-over-voltage': 'over-voltage',
};
const faultOf = (code: HazardCode): HazardCode => COMES_TO[code] ?? code;

/** The actions that put a hook-up together. Under a severe hazard each needs a reason. Taking off is always allowed. */
const joins = (action: HookupAction): boolean =>
  action.kind === 'attach' ||
  (action.kind === 'pack' && action.on) ||
  (action.kind === 'plug' && action.in) ||
  (action.kind === 'donor-engine' && action.running);

/**
 * Returns the severe hazards of a step that nobody has given a reason for yet; none for a step that takes something off. Use it before a step is
 * offered: a red stop and a plain yes do not go together.
 *
 * @param found what the circuit says of the step
 */
export function unacceptedHazards(
  { accepted = [] }: Pick<Job, 'accepted'>,
  action: HookupAction,
  found: readonly Hazard[],
): readonly Hazard[] {
  if (!joins(action)) return [];
  const known = accepted.map(faultOf);
  return found.filter(({ code, severity }) => severity === 'severe' && !known.includes(faultOf(code)));
}

/** Returns the severe hazards that the hook-up of an option will meet, the worst of each fault: what Plan says before it is chosen. */
export function severeAhead({ scene, orders }: PlannedRescue, { rules }: Situation): readonly Hazard[] {
  let state = NOTHING_CONNECTED;
  const worst = new Map<HazardCode, Hazard>();
  for (const { action } of orders.hookup) {
    for (const hazard of unacceptedHazards({}, action, hazardsOf(scene, state, action, rules))) {
      const code = faultOf(hazard.code);
      const known = worst.get(code);
      if (!known || (hazard.amps ?? 0) > (known.amps ?? 0)) worst.set(code, { ...hazard, code });
    }
    state = act(state, action);
  }
  return [...worst.values()];
}
