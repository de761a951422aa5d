import {
  batteryOhms,
  batteryOpenVolts,
  gravityAt,
  socFromCells,
  socFromGravity,
} from '../src/battery/index.js';
import {
  type CrankCase,
  simulateCrank,
  simulateWake,
  toSpice,
  USUAL_CONVERTER,
  type WakeCase,
} from '../src/crank/index.js';
import { rollingStart, rollOrder } from '../src/machine/index.js';
import { bankOf, boosterFillSeconds, capacitorSource, latchPoint } from '../src/sources/index.js';
import { BATTERY_60, CAR, EV, FREE, JOINED, KIT } from './fixtures.js';
import { runNgspice, sampleAt } from './ngspice.js';

describe('specific gravity', () => {
  it('reads the trade’s table at 27 degC and corrects 0.004 for 6 degC', () => {
    expect(socFromGravity(1.265, 27).soc).toBe(1);
    expect(socFromGravity(1.225, 27).soc).toBeCloseTo(0.75, 9);
    expect(socFromGravity(1.12, 27).soc).toBe(0);
    expect(socFromGravity(1.221, 33).soc).toBeCloseTo(0.75, 9);
  });

  it('is undone by its inverse, inside its band', () => {
    for (const soc of [0.1, 0.4, 0.8]) {
      const read = socFromGravity(gravityAt(soc, -10), -10);
      expect(read.soc).toBeCloseTo(soc, 9);
      expect(read.low).toBeLessThan(soc);
      expect(read.high).toBeGreaterThan(soc);
    }
  });

  it('finds the cell that stands out by more than 0.050, and refuses no cells or nonsense', () => {
    expect(socFromCells([1.25, 1.24, 1.25, 1.18, 1.25, 1.24], 20).badCell).toBe(3);
    expect(socFromCells([1.25, 1.24, 1.25, 1.21, 1.25, 1.24], 20).badCell).toBeNull();
    expect(() => socFromCells([], 20)).toThrowError(RangeError);
    expect(() => socFromGravity(12.5, 20)).toThrowError(/specific gravity must be between/);
  });
});

describe('a hurt battery', () => {
  const full = { soc: 1, tempC: 25, ageing: 1 };

  it('gives five sixths with a dead cell, and points backwards when reversed', () => {
    expect(batteryOpenVolts(BATTERY_60, { ...full, deadCells: 1 })).toBeCloseTo((12.7 * 5) / 6, 9);
    expect(batteryOpenVolts(BATTERY_60, { ...full, reversed: true })).toBeCloseTo(-12.7, 9);
    expect(batteryOpenVolts({ ...BATTERY_60, chemistry: 'lfp' }, { ...full, deadCells: 1 })).toBeCloseTo(
      (13.6 * 3) / 4,
      9,
    );
    expect(() => batteryOpenVolts(BATTERY_60, { ...full, deadCells: 9 })).toThrowError(/dead cells/);
  });
});

describe('latchPoint', () => {
  it('releases with 9 V through a usual coil, by hand: 9 / (1 + 20) A', () => {
    expect(latchPoint(9, 1, 20)).toEqual({ amps: 9 / 21, coilVolts: 180 / 21, releases: true, fault: null });
  });

  it('refuses what is too weak, too strong, or not physical', () => {
    expect(latchPoint(6, 1, 20).fault).toBe('too-weak');
    expect(latchPoint(14, 1, 20).fault).toBe('too-strong');
    expect(latchPoint(12, 0.5, 2).fault).toBe('too-strong');
    expect(() => latchPoint(9, 0, 20)).toThrowError(RangeError);
  });
});

describe('rollingStart', () => {
  const scene = { sloping: true, ontoRoad: false, restVolts: 11.5 };

  it('is for a manual gearbox on a safe slope', () => {
    const roll = rollingStart(CAR, scene);
    expect(roll.allowed).toBeTrue();
    expect(roll.cautions).toContain('steering-and-brakes');
    expect(rollingStart(CAR, { ...scene, sloping: false }).cautions).toContain('needs-push');
  });

  it('is never for an automatic, an EV, onto a road, or with the control unit dark', () => {
    expect(rollingStart({ ...CAR, gearbox: 'automatic' }, scene).bars).toEqual(['not-manual']);
    expect(rollingStart(EV, scene).bars).toEqual(['wakes']);
    expect(rollingStart({ ...CAR, gearbox: 'none' }, scene).bars).toEqual(['no-gearbox']);
    expect(rollingStart(CAR, { ...scene, ontoRoad: true }).allowed).toBeFalse();
    expect(rollingStart(CAR, { ...scene, restVolts: 6 }).bars).toEqual(['no-control-power']);
  });

  it('goes on from looking to keeping it running, with a push and the catalyst only where they count', () => {
    const order = rollOrder(rollingStart(CAR, { sloping: true, ontoRoad: false, restVolts: 11.8 }));
    expect(order[0]).toBe('clear-run');
    expect(order.indexOf('brakes-heavy')).toBeLessThan(order.indexOf('rolling'));
    expect(order.at(-1)).toBe('keep-running');
    expect(order).not.toContain('pushers');
    expect(order).toContain('few-times');
    const level = rollOrder(rollingStart(CAR, { sloping: false, ontoRoad: false, restVolts: null }));
    expect(level.indexOf('pushers')).toBeLessThan(level.indexOf('rolling'));
  });
});

describe('a bank in the cold', () => {
  const booster = KIT.find((item) => item.kind === 'capacitor-booster')!;

  it('has its rated resistance from 25 degC up, and twice it near -27 degC', () => {
    const ohms = (tempC: number): number => capacitorSource(booster, tempC).capacitor!.esrOhms;
    expect(ohms(40)).toBe(ohms(25));
    expect(ohms(25)).toBeCloseTo(bankOf(booster).esrOhms, 12);
    expect(ohms(25 - 75 * Math.LN2) / ohms(25)).toBeCloseTo(2, 9);
    expect(ohms(-20)).toBeGreaterThan(ohms(0));
  });
});

describe('boosterFillSeconds', () => {
  const booster = KIT.find((item) => item.kind === 'capacitor-booster')!;

  const living = { openVolts: 11.5, ohms: 0.05 };

  it('is the energy between both volts over the power of its converter: 58.3 F from 9 to 14.4 V at 86.4 W', () => {
    const joules = ((350 / 6) * (14.4 ** 2 - 9 ** 2)) / 2;
    expect(boosterFillSeconds({ ...booster, volts: 9 }, 14.4, living)).toBeCloseTo(joules / (6 * 14.4), 6);
  });

  it('takes longer from a battery that feeds it less, and forever from one that cannot', () => {
    const from = (openVolts: number, ohms: number) =>
      boosterFillSeconds({ ...booster, volts: 9 }, 14.4, { openVolts, ohms });
    // 6 V behind half an ohm: at 4 V it gives 4 A, 16 W, of which 13.6 W arrive.
    expect(from(6, 0.5)).toBeCloseTo(((350 / 6) * (14.4 ** 2 - 9 ** 2)) / 2 / 13.6, 6);
    const longer = [12, 10, 8, 6, 4.5].map((volts) => from(volts, 0.5)!);
    expect(longer).toEqual([...longer].sort((a, b) => a - b));
    expect(from(4, 0.05)).toBeNull();
    expect(from(1, 0.05)).toBeNull();
  });

  it('is nothing for a full bank or one without a converter', () => {
    expect(boosterFillSeconds(booster, 14.4, living)).toBeNull();
    expect(boosterFillSeconds({ ...booster, volts: 9, converterAmps: null }, 14.4, living)).toBeNull();
  });
});

describe('a capacitor bank instead of the battery', () => {
  const bank = bankOf({ cells: 6, cellFarads: 500, cellVolts: 2.7, cellOhms: 0.0003 });
  const input: CrankCase = {
    engine: CAR.engine!,
    batteries: [{ bank, volts: 14.4 }],
    seconds: 2,
    rescue: {
      casualty: [{ openVolts: 14.4, ohms: bank.esrOhms }],
      load: { kind: 'none' },
      source: null,
      sourceOn: false,
      leads: null,
      tempC: 0,
      clamps: FREE,
    },
  };

  it('cranks, and falls by the charge it gives: Q / C', () => {
    const trace = simulateCrank(input);
    const given = trace.starterAmps.reduce((sum, a) => sum + a, 0) * trace.stepSeconds;
    expect(trace.startsAtSeconds).not.toBeNull();
    expect(trace.endSoc[0]! * bank.maxVolts).toBeCloseTo(14.4 - given / bank.farads, 2);
  });

  it('agrees with ngspice', () => {
    const trace = simulateCrank(input);
    const spice = runNgspice(toSpice(input));
    const i = 1500;
    const theirs = sampleAt(spice.get('time')!, spice.get('v(casualty_starter)')!, trace.seconds[i]!);
    expect(Math.abs(trace.starterVolts[i]! / theirs - 1)).toBeLessThan(0.005);
  });
});

describe('simulateWake', () => {
  const state = { soc: 0, tempC: 0, ageing: 1.3, overDischargedVolts: 9 };
  const battery = { openVolts: batteryOpenVolts(BATTERY_60, state), ohms: batteryOhms(BATTERY_60, state) };
  const leads = { sectionMm2: 25, lengthM: 1.4, conductor: 'copper', contact: 'clean' } as const;
  const input: WakeCase = {
    rescue: {
      casualty: [battery],
      load: { kind: 'none' },
      source: { openVolts: 12.8, ohms: 0.01, polarises: true },
      sourceOn: true,
      leads,
      tempC: 0,
      clamps: JOINED,
    },
    batteries: [{ rating: BATTERY_60, state }],
    amps: 30,
    minVolts: 11,
    maxVolts: 14.5,
    converter: USUAL_CONVERTER,
    seconds: 8,
  };

  it('hands over to the converter: volts rise to 13 and more and the help gives no more', () => {
    const trace = simulateWake(input);
    expect(trace.outcome).toBe('takes-over');
    expect(trace.takesOverAtSeconds).toBeCloseTo(3, 6);
    expect(trace.postVolts.at(-1)!).toBeGreaterThan(13);
    expect(trace.sourceAmps.at(-1)!).toBeLessThan(0);
    expect(trace.postVolts[0]!).toBeGreaterThan(11);
  });

  it('lives on the help for as long as that lasts when the traction battery is flat', () => {
    const trace = simulateWake({ ...input, converter: null });
    expect(trace.outcome).toBe('stays-on-help');
    expect(trace.takesOverAtSeconds).toBeNull();
    const mean = trace.sourceAmps.reduce((sum, a) => sum + a, 0) / trace.sourceAmps.length;
    expect(trace.sourceCoulombs).toBeCloseTo(mean * 8, 3);
  });

  it('falls asleep again on help too weak, and says when help is too high', () => {
    const weak = { openVolts: 11.8, ohms: 0.2 };
    expect(simulateWake({ ...input, rescue: { ...input.rescue, source: weak } }).outcome).toBe(
      'falls-asleep',
    );
    const high = { openVolts: 16.5, ohms: 0.01 };
    expect(simulateWake({ ...input, rescue: { ...input.rescue, source: high } }).outcome).toBe(
      'over-voltage',
    );
  });
});
