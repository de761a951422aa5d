import fc from 'fast-check';
import {
  batteryOhms,
  type BatteryRating,
  CCA_STANDARDS,
  CHEMISTRIES,
  convertCca,
  freezePointC,
  mustTreatAsFrozen,
  restVoltsAt,
  socFromRestVolts,
} from '../src/battery/index.js';
import { conductorOhms, leadSetOhms } from '../src/leads/index.js';

const rating: BatteryRating = { chemistry: 'flooded', capacityAh: 60, ccaAmps: 540, ccaStandard: 'EN' };

describe('rest volts', () => {
  it('reads the trade’s flooded curve at 25 degC', () => {
    expect(restVoltsAt('flooded', 1, 25)).toBeCloseTo(12.7, 9);
    expect(restVoltsAt('flooded', 0.75, 25)).toBeCloseTo(12.45, 9);
    expect(restVoltsAt('flooded', 0.5, 25)).toBeCloseTo(12.25, 9);
    expect(restVoltsAt('flooded', 0, 25)).toBeCloseTo(11.8, 9);
  });

  it('turns back into the charge it came from, inside its band, for every chemistry', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...CHEMISTRIES),
        fc.double({ min: 0.01, max: 0.99, noNaN: true }),
        fc.integer({ min: -30, max: 40 }),
        (chemistry, soc, tempC) => {
          const read = socFromRestVolts(chemistry, restVoltsAt(chemistry, soc, tempC), tempC);
          expect(read.soc).toBeCloseTo(soc, 6);
          expect(read.low).toBeLessThanOrEqual(soc);
          expect(read.high).toBeGreaterThanOrEqual(soc);
        },
      ),
    );
  });

  it('says when a reading lies under the flat line', () => {
    expect(socFromRestVolts('flooded', 11.5, 25)).toEqual(
      jasmine.objectContaining({ soc: 0, belowFlat: true }),
    );
    expect(socFromRestVolts('flooded', 12.0, 25).belowFlat).toBeFalse();
  });

  it('knows that LFP’s flat middle tells little', () => {
    const lead = socFromRestVolts('flooded', 12.25, 25);
    const lfp = socFromRestVolts('lfp', 13.2, 25);
    expect(lfp.high - lfp.low).toBeGreaterThan(2 * (lead.high - lead.low));
  });
});

describe('battery resistance', () => {
  const state = { soc: 1, tempC: -18, ageing: 1 };

  it('is what pulls a full battery to 7.2 V at -18 degC with its cold-cranking amps', () => {
    const saeAmps = convertCca(540, 'EN', 'SAE');
    const volts = restVoltsAt('flooded', 1, -18) - saeAmps * batteryOhms(rating, state);
    expect(volts).toBeCloseTo(7.2, 9);
  });

  it('is 0.55 of that at 25 degC', () => {
    expect(batteryOhms(rating, { ...state, tempC: 25 }) / batteryOhms(rating, state)).toBeCloseTo(0.55, 9);
  });

  it('never falls with age, cold or discharge', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 0.9, noNaN: true }),
        fc.integer({ min: -30, max: 40 }),
        fc.double({ min: 1, max: 5, noNaN: true }),
        (soc, tempC, ageing) => {
          const ohms = batteryOhms(rating, { soc, tempC, ageing });
          expect(batteryOhms(rating, { soc: soc + 0.1, tempC, ageing })).toBeLessThanOrEqual(ohms);
          expect(batteryOhms(rating, { soc, tempC: tempC + 5, ageing })).toBeLessThan(ohms);
          expect(batteryOhms(rating, { soc, tempC, ageing: ageing + 0.5 })).toBeGreaterThan(ohms);
          expect(batteryOhms(rating, { soc, tempC, ageing, overDischargedVolts: 6 })).toBeGreaterThan(ohms);
        },
      ),
    );
  });

  it('refuses what is not physical', () => {
    expect(() => batteryOhms({ ...rating, ccaAmps: -5 }, state)).toThrowError(/CCA must be between/);
    expect(() => batteryOhms(rating, { ...state, soc: 1.2 })).toThrowError(/state of charge/);
    expect(() => batteryOhms(rating, { ...state, ageing: NaN })).toThrowError(/must be a number/);
  });
});

describe('CCA standards', () => {
  it('convert there and back', () => {
    for (const from of CCA_STANDARDS) {
      for (const to of CCA_STANDARDS) {
        expect(convertCca(convertCca(500, from, to), to, from)).toBeCloseTo(500, 9);
      }
    }
  });

  it('put a DIN figure well under the SAE one for the same battery', () => {
    expect(convertCca(300, 'DIN', 'SAE')).toBeCloseTo(510, 6);
  });
});

describe('freezing', () => {
  it('follows the table and interpolates', () => {
    expect(freezePointC('flooded', 1)).toBe(-59);
    expect(freezePointC('agm', 0.75)).toBe(-37);
    expect(freezePointC('flooded', 0.375)).toBeCloseTo(-20, 9);
    expect(freezePointC('flooded', 0)).toBe(-11);
  });

  it('comes close to water’s when over-discharged, and never for LFP', () => {
    expect(freezePointC('flooded', 0, 8)).toBe(-1);
    expect(freezePointC('flooded', 0, 9.9)).toBeCloseTo(-6, 6);
    expect(freezePointC('lfp', 0, 8)).toBeNull();
  });

  it('treats a battery as frozen only once the air is at the point', () => {
    expect(mustTreatAsFrozen('flooded', 0, -8, 9)).toBeTrue();
    expect(mustTreatAsFrozen('flooded', 0, -8, 11.7)).toBeFalse();
    expect(mustTreatAsFrozen('lfp', 0, -30)).toBeFalse();
  });
});

describe('leads', () => {
  const heavy = { sectionMm2: 25, lengthM: 3.5, conductor: 'copper', contact: 'clean' } as const;

  it('lose 0.965 V in two conductors of 25 mm2 x 3.5 m copper at 200 A and 20 degC', () => {
    expect(2 * conductorOhms(heavy, 20) * 200).toBeCloseTo(0.965, 3);
  });

  it('lose more when longer, thinner, warmer, clad or worn', () => {
    const ohms = leadSetOhms(heavy, 20);
    expect(leadSetOhms({ ...heavy, lengthM: 4 }, 20)).toBeGreaterThan(ohms);
    expect(leadSetOhms({ ...heavy, sectionMm2: 16 }, 20)).toBeGreaterThan(ohms);
    expect(leadSetOhms(heavy, 60)).toBeGreaterThan(ohms);
    expect(leadSetOhms({ ...heavy, conductor: 'copper-clad-aluminium' }, 20)).toBeGreaterThan(ohms * 1.3);
    expect(leadSetOhms({ ...heavy, contact: 'poor' }, 20)).toBeCloseTo(ohms + 4 * (0.003 - 0.0003), 9);
  });

  it('refuse a length below zero', () => {
    expect(() => conductorOhms({ ...heavy, lengthM: -1 }, 20)).toThrowError(/length must be between/);
  });
});
