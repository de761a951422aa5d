import { type CheckId, checkOf, type DiagnosisEvidence } from '../diagnosis/index.js';
import type { Certainty } from './verdict.js';
import type { Ruling } from './rule.js';

/** Shares at which a verdict is called sure and fairly sure. */
const SURE_SHARE = 0.9;
const FAIR_SHARE = 0.7;

function certaintyOf(share: number): Certainty {
  if (share >= SURE_SHARE) return 'sure';
  return share >= FAIR_SHARE ? 'fairly-sure' : 'unsure';
}

/** Checks that find an interlock itself, or tell it from a dead starter. */
const TELLS_OF_INTERLOCKS: readonly CheckId[] = ['starter-stud', 'interlocks'];

/**
 * How sure a verdict may call itself. What is proved is at least fairly sure. A dead starter without a click looks like an interlock. So an
 * interlock is never sure before the stud was read or the switch found.
 */
export function boundedCertainty(
  { ground, suspect }: Ruling,
  share: number,
  evidence: readonly DiagnosisEvidence[],
): Certainty {
  const certainty = certaintyOf(share);
  if (ground === 'proved-spent') return 'fairly-sure';
  const isShown = evidence.some(
    ({ check, found }) =>
      TELLS_OF_INTERLOCKS.includes(check) && (check !== 'interlocks' || found === checkOf(check).outcomes[0]),
  );
  return suspect === 'interlock' && certainty === 'sure' && !isShown ? 'fairly-sure' : certainty;
}
