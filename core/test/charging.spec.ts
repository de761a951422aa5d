import fc from 'fast-check';
import { acceptanceAmps, type BlockRating, chargeHours, daysToFlat } from '../src/index.js';
import { BLOCK_60 } from './fixtures.js';

const LFP: BlockRating = { chemistry: 'lfp', capacityAh: 60, ccaAmps: 500, ccaStandard: 'SAE' };

describe('chargeHours', () => {
  it('takes 10 to 24 h from flat at a tenth of capacity, as the trade finds', () => {
    const hours = chargeHours(BLOCK_60, 0, 1, 6, 20)!;
    expect(hours).toBeGreaterThan(10);
    expect(hours).toBeLessThan(24);
  });

  it('is missing charge over current in the middle, where the charger limits: 12 Ah x 1.2 at 6 A', () => {
    expect(chargeHours(BLOCK_60, 0.3, 0.5, 6, 25)).toBeCloseTo((12 * 1.2) / 6, 2);
  });

  it('gains little from a bigger charger near the top, where the block limits', () => {
    const small = chargeHours(BLOCK_60, 0.9, 0.99, 6, 25)!;
    const large = chargeHours(BLOCK_60, 0.9, 0.99, 60, 25)!;
    expect(large / small).toBeGreaterThan(0.9);
  });

  it('never falls with a higher target, a colder block or a smaller charger', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 0.5, noNaN: true }),
        fc.double({ min: 0.55, max: 0.9, noNaN: true }),
        fc.double({ min: 2, max: 30, noNaN: true }),
        fc.integer({ min: -10, max: 30 }),
        (from, to, amps, tempC) => {
          const hours = chargeHours(BLOCK_60, from, to, amps, tempC)!;
          expect(chargeHours(BLOCK_60, from, to + 0.05, amps, tempC)!).toBeGreaterThanOrEqual(hours);
          expect(chargeHours(BLOCK_60, from, to, amps, tempC - 10)!).toBeGreaterThanOrEqual(hours - 1e-9);
          expect(chargeHours(BLOCK_60, from, to, amps / 2, tempC)!).toBeGreaterThanOrEqual(hours);
        },
      ),
    );
  });

  it('does not charge lithium below freezing, and refuses what makes no sense', () => {
    expect(acceptanceAmps(LFP, 0.5, -5)).toBe(0);
    expect(chargeHours(LFP, 0.2, 0.9, 10, -5)).toBeNull();
    expect(chargeHours(LFP, 0.2, 0.9, 10, 10)).toBeCloseTo((42 * 1.02) / 10, 1);
    expect(() => chargeHours(BLOCK_60, 0.5, 0.2, 10, 10)).toThrowError(/must rise/);
    expect(() => chargeHours(BLOCK_60, 0.2, 0.5, 0, 10)).toThrowError(/above zero/);
  });
});

describe('daysToFlat', () => {
  it('is usable Ah / A / 24', () => {
    expect(daysToFlat(BLOCK_60, 1, 0.05)).toBeCloseTo(30 / 0.05 / 24, 9);
    expect(daysToFlat(BLOCK_60, 0.5, 0.05)).toBe(0);
    expect(() => daysToFlat(BLOCK_60, 1, 0)).toThrowError(RangeError);
  });
});
