import { comparePromise } from '../src/plan/index.js';
import { DEFAULT_RULES } from '../src/rules/index.js';

describe('comparePromise', () => {
  const tolerance = DEFAULT_RULES.promiseToleranceVolts;

  it('takes what lies within the tolerance as promised, either way', () => {
    expect(comparePromise(10.4, 10.4 - tolerance + 0.01, 12, DEFAULT_RULES).code).toBe('as-promised');
    expect(comparePromise(10.4, 10.4 + tolerance - 0.01, 12, DEFAULT_RULES).code).toBe('as-promised');
  });

  it('tells lower from higher, with the difference', () => {
    const low = comparePromise(10.4, 8.1, 12, DEFAULT_RULES);
    expect(low.code).toBe('lower');
    expect(low.differenceVolts).toBeCloseTo(-2.3, 9);
    expect(comparePromise(10.4, 12.3, 12, DEFAULT_RULES).code).toBe('higher');
  });

  it('allows a 24 V string twice as much', () => {
    expect(comparePromise(20, 20 - 1.5 * tolerance, 24, DEFAULT_RULES).code).toBe('as-promised');
    expect(comparePromise(20, 20 - 1.5 * tolerance, 12, DEFAULT_RULES).code).toBe('lower');
  });
});
