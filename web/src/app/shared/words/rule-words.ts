import { type HouseRuleKey, type RuleKey, RULES, type School } from '@voltrek/core/rules';
import { messagesOf } from './messages-of';
import { plainNumber } from './numbers';
import { unitWord } from './units';

/** Why a threshold stands where it does. */
export const RULE_REASONS: Readonly<Record<RuleKey, string>> = messagesOf('ruleReason');

/** Names a house rule. */
export const ruleName = (key: RuleKey): string =>
  (RULE_QUESTIONS as Partial<Record<RuleKey, string>>)[key] ?? RULE_REASONS[key];

/** The question of each house rule. */
export const RULE_QUESTIONS: Readonly<Record<HouseRuleKey, string>> = messagesOf('ruleQuestions');

/** The schools by name. */
export const SCHOOL_WORDS: Readonly<Record<School, string>> = messagesOf('school');

/** The unit of a rule: a sign, or a word of the language. */
export const ruleUnit = (key: RuleKey): string => unitWord(RULES[key].unit);

/** Names a value of a rule: a school, or its figure with the unit. */
export const ruleValue = (key: RuleKey, value: string | number): string =>
  (SCHOOL_WORDS as Readonly<Record<string, string>>)[value] ??
  `${typeof value === 'number' ? plainNumber(value) : value} ${ruleUnit(key)}`;
