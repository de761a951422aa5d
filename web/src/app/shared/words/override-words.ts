import type { OverrideRule } from '@voltrek/core/job';
import { ruleName } from './rule-words';

/** What an override went against, as it is named on paper. */
export const overrideName = (rule: OverrideRule): string =>
  rule === 'severe-hazard' ? 'A severe hazard of the hook-up' : ruleName(rule);
