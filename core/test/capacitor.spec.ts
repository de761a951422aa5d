import {
  balancedMaxVolts,
  bankFallVolts,
  cellSplit,
  crankCount,
  equalise,
  equalisingLampWatts,
  equalisingOhms,
  firstCharge,
  holdUpHours,
  lampOhms,
  rechargeSeconds,
  usableJoules,
} from '../src/capacitor/index.js';
import { bankOf } from '../src/sources/index.js';

const CELLS = { cells: 6, cellFarads: 350, cellVolts: 2.7, cellOhms: 0.0003 };
const BANK = bankOf(CELLS);

describe('capacitor bank', () => {
  it('divides farads and multiplies volts and ESR', () => {
    expect(BANK.farads).toBeCloseTo(58.333, 3);
    expect(BANK.maxVolts).toBeCloseTo(16.2, 9);
    expect(BANK.esrOhms).toBeCloseTo(0.0018, 9);
  });

  it('6 x 350 F from 14.4 V, 200 A for 1.5 s: falls 5.1 V and 0.36 V, not 0.9 V', () => {
    const { charge, esr } = bankFallVolts(BANK, 200, 1.5);
    expect(charge).toBeCloseTo(5.143, 3);
    expect(esr).toBeCloseTo(0.36, 9);
    // The usual slip: one cell's fall.
    expect(charge).toBeCloseTo(((200 * 1.5) / 350) * 6, 9);
  });

  it('holds the energy of its cells, no more', () => {
    const each = usableJoules(350, 2.4, 0);
    expect(usableJoules(BANK.farads, 14.4, 0)).toBeCloseTo(6 * each, 6);
    expect(usableJoules(58.333, 14.4, 10.5)).toBeCloseTo(2832.36, 2);
    expect(usableJoules(58.333, 9, 10.5)).toBe(0);
  });

  it('counts whole cranks until under the minimum', () => {
    expect(crankCount(BANK, 14.4, 8, 200, 1)).toBe(1);
    expect(crankCount(BANK, 14.4, 8, 100, 1)).toBe(3);
    expect(crankCount(BANK, 8, 8, 100, 1)).toBe(0);
    expect(() => crankCount(BANK, 14, 8, 0, 1)).toThrowError(RangeError);
  });

  it('must be derated when its cells differ: the small one passes its limit first', () => {
    expect(balancedMaxVolts(CELLS, 0)).toBeCloseTo(16.2, 9);
    // Volts of the small cell against each other: 1.2 to 0.8, so it takes 1.25 / (1.25 + 5 / 1.2) of the whole.
    expect(balancedMaxVolts(CELLS, 0.2)).toBeCloseTo(2.7 / (1.25 / (1.25 + 5 / 1.2)), 9);
    expect(balancedMaxVolts(CELLS, 0.2)).toBeLessThan(12);
  });

  it('recharges by I t = C V, and holds by it until its own leakage counts', () => {
    expect(rechargeSeconds(58.333, 9, 14.4, 10)).toBeCloseTo(31.5, 1);
    // 58.333 F x 3.9 V / 30 mA = 2.106 h; its own 2 % of about 12.4 V a day is another 0.17 mA.
    expect(holdUpHours(58.333, 14.4, 10.5, 0.03)).toBeCloseTo((58.333 * 3.9) / 0.03017 / 3600, 3);
    // With nothing else joined 2 % a day: 14.4 V is down to 10.5 V in ln(14.4 / 10.5) / -ln(0.98) days.
    expect(holdUpHours(58.333, 14.4, 10.5, 0)).toBeCloseTo((24 * Math.log(14.4 / 10.5)) / -Math.log(0.98), 6);
    expect(holdUpHours(58.333, 10, 10.5, 0.03)).toBe(0);
    expect(() => holdUpHours(58.333, 14.4, 10.5, -0.01)).toThrowError(RangeError);
    expect(() => rechargeSeconds(58, 9, 14, 0)).toThrowError(RangeError);
  });

  it('refuses cells that are not physical', () => {
    expect(() => bankOf({ ...CELLS, cellFarads: 0 })).toThrowError(/cellFarads must be between/);
    expect(() => bankOf({ ...CELLS, cells: NaN })).toThrowError(/must be a number/);
  });
});

describe('equalise', () => {
  const input = { highVolts: 14.4, lowVolts: 8.4, highFarads: 58, lowFarads: 58, ohms: 1 };

  it('by hand: 6 V through 1 ohm between two of 58 F', () => {
    const result = equalise(input, 0.5);
    expect(result.contactAmps).toBeCloseTo(6, 9);
    expect(result.endVolts).toBeCloseTo(11.4, 9);
    expect(result.tauSeconds).toBeCloseTo(29, 9);
    expect(result.secondsToSafe).toBeCloseTo(29 * Math.log(12), 9);
    expect(result.peakWatts).toBeCloseTo(36, 9);
  });

  it('burns what the two stores lose together, whatever the resistance', () => {
    for (const [highFarads, lowFarads, ohms] of [
      [58, 58, 1],
      [10, 400, 0.01],
      [1000, 3, 50],
    ] as const) {
      const { endVolts, joules } = equalise({ ...input, highFarads, lowFarads, ohms }, 0.1);
      const before = usableJoules(highFarads, 14.4, 0) + usableJoules(lowFarads, 8.4, 0);
      const after = usableJoules(highFarads + lowFarads, endVolts, 0);
      expect(joules / (before - after)).toBeCloseTo(1, 9);
    }
  });

  it('is at once when they are already close, and sizes the resistor for a current', () => {
    expect(equalise({ ...input, lowVolts: 14.2 }, 0.5).secondsToSafe).toBe(0);
    expect(equalisingOhms(6, 3)).toBe(2);
    expect(() => equalise({ ...input, ohms: 0 }, 0.5)).toThrowError(RangeError);
  });
});

describe('equalising lamps and first charge', () => {
  it('a cold filament lets ten times through: 12 V 55 W is 2.6 ohm hot, 0.26 cold', () => {
    expect(lampOhms(55, 12).hot).toBeCloseTo(2.618, 3);
    expect(lampOhms(55, 12).cold).toBeCloseTo(0.2618, 4);
    // 6 V across at most 3 A wants 2 ohm cold, so 20 ohm hot: 7.2 W.
    expect(equalisingLampWatts(6, 3)).toBeCloseTo(7.2, 9);
    expect(() => lampOhms(0, 12)).toThrowError(RangeError);
  });

  it('splits a series charge inversely to capacitance, and the parts make the whole', () => {
    const [small, large] = cellSplit([280, 420], 5);
    expect(small! / large!).toBeCloseTo(420 / 280, 9);
    expect(small! + large!).toBeCloseTo(5, 9);
    expect(() => cellSplit([350, 0], 5)).toThrowError(RangeError);
  });

  it('charges cells one by one at about C / 1000: 350 F at 0.35 A to 2.7 V', () => {
    const { amps, minutesEach } = firstCharge(CELLS);
    expect(amps).toBeCloseTo(0.35, 9);
    expect(minutesEach).toBeCloseTo(45, 6);
  });
});
