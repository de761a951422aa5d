import {
  DEFAULT_RULES,
  HOUSE_RULE_KEYS,
  ruleFault,
  type RuleKey,
  RULES,
  rulesWith,
} from '../src/rules/index.js';

describe('house rules', () => {
  it('are where practitioners differ: every one allows its own default and something else, and no safety limit is among them', () => {
    expect(HOUSE_RULE_KEYS.length).toBeGreaterThan(30);
    for (const key of HOUSE_RULE_KEYS) {
      const { limit, value } = RULES[key];
      expect(ruleFault(key, value)).withContext(key).toBeNull();
      const others: readonly unknown[] = limit.kind === 'school' ? limit.schools : [limit.min, limit.max];
      expect(new Set(others).size).withContext(key).toBeGreaterThan(1);
    }
    for (const safety of ['chargingStopVolts', 'gasDistanceM', 'unequalSevereAmps', 'wakeMaxVolts'] as const)
      expect(HOUSE_RULE_KEYS as readonly RuleKey[]).not.toContain(safety);
  });

  it('refuse what is out of limits, of the wrong kind, fixed or unknown', () => {
    expect(ruleFault('crankTriesMax', 40)).toEqual({
      code: 'between',
      params: { min: 1, max: 10, unit: jasmine.any(String) as unknown as string },
    });
    for (const value of ['4', NaN]) expect(ruleFault('crankTriesMax', value)?.code).toBe('notType');
    expect(ruleFault('lastBlack', 'anywhere')?.params).toEqual({
      values: 'ground-point, negative-terminal',
    });
    expect(ruleFault('wakeMinVolts', 10)?.code).toBe('noRule');
    expect(ruleFault('nonsense', 1)?.code).toBe('noRule');
    expect(RULES.lastBlack.limit).toEqual({ kind: 'school', schools: ['ground-point', 'negative-terminal'] });
  });

  it('stand over the defaults, unless they are not allowed', () => {
    const rules = rulesWith({ crankTriesMax: 3, lastBlack: 'anywhere', firstRed: 'source' }, DEFAULT_RULES);
    expect(rules.crankTriesMax).toBe(3);
    expect(rules.firstRed).toBe('source');
    expect(rules.lastBlack).toBe('ground-point');
  });
});
