import fc from 'fast-check';
import { batteryOhms, batteryOpenVolts, type BatteryRating } from '../src/battery/index.js';
import { modelBattery, type Rescue } from '../src/circuit/index.js';
import {
  acceptanceAmps,
  afterJoined,
  chargeHours,
  daysToFlat,
  driveMinutes,
  maintaining,
  revive,
  startCostAh,
} from '../src/charging/index.js';
import { BATTERY_60, JOINED } from './fixtures.js';

const LFP: BatteryRating = { chemistry: 'lfp', capacityAh: 60, ccaAmps: 500, ccaStandard: 'SAE' };

describe('chargeHours', () => {
  it('takes 10 to 24 h from flat at a tenth of capacity, as the trade finds', () => {
    const hours = chargeHours(BATTERY_60, 0, 1, 6, 20)!;
    expect(hours).toBeGreaterThan(10);
    expect(hours).toBeLessThan(24);
  });

  it('is missing charge over current in the middle, where the charger limits: 12 Ah x 1.2 at 6 A', () => {
    expect(chargeHours(BATTERY_60, 0.3, 0.5, 6, 25)).toBeCloseTo((12 * 1.2) / 6, 2);
  });

  it('gains little from a bigger charger near the top, where the battery limits', () => {
    const small = chargeHours(BATTERY_60, 0.9, 0.99, 6, 25)!;
    const large = chargeHours(BATTERY_60, 0.9, 0.99, 60, 25)!;
    expect(large / small).toBeGreaterThan(0.9);
  });

  it('never falls with a higher target, a colder battery or a smaller charger', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 0.5, noNaN: true }),
        fc.double({ min: 0.55, max: 0.9, noNaN: true }),
        fc.double({ min: 2, max: 30, noNaN: true }),
        fc.integer({ min: -10, max: 30 }),
        (from, to, amps, tempC) => {
          const hours = chargeHours(BATTERY_60, from, to, amps, tempC)!;
          expect(chargeHours(BATTERY_60, from, to + 0.05, amps, tempC)!).toBeGreaterThanOrEqual(hours);
          expect(chargeHours(BATTERY_60, from, to, amps, tempC - 10)!).toBeGreaterThanOrEqual(hours - 1e-9);
          expect(chargeHours(BATTERY_60, from, to, amps / 2, tempC)!).toBeGreaterThanOrEqual(hours);
        },
      ),
    );
  });

  it('does not charge lithium below freezing, and refuses what makes no sense', () => {
    expect(acceptanceAmps(LFP, 0.5, -5)).toBe(0);
    expect(chargeHours(LFP, 0.2, 0.9, 10, -5)).toBeNull();
    expect(chargeHours(LFP, 0.2, 0.9, 10, 10)).toBeCloseTo((42 * 1.02) / 10, 1);
    expect(() => chargeHours(BATTERY_60, 0.5, 0.2, 10, 10)).toThrowError(/must rise/);
    expect(() => chargeHours(BATTERY_60, 0.2, 0.5, 0, 10)).toThrowError(/above zero/);
  });
});

describe('the heat of what is joined', () => {
  /** Below freezing lithium stores nothing. So it stays as it is, and the sum is one of Joule's law alone. */
  const state = { soc: 0.5, tempC: -5, ageing: 1 };
  const rescue: Rescue = {
    casualty: [modelBattery(LFP, state)],
    load: { kind: 'none' },
    // Half an ohm, beside which leads and straps are little.
    source: { openVolts: 20, ohms: 0.5 },
    sourceOn: true,
    leads: { sectionMm2: 50, lengthM: 1, conductor: 'copper', contact: 'clean' },
    tempC: -5,
    clamps: JOINED,
  };

  it('is amps squared through its own resistance over the time, by 270 J a degree and Ah', () => {
    const ohms = batteryOhms(LFP, state);
    const amps = (20 - batteryOpenVolts(LFP, state)) / (ohms + 0.5);
    const expected = (amps ** 2 * ohms * 600) / (270 * 60);
    const [warmed] = afterJoined(rescue, [{ rating: LFP, state }], 10).warmedK;
    expect(warmed! / expected).toBeGreaterThan(0.97);
    expect(warmed! / expected).toBeLessThan(1);
    expect(afterJoined(rescue, [{ rating: LFP, state }], 20).warmedK[0]).toBeCloseTo(2 * warmed!, 9);
  });

  it('is nothing where nothing is on, and twice the amps warm four times as much', () => {
    const of = (more: Partial<Rescue>): number =>
      afterJoined({ ...rescue, ...more }, [{ rating: LFP, state }], 5).warmedK[0]!;
    expect(of({ sourceOn: false })).toBeCloseTo(0, 12);
    const rest = batteryOpenVolts(LFP, state);
    const once = of({ source: { openVolts: rest + 3, ohms: 0.5 } });
    expect(of({ source: { openVolts: rest + 6, ohms: 0.5 } }) / once).toBeCloseTo(4, 6);
  });
});

describe('daysToFlat', () => {
  it('is usable Ah / A / 24', () => {
    expect(daysToFlat(BATTERY_60, 1, 0.05)).toBeCloseTo(30 / 0.05 / 24, 9);
    expect(daysToFlat(BATTERY_60, 0.5, 0.05)).toBe(0);
    expect(() => daysToFlat(BATTERY_60, 1, 0)).toThrowError(RangeError);
  });
});

describe('driveMinutes', () => {
  it('puts a start back in a minute or so: 200 A for 3 s at 20 A spare', () => {
    const startAh = startCostAh(200, 3);
    expect(startAh).toBeCloseTo(1 / 6, 9);
    const drive = driveMinutes(BATTERY_60, 0.7, 0.8, 20, startAh, 20);
    expect(drive.startMinutes).toBeGreaterThan((1 / 6 / 20) * 60);
    expect(drive.startMinutes).toBeLessThan(3);
  });

  it('says plainly that a flat battery needs a charger', () => {
    const drive = driveMinutes(BATTERY_60, 0.05, 0.9, 15, 0.2, 0);
    expect(drive.targetMinutes!).toBeGreaterThan(120);
    expect(drive.needsCharger).toBeTrue();
    expect(driveMinutes(BATTERY_60, 0.8, 0.85, 30, 0.2, 20).needsCharger).toBeFalse();
  });
});

describe('revive', () => {
  it('rises as a large capacitor does: from 4 V to 8 V by 12.6 V through 1 ohm', () => {
    const farads = (0.05 * 60 * 3600) / 11.8;
    const up = revive(BATTERY_60, 4, 12.6, 8, 1, 15);
    expect(up.contactAmps).toBeCloseTo(8.6, 9);
    expect(up.minutes!).toBeCloseTo((farads * Math.log(8.6 / 4.6)) / 60, 9);
    expect(up.joules).toBeCloseTo((farads / 2) * (8.6 ** 2 - 4.6 ** 2), 6);
    expect(up.refused).toBeNull();
  });

  it('is longer through more ohms, nothing when already there, never when the helper is too low', () => {
    expect(revive(BATTERY_60, 4, 12.6, 8, 2, 15).minutes!).toBeCloseTo(
      2 * revive(BATTERY_60, 4, 12.6, 8, 1, 15).minutes!,
      9,
    );
    expect(revive(BATTERY_60, 9, 12.6, 8, 1, 15).minutes).toBe(0);
    expect(revive(BATTERY_60, 4, 11, 12, 1, 15).minutes).toBeNull();
  });

  it('is refused for a reversed, frozen or lithium battery', () => {
    expect(revive(BATTERY_60, -2, 12.6, 8, 1, 15).refused).toBe('reversed');
    expect(revive(BATTERY_60, 4, 12.6, 8, 1, -2).refused).toBe('frozen');
    expect(revive(LFP, 4, 12.6, 8, 1, 15).refused).toBe('lithium');
    expect(() => revive(BATTERY_60, 4, 12.6, 8, 0, 15)).toThrowError(/resistance/);
  });
});

describe('maintaining', () => {
  it('counts what is lost: 60 Ah at 50 mA loses 1.2 Ah by drain and 0.12 by itself a day, half of it in 22 days', () => {
    const kept = maintaining(BATTERY_60, 0.05);
    expect(kept.lostAhPerDay).toBeCloseTo(1.32, 6);
    expect(kept.daysJoined).toBe(Math.floor(30 / 1.32));
    expect(kept.daysParted).toBe(Math.floor(30 / 0.12));
    expect(kept.amps).toBe(1);
  });

  it('gives more where more is drawn, and holds each chemistry at its own volts', () => {
    // 0.4 A is 9.6 Ah a day and 0.12 by itself: twice that over 24 h is 0.81 A.
    expect(maintaining(BATTERY_60, 0.4).amps).toBe(1);
    // 1 A is 24.12 Ah a day: twice that is 2.01 A, and maintainers come in halves.
    expect(maintaining(BATTERY_60, 1).amps).toBe(2.5);
    expect(maintaining(LFP, null).mostVolts).toBeLessThan(
      maintaining({ ...LFP, chemistry: 'gel' }, null).mostVolts,
    );
    expect(() => maintaining(BATTERY_60, -1)).toThrowError(RangeError);
  });
});
