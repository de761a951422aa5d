import type { OverrideRule } from '@voltrek/core/job';
import { ruleName } from './rule-words';

/** Names the target of an override on paper. */
export const overrideName = (rule: OverrideRule): string =>
  rule === 'severe-hazard' ? 'A severe hazard of the hook-up' : ruleName(rule);
