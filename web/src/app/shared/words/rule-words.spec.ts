import { HOUSE_RULE_KEYS } from '@voltrek/core/rules';
import { overrideName } from './override-words';
import { ruleName } from './rule-words';

describe('the name of a house rule', () => {
  it('is words for every rule, never its id', () => {
    for (const key of HOUSE_RULE_KEYS) {
      expect(ruleName(key))
        .withContext(key)
        .toMatch(/^[A-Z]\S*( \S+)*$/);
      expect(ruleName(key))
        .withContext(key)
        .not.toMatch(/[a-z][A-Z]/);
      expect(overrideName(key)).withContext(key).toBe(ruleName(key));
    }
  });
});
