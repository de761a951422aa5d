import {
  asFound,
  BATTERY_CONDITIONS,
  conditionShares,
  type Crowd,
  type DiagnosisEvidence,
  shareOfAny,
  sharesByCause,
  type Tool,
  type Walk,
  walk,
} from '../diagnosis/index.js';
import type { HouseRules } from '../rules/index.js';
import type { Case } from './case.js';
import type { VerdictRecord, BatteryFinding } from './verdict.js';
import { rule, mendedHere, CONDEMN_SHARE } from './rule.js';
import { ledgerOf, ledgerBy } from './ledger.js';
import { decidingCheck } from './deciding-check.js';
import { followUps } from './follow-ups.js';
import { boundedCertainty } from './certainty.js';

const CAUSES_TOLD = 5;

/**
 * The verdict over everything that was found: what the causes hold together, bounded by the rule that a discharged battery is never
 * called bad without proof.
 *
 * @param crowd after the repairs of the job, where there were any
 */
export function conclude(
  crowd: Crowd,
  evidence: readonly DiagnosisEvidence[],
  facts: Case,
  tools: readonly Tool[],
  rules: HouseRules,
): VerdictRecord {
  const { shares, steps } = walk(crowd, evidence);
  const ruling = rule(crowd, shares, evidence, facts, rules);
  const found = ruling.wasMended ? asFound(crowd) : crowd;
  const held = shareOfAny(found, shares, ruling.causes);
  const repaired = mendedHere(crowd, shares);
  const share = ruling.verdict === 'unsafe' ? 1 : (ruling.share ?? (ruling.isAgainst ? 1 - held : held));
  const isSure =
    ['stop-stands', 'frozen-by-volts', 'reversed-by-volts'].includes(ruling.ground) ||
    (ruling.ground === 'proved-spent' && share >= CONDEMN_SHARE);
  return {
    verdict: ruling.verdict,
    suspect: ruling.suspect === 'charging' && isBeltBad(evidence) ? 'belt' : ruling.suspect,
    certainty:
      ruling.verdict === 'not-known' ? 'unsure' : isSure ? 'sure' : boundedCertainty(ruling, share, evidence),
    share,
    ground: ruling.ground,
    causes: [...sharesByCause(crowd, shares)]
      .slice(0, CAUSES_TOLD)
      .map(([cause, held]) => ({ cause, share: held })),
    ledger: ledgerOf(found, steps, evidence, ruling),
    deciding:
      facts.stops.length > 0 ? null : decidingCheck(crowd, shares, evidence, facts, tools, rules, ruling),
    followUps: followUps(ruling, evidence, facts, rules),
    ...(crowd.profile.systemVolts === 24 && { batteries: contexts(crowd, steps, evidence) }),
    ...(repaired.length > 0 && { repaired }),
  };
}

/** Each battery of a string by itself. */
function contexts(
  crowd: Crowd,
  steps: Walk['steps'],
  evidence: readonly DiagnosisEvidence[],
): BatteryFinding[] {
  return Array.from({ length: crowd.profile.systemVolts / 12 }, (_, battery) => {
    const shareOf = conditionShares(crowd, steps.at(-1)!, battery);
    const condition = BATTERY_CONDITIONS.reduce((a, b) => (shareOf[b] > shareOf[a] ? b : a));
    const held = (count: number): number => conditionShares(crowd, steps[count]!, battery)[condition];
    return { condition, share: shareOf[condition], ledger: ledgerBy(evidence, held) };
  });
}

/** Names the belt where a charging fault has a bad belt. */
const isBeltBad = (evidence: readonly DiagnosisEvidence[]): boolean =>
  evidence.some((e) => e.check === 'look-belt' && e.found === 'bad');
