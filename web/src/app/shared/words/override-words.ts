import type { OverrideRule } from '@voltrek/core/job';
import { RULE_QUESTIONS, ruleReason } from './rule-words';

/** What an override went against, as it is named on paper. */
export const overrideName = (rule: OverrideRule): string =>
  rule === 'severe-hazard' ? 'A severe hazard of the hook-up' : (RULE_QUESTIONS[rule] ?? ruleReason(rule));
