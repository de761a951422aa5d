import type { RuleSetting, RulesPage } from '@voltrek/contracts';
import { serverCopy } from './server-copy';

/** The house rules, and how they came to stand as they do; null until they are here. A job is opened under them, also off the network. */
export const rulesCopy = serverCopy<RulesPage | null, RuleSetting>('rules', null, {
  ask: (api) => api.rules(),
  send: (api, setting) => api.setRule(setting),
});
