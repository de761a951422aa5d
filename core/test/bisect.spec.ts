import fc from 'fast-check';
import { bisect } from '../src/quantities/index.js';

describe('bisect', () => {
  it('closes in on where something changes over, wherever that is', () => {
    fc.assert(
      fc.property(fc.double({ min: -50, max: 50, noNaN: true }), (turn) => {
        const { low, high } = bisect((at) => at < turn, -60, 60);
        expect(low).toBeLessThanOrEqual(turn);
        expect(high).toBeGreaterThanOrEqual(turn);
        expect(high - low).toBeLessThan(1e-9);
      }),
    );
  });

  it('asks as often as it is told, and neither end', () => {
    const asked: number[] = [];
    const { low, high } = bisect((at) => asked.push(at) > 0, 0, 8, 3);
    expect(asked).toEqual([4, 6, 7]);
    expect([low, high]).toEqual([7, 8]);
  });
});
