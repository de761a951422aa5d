import {
  HOUSE_RULE_KEYS,
  type HouseRules,
  isHouseRule,
  type RuleKey,
  type RuleLimit,
  RULES,
} from './house-rules.js';

/** The settings of a house that differ from the defaults. */
export type RuleSettings = Readonly<Partial<Record<RuleKey, string | number>>>;

/**
 * Returns these rules as far as they differ from the defaults.
 *
 * @example settingsOf({ ...DEFAULT_RULES, crankTriesMax: 3 }) // => { crankTriesMax: 3 }
 */
export function settingsOf(rules: HouseRules): RuleSettings {
  return Object.fromEntries(
    HOUSE_RULE_KEYS.filter((key) => rules[key] !== RULES[key].value).map((key) => [key, rules[key]]),
  );
}

/** Why a rule cannot be set so: a code, and the parameters of its words. */
export interface RuleFault {
  readonly code: 'noRule' | 'oneOf' | 'notType' | 'between';
  readonly params: Readonly<Record<string, string | number>>;
}

/**
 * Returns why a rule cannot be set so; null when it can.
 *
 * @example ruleFault('lastBlack', 'anywhere')?.params // => { values: 'ground-point, negative-terminal' }
 */
export function ruleFault(key: string, value: unknown): RuleFault | null {
  if (!isHouseRule(key)) return { code: 'noRule', params: {} };
  const { unit } = RULES[key];
  const limit: RuleLimit = RULES[key].limit;
  if (limit.kind === 'school')
    return limit.schools.some((s) => s === value)
      ? null
      : { code: 'oneOf', params: { values: limit.schools.join(', ') } };
  if (typeof value !== 'number' || !Number.isFinite(value))
    return { code: 'notType', params: { kind: 'number' } };
  const { min, max } = limit;
  return value < min || value > max ? { code: 'between', params: { min, max, unit } } : null;
}

/**
 * The defaults with what the house has set; settings that are no longer allowed fall back to the default.
 *
 * @example rulesWith({ crankTriesMax: 99 }, DEFAULT_RULES).crankTriesMax === DEFAULT_RULES.crankTriesMax // => true
 */
export function rulesWith(settings: Readonly<Record<string, unknown>>, defaults: HouseRules): HouseRules {
  const allowed = Object.entries(settings).filter(([key, value]) => ruleFault(key, value) === null);
  return { ...defaults, ...Object.fromEntries(allowed) };
}
