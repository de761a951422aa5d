import { SPENT_BELOW_SHARE, WORN_BELOW_SHARE } from '../battery/strength.js';
import type { DiagnosisEvidence } from '../diagnosis/belief.js';
import { crankLimitVolts } from '../diagnosis/reading.js';
import type { ProbeId } from '../diagnosis/probes.js';
import type { HouseRules } from '../rules/house-rules.js';
import { type Case, isJudgeable } from './case.js';

/** What condemns a block: spent for good, or worn. */
export type Proof = 'spent' | 'worn';

/**
 * The strongest proof against the block in the evidence. Discharged is not the same as bad: a load or crank figure counts only from
 * three quarters charge, and low rest volts by themselves never.
 */
export function proofOf(
  evidence: readonly DiagnosisEvidence[],
  facts: Case,
  rules: HouseRules,
): Proof | null {
  const figure = (id: ProbeId): number | null => {
    const found = evidence.find((e) => e.probe === id)?.found;
    return typeof found === 'number' ? found : null;
  };
  const isFound = (id: ProbeId, word: string): boolean =>
    evidence.some((e) => e.probe === id && e.found === word);
  const isBelow = (id: ProbeId, limit: number): boolean => (figure(id) ?? Infinity) < limit;
  const isCharged = isJudgeable(facts, rules);
  if (isBelow('rest', 0) || isFound('gravity', 'one-cell-low') || isFound('acceptance', 'full-at-once'))
    return 'spent';
  if (isBelow('conductance', SPENT_BELOW_SHARE)) return 'spent';
  // A crank is recorded against its limit: this far under it the posts are under the volts that are always bad.
  const collapse = rules.crankMinimumBadVolts - crankLimitVolts(facts.tempC, 12);
  if (isCharged && isBelow('crank', collapse)) return 'spent';
  if (isBelow('conductance', WORN_BELOW_SHARE)) return 'worn';
  return isCharged && (isBelow('crank', 0) || isBelow('load-test', 0)) ? 'worn' : null;
}

/** True when a test has shown the block sound, whatever else is wrong. */
export function showsSound(evidence: readonly DiagnosisEvidence[], facts: Case, rules: HouseRules): boolean {
  const isAtLeast = (id: ProbeId, limit: number): boolean =>
    evidence.some(({ probe, found }) => probe === id && typeof found === 'number' && found >= limit);
  const isCharged = isJudgeable(facts, rules);
  return (
    isAtLeast('conductance', WORN_BELOW_SHARE) ||
    (isCharged && (isAtLeast('load-test', 0) || isAtLeast('crank', 0)))
  );
}
