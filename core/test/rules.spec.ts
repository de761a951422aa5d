import {
  DEFAULT_RULES,
  HOUSE_RULE_KEYS,
  RULE_LIMITS,
  ruleFault,
  RULES,
  rulesWith,
} from '../src/rules/index.js';

describe('house rules', () => {
  it('allow their own defaults, and have limits for every rule a house may set', () => {
    const mayBeSet = Object.entries(RULES).flatMap(([key, rule]) => (rule.houseRule ? [key] : []));
    expect([...HOUSE_RULE_KEYS].sort()).toEqual(mayBeSet.sort() as typeof HOUSE_RULE_KEYS);
    for (const key of HOUSE_RULE_KEYS) expect(ruleFault(key, DEFAULT_RULES[key])).withContext(key).toBeNull();
  });

  it('refuse what is out of limits, of the wrong kind, fixed or unknown', () => {
    expect(ruleFault('crankTriesMax', 40)).toMatch(/between 1 and 10/);
    expect(ruleFault('crankTriesMax', '4')).toMatch(/must be a number/);
    expect(ruleFault('lastBlack', 'anywhere')).toMatch(/one of ground-point, negative-terminal/);
    expect(ruleFault('wakeMinVolts', 10)).toMatch(/not a rule/);
    expect(ruleFault('nonsense', 1)).toMatch(/not a rule/);
    expect(RULE_LIMITS.lastBlack).toEqual({ kind: 'school', schools: ['ground-point', 'negative-terminal'] });
  });

  it('stand over the defaults, unless they are not allowed', () => {
    const rules = rulesWith({ crankTriesMax: 3, lastBlack: 'anywhere', firstRed: 'source' }, DEFAULT_RULES);
    expect(rules.crankTriesMax).toBe(3);
    expect(rules.firstRed).toBe('source');
    expect(rules.lastBlack).toBe('ground-point');
  });
});
