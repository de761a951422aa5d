import { chanceAt, type Crowd, type DiagnosisEvidence, weigh } from './belief.js';

/** So many findings must stand before one is held against the others. */
const FINDINGS_LEAST = 3;
/** A finding that the others leave less likely than this is doubted, where it is no rare finding by itself. */
const DOUBTED_CHANCE = 0.025;
/** Share of its usual chance that the others must leave it, for it not to be doubted. */
const DOUBTED_SHARE = 0.12;

/**
 * Returns the finding that the others speak against most; null while they go together. Use it to ask for one reading again: no machine of
 * the crowd shows all of them.
 *
 * @example misfitOf(crowd, [{ check: 'symptom', found: 'brisk-no-fire' }, { check: 'rest', found: 4 }, { check: 'crank', found: 1.5 }])
 */
export function misfitOf(crowd: Crowd, evidence: readonly DiagnosisEvidence[]): DiagnosisEvidence | null {
  if (evidence.length < FINDINGS_LEAST) return null;
  let least = DOUBTED_SHARE;
  let misfit: DiagnosisEvidence | null = null;
  for (const piece of evidence) {
    const chanceOf = chanceAt(crowd, piece);
    const among = (shares: Float64Array): number =>
      shares.reduce((sum, share, i) => sum + share * chanceOf(i), 0);
    const usual = among(crowd.shares);
    const chance = among(
      weigh(
        crowd,
        evidence.filter((other) => other !== piece),
      ),
    );
    if (chance >= DOUBTED_CHANCE || chance >= least * usual) continue;
    least = chance / usual;
    misfit = piece;
  }
  return misfit;
}
