import {
  type CheckId,
  checksFor,
  type Crowd,
  type DiagnosisEvidence,
  type Found,
  isPossibleNow,
  outcomeIndex,
  splitBy,
  stillOpen,
  type Tool,
} from '../diagnosis/index.js';
import type { HouseRules } from '../rules/index.js';
import type { Case } from './case.js';
import type { DecidingCheck } from './verdict.js';
import { type Ruling, rule } from './rule.js';

/** A check that changes the verdict more rarely than this does not decide it. */
const DECIDING_LEAST = 0.05;

/** A recheck takes these beside the rest volts. */
const RECHECK_CHECKS: readonly CheckId[] = ['conductance', 'crank'];

/** The check, among those that can be done here and now, whose findings are likeliest to overturn the verdict. */
export function decidingCheck(
  crowd: Crowd,
  shares: Float64Array,
  evidence: readonly DiagnosisEvidence[],
  facts: Case,
  tools: readonly Tool[],
  rules: HouseRules,
  now: Ruling,
): DecidingCheck | null {
  const isOther = (then: Ruling): boolean =>
    then.verdict !== now.verdict ||
    (then.verdict === 'not-the-battery' && then.causes.join() !== now.causes.join());
  const repaired = crowd.repairs.length;
  let best: DecidingCheck | null = null;
  for (const check of checksFor(crowd.profile, tools)) {
    const [open] = check.id === 'symptom' || check.isVolunteered ? [] : stillOpen(check, evidence, crowd);
    if (!open || !isPossibleNow(check.id, evidence, tools)) continue;
    if (facts.isRested && !RECHECK_CHECKS.includes(check.id)) continue;
    const { battery } = open;
    let chance = 0;
    for (const { share, after, at } of splitBy(crowd, shares, check, battery)) {
      const found = foundAt(check, at);
      const piece = { check: check.id, found, repaired, ...(battery !== undefined && { battery }) };
      const then = rule(crowd, after, [...evidence, piece], facts, rules);
      if (isOther(then)) chance += share;
    }
    if (chance >= DECIDING_LEAST && chance > (best?.chance ?? 0))
      best = { check: check.id, chance, ...(battery !== undefined && { battery }) };
  }
  return best;
}

/** A finding that falls on this outcome: its word, or a figure inside its range. */
function foundAt(check: ReturnType<typeof checksFor>[number], at: number): Found {
  const { edges, outcomes } = check;
  if (!edges) return outcomes[at]!;
  const low = edges[at - 1];
  const high = edges[at];
  const figure = low === undefined ? high! - 0.01 : high === undefined ? low + 0.01 : (low + high) / 2;
  return outcomeIndex(check, figure) === at ? figure : low!;
}
