import { type CheckId, checkOf, type Found, type Tool } from './checks/index.js';
import { changes, type Repair, repairsFor } from './repairs.js';

/** The state of the machine while a check is chosen. */
export interface Moment {
  /** It runs, or its converter works; left out: that is not known, and it may be stopped again after a try that started it. */
  readonly runs?: boolean;
  /** It is cold enough for a flat battery to be ice; left out: it is not. */
  readonly mayFreeze?: boolean;
}

/** The finding of a check. */
interface Finding {
  readonly check: CheckId;
  readonly found: Found;
}

/** Checks that are a try itself. */
export const TRIES: readonly CheckId[] = ['try-alone', 'with-help'];
const ranLast = (evidence: readonly Finding[]): boolean =>
  evidence.filter(({ check }) => TRIES.includes(check)).at(-1)?.found === 'started';

/** Repairs that are made at once where they are found, and not measured around: a clamp that turns by hand, a switch that stands wrong. */
function atOnce(evidence: readonly Finding[]): Repair[] {
  const findings = Object.fromEntries(evidence.map(({ check, found }) => [check, found]));
  return repairsFor(findings, { engine: null }).flatMap(({ check, repair }) =>
    checkOf(check).mendedBy !== undefined || findings[check] === 'turns-by-hand' ? [repair] : [],
  );
}

/**
 * Returns whether a check can be done now, does no harm, and hides no reading that must come before it. Nothing is measured around a part
 * that is mended first. Use it for everything that the tool proposes.
 *
 * @param evidence what stands found
 * @example isPossibleNow('try-alone', [], ['meter']) // false: the rest volts come first
 */
export function isPossibleNow(
  check: CheckId,
  evidence: readonly Finding[],
  tools: readonly Tool[],
  { runs, mayFreeze = false }: Moment = {},
): boolean {
  if (atOnce(evidence).some((repair) => changes(repair, check))) return false;
  const isFound = (id: CheckId): boolean => evidence.some((e) => e.check === id);
  const { when, takesAmps } = checkOf(check);
  if (runs) return when !== 'still';
  if (when === 'running') return runs === undefined && ranLast(evidence);
  // A battery that climbs back does so from a try.
  if (check === 'recovery' && !isFound('try-alone') && !isFound('crank')) return false;
  return !takesAmps || isFound('rest') || (!mayFreeze && !tools.includes('meter'));
}
