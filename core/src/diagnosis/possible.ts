import type { CheckId, Found, Tool } from './checks.js';

/**
 * What turns the key, or puts amps through the battery. In frost these amps may meet ice; and once they have flowed, the rest volts tell less.
 * So the rest volts are read before them.
 */
const TAKES_AMPS: readonly CheckId[] = [
  'immobiliser-lamp',
  'fuel-gauge',
  'key-on',
  'try-alone',
  'crank',
  'recovery',
  'joint-plus',
  'joint-minus',
  'starter-stud',
  'load-test',
  'acceptance',
  'with-help',
  'promise',
];
/** What is read while the engine runs or the converter works. */
const NEEDS_RUNNING: readonly CheckId[] = ['charging', 'charging-loaded', 'ripple', 'converter'];
/** What is read with everything off. While it runs the posts show what charges them. */
export const STILL_ONLY: readonly CheckId[] = [
  'rest',
  'string-balance',
  'key-on',
  'conductance',
  'load-test',
  'drain',
  'try-alone',
  'crank',
  'recovery',
  'joint-plus',
  'joint-minus',
  'starter-stud',
  'with-help',
  'promise',
  'turn-by-hand',
];

/** How the machine stands while a check is looked for. */
export interface Moment {
  /** It runs, or its converter works; left out: that is not known, and it may be stopped again after a try that started it. */
  readonly runs?: boolean;
  /** It is cold enough for a flat battery to be ice; left out: it is not. */
  readonly mayFreeze?: boolean;
}

/** What was found by a check. */
interface Standing {
  readonly check: CheckId;
  readonly found: Found;
}

const TRIES: readonly CheckId[] = ['try-alone', 'with-help'];
const ranLast = (evidence: readonly Standing[]): boolean =>
  evidence.filter(({ check }) => TRIES.includes(check)).at(-1)?.found === 'started';

/**
 * Returns whether a check can be done now, does no harm now, and hides nothing that is to be read before it. Use it for everything that the
 * tool proposes.
 *
 * @param evidence what stands found
 * @example isPossibleNow('try-alone', [], ['meter']) // false: the rest volts come first
 */
export function isPossibleNow(
  check: CheckId,
  evidence: readonly Standing[],
  tools: readonly Tool[],
  { runs, mayFreeze = false }: Moment = {},
): boolean {
  const isFound = (id: CheckId): boolean => evidence.some((e) => e.check === id);
  if (runs) return !STILL_ONLY.includes(check);
  if (NEEDS_RUNNING.includes(check)) return runs === undefined && ranLast(evidence);
  // A battery that climbs back does so from a try.
  if (check === 'recovery' && !isFound('try-alone') && !isFound('crank')) return false;
  return !TAKES_AMPS.includes(check) || isFound('rest') || (!mayFreeze && !tools.includes('meter'));
}
