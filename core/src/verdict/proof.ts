import { SPENT_BELOW_SHARE, WORN_BELOW_SHARE } from '../battery/strength.js';
import type { DiagnosisEvidence } from '../diagnosis/belief.js';
import { crankLimitVolts } from '../diagnosis/reading.js';
import type { CheckId } from '../diagnosis/checks.js';
import type { HouseRules } from '../rules/house-rules.js';
import { type Case, isJudgeable } from './case.js';

/** What condemns a battery: spent for good, or worn. */
export type Proof = 'spent' | 'worn';

/**
 * The strongest proof against the battery in the evidence. Discharged is not the same as bad: a load or crank figure counts only from
 * three quarters charge, and low rest volts by themselves never.
 */
export function proofOf(
  evidence: readonly DiagnosisEvidence[],
  facts: Case,
  rules: HouseRules,
): Proof | null {
  const figure = (id: CheckId): number | null => {
    const found = evidence.find((e) => e.check === id)?.found;
    return typeof found === 'number' ? found : null;
  };
  const isFound = (id: CheckId, word: string): boolean =>
    evidence.some((e) => e.check === id && e.found === word);
  const isBelow = (id: CheckId, limit: number): boolean => (figure(id) ?? Infinity) < limit;
  const isCharged = isJudgeable(facts, rules);
  if (
    isBelow('rest', 0) ||
    isFound('specific-gravity', 'one-cell-low') ||
    isFound('acceptance', 'full-at-once')
  )
    return 'spent';
  if (isBelow('conductance', SPENT_BELOW_SHARE)) return 'spent';
  // A crank is recorded against its limit: this far under it the posts are under the volts that are always bad.
  const collapse = rules.crankMinimumBadVolts - crankLimitVolts(facts.tempC, 12);
  if (isCharged && isBelow('crank', collapse)) return 'spent';
  if (isBelow('conductance', WORN_BELOW_SHARE)) return 'worn';
  return isCharged && (isBelow('crank', 0) || isBelow('load-test', 0)) ? 'worn' : null;
}

/** True when a test has shown the battery sound, whatever else is wrong. */
export function showsSound(evidence: readonly DiagnosisEvidence[], facts: Case, rules: HouseRules): boolean {
  const isAtLeast = (id: CheckId, limit: number): boolean =>
    evidence.some(({ check, found }) => check === id && typeof found === 'number' && found >= limit);
  const isCharged = isJudgeable(facts, rules);
  return (
    isAtLeast('conductance', WORN_BELOW_SHARE) ||
    (isCharged && (isAtLeast('load-test', 0) || isAtLeast('crank', 0)))
  );
}
