import type { OverrideRule } from '@voltrek/core/job';
import { messagesOf } from './messages-of';
import { ruleName } from './rule-words';

/** Names the target of an override on paper. */
export const overrideName = (rule: OverrideRule): string =>
  rule === 'severe-hazard' ? messagesOf('override')['severe-hazard'] : ruleName(rule);
