import fc from 'fast-check';
import { batteryOhms, batteryOpenVolts, type BatteryRating } from '../src/battery/index.js';
import type { Rescue } from '../src/circuit/index.js';
import { compileCrank, crankPoint } from '../src/crank/index.js';
import { defaultStarter, type Engine, engineDragNm } from '../src/engine/index.js';
import type { LeadSet } from '../src/leads/index.js';
import { type BatteryBelief, casualtyBatteries, type Odds, startOdds } from '../src/belief/index.js';
import { type PlanCase, planCase, rankOptions } from '../src/plan/index.js';
import { DEFAULT_RULES } from '../src/rules/index.js';
import type { SourceModel } from '../src/sources/index.js';
import { BATTERY_60, BATTERY_95, CAR, EV, FREE, JOINED, KIT } from './fixtures.js';
import { soundForTests } from './population.js';

/** A rescue with nothing at fault but its charge. */
interface OddsInput {
  readonly engine: Engine;
  readonly samples: number;
  readonly batteries: readonly BatteryBelief[];
  readonly rescue: Rescue;
}

const PETROL: Engine = { fuel: 'petrol', displacementL: 1.6, cylinders: 4, systemVolts: 12 };
const DIESEL: Engine = { fuel: 'diesel', displacementL: 3, cylinders: 6, systemVolts: 12 };
const HEAVY: LeadSet = { sectionMm2: 25, lengthM: 3.5, conductor: 'copper', contact: 'clean' };

const donor = (tempC: number): SourceModel => {
  const state = { soc: 0.95, tempC, ageing: 1.2 };
  return { openVolts: batteryOpenVolts(BATTERY_95, state), ohms: batteryOhms(BATTERY_95, state) };
};

function input(
  engine: Engine,
  rating: BatteryRating,
  soc: number,
  tempC: number,
  source: SourceModel | null = null,
  leads: LeadSet = HEAVY,
  samples = 600,
): OddsInput {
  return {
    engine,
    samples,
    batteries: [{ rating, soc, socLow: Math.max(0, soc - 0.04), socHigh: Math.min(1, soc + 0.04) }],
    rescue: {
      casualty: [],
      load: { kind: 'none' },
      source,
      sourceOn: true,
      leads: source ? leads : null,
      tempC,
      clamps: source ? JOINED : FREE,
    },
  };
}
const oddsOf = ({ rescue, batteries, engine, samples }: OddsInput, seed = 7): Odds =>
  startOdds({ rescue, beliefs: batteries }, engine, soundForTests(samples, seed))!;

describe('startOdds, at the stated plausible conditions', () => {
  it('a full battery starts a petrol engine, warm and cold', () => {
    expect(oddsOf(input(PETROL, BATTERY_60, 1, 25)).start).toBeGreaterThan(0.94);
    expect(oddsOf(input(PETROL, BATTERY_60, 1, -18)).start).toBeGreaterThan(0.5);
  });

  it('at a tenth of charge and -10 degC the odds are under one half; flat at 0 degC there are none to speak of', () => {
    expect(oddsOf(input(PETROL, BATTERY_60, 0.1, -10)).start).toBeLessThan(0.5);
    expect(oddsOf(input(PETROL, BATTERY_60, 0.02, 0)).start).toBeLessThan(0.03);
  });

  it('that flat battery with a donor through 25 mm2 x 3.5 m: over nine in ten, a clamp on paint and a fluke included', () => {
    expect(oddsOf(input(PETROL, BATTERY_60, 0.02, 0, donor(0))).start).toBeGreaterThan(0.9);
  });

  it('a flat diesel through thin clad leads does not start', () => {
    const thin: LeadSet = { sectionMm2: 10, lengthM: 3, conductor: 'copper-clad-aluminium', contact: 'worn' };
    expect(oddsOf(input(DIESEL, BATTERY_95, 0.02, -10, donor(-10), thin)).start).toBeLessThan(0.1);
  });
});

describe('startOdds', () => {
  it('is the same for the same seed and near the same for another', () => {
    const of = input(PETROL, BATTERY_60, 0.3, -8, null, HEAVY, 3000);
    expect(oddsOf(of, 1)).toEqual(oddsOf(of, 1));
    expect(Math.abs(oddsOf(of, 1).start - oddsOf(of, 2).start)).toBeLessThan(0.05);
  });

  it('gives an interval around its share that narrows with samples', () => {
    const few = oddsOf(input(PETROL, BATTERY_60, 0.35, -10, null, HEAVY, 200));
    const many = oddsOf(input(PETROL, BATTERY_60, 0.35, -10, null, HEAVY, 3200));
    expect(few.low).toBeLessThanOrEqual(few.start);
    expect(few.high).toBeGreaterThanOrEqual(few.start);
    expect(many.high - many.low).toBeLessThan(few.high - few.low);
  });

  it('never falls with section, charge or cleaner clamps, nor rises with length or cold, drawn alike', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.05, max: 0.4, noNaN: true }),
        fc.integer({ min: -18, max: 5 }),
        fc.integer({ min: 6, max: 30 }),
        (soc, tempC, sectionMm2) => {
          const leads: LeadSet = { sectionMm2, lengthM: 3, conductor: 'copper', contact: 'worn' };
          const odds = (s: number, t: number, l: LeadSet): number =>
            oddsOf(input(DIESEL, BATTERY_95, s, t, donor(t), l, 150)).start;
          const base = odds(soc, tempC, leads);
          expect(odds(soc, tempC, { ...leads, sectionMm2: sectionMm2 * 2 })).toBeGreaterThanOrEqual(base);
          expect(odds(soc, tempC, { ...leads, contact: 'clean' })).toBeGreaterThanOrEqual(base);
          expect(odds(soc + 0.2, tempC, leads)).toBeGreaterThanOrEqual(base);
          expect(odds(soc, tempC, { ...leads, lengthM: 5 })).toBeLessThanOrEqual(base);
          expect(odds(soc, tempC - 8, leads)).toBeLessThanOrEqual(base);
        },
      ),
      { numRuns: 15 },
    );
  });

  it('finds what matters: age where the battery cranks alone in the cold', () => {
    const { matters } = oddsOf(input(PETROL, BATTERY_60, 1, -18, null, HEAVY, 2000));
    expect(matters.ageing).toBeGreaterThan(matters.clamps);
    expect(matters.ageing).toBeGreaterThan(matters.charge);
    const sum = Object.values(matters).reduce((a, b) => a + b, 0);
    expect(sum).toBeGreaterThan(0.3);
    expect(sum).toBeLessThan(1.2);
  });

  it('stops when told to, and tells how far it is', () => {
    const told: number[] = [];
    const { rescue, batteries, engine } = input(PETROL, BATTERY_60, 0.5, 0);
    const stopped = startOdds({ rescue, beliefs: batteries }, engine, soundForTests(), (share) => {
      told.push(share);
      return told.length < 5;
    });
    expect(stopped).toBeNull();
    expect(told).toEqual([...told].sort((a, b) => a - b));
    expect(told.length).toBe(5);
  });

  it('refuses no samples at all', () => {
    expect(() => oddsOf(input(PETROL, BATTERY_60, 0.5, 0, null, HEAVY, 0))).toThrowError(/one machine/);
  });
});

describe('planCase', () => {
  const ranked = rankOptions(CAR, KIT, casualtyBatteries(CAR, [11.9], -4), -4, DEFAULT_RULES);

  it('draws from the reading’s band, and from a wide one when nothing was read', () => {
    const of = (rest: number | null): PlanCase =>
      planCase(CAR, ranked[0]!.option, casualtyBatteries(CAR, [rest], -4), -4, DEFAULT_RULES)!;
    const [read] = of(12.1).beliefs;
    const [assumed] = of(null).beliefs;
    expect(read!.socHigh - read!.socLow).toBeLessThan(assumed!.socHigh - assumed!.socLow);
  });

  it('has nothing to draw for a machine that wakes', () => {
    expect(planCase(EV, null, casualtyBatteries(EV, [12], 0), 0, DEFAULT_RULES)).toBeNull();
  });
});

describe('crankPoint in closed form', () => {
  it('is the same for one machine after many others over the same compiled circuit', () => {
    const rescue = {
      ...input(PETROL, BATTERY_60, 0.5, 0, donor(0)).rescue,
      casualty: [{ openVolts: 12.2, ohms: 0.01 }],
    };
    const solve = compileCrank(rescue, PETROL);
    for (const [openVolts, ohms, clampWear] of [
      [3, 0.9, 30],
      [12.8, 0.004, 1],
      [0.5, 0.2, 0.5],
    ] as const)
      expect(solve({ ...rescue, casualty: [{ openVolts, ohms }], clampWear })).toEqual(
        crankPoint({ ...rescue, casualty: [{ openVolts, ohms }], clampWear }, PETROL),
      );
    expect(solve(rescue)).toEqual(crankPoint(rescue, PETROL));
  });

  it('balances torque and drag', () => {
    const rescue = {
      ...input(PETROL, BATTERY_60, 0.5, 0, donor(0)).rescue,
      casualty: [{ openVolts: 12.2, ohms: 0.01 }],
    };
    const { efficiency, kVoltSeconds } = defaultStarter(PETROL);
    const { starterAmps, rpm } = crankPoint(rescue, PETROL);
    const drag = engineDragNm(PETROL, (rpm * Math.PI) / 30, rescue.tempC);
    expect(efficiency * kVoltSeconds * starterAmps).toBeCloseTo(drag, 6);
  });

  it('still finds the speed when an alternator comes off its limit on the way', () => {
    const strong: SourceModel = { ...donor(20), alternator: { volts: 12.9, maxAmps: 400 } };
    const rescue = {
      ...input(PETROL, BATTERY_60, 0.5, 20, strong).rescue,
      casualty: [{ openVolts: 12.2, ohms: 0.01 }],
    };
    const point = crankPoint(rescue, PETROL);
    const weaker = crankPoint({ ...rescue, source: donor(20) }, PETROL);
    expect(point.turns).toBeTrue();
    expect(point.rpm).toBeGreaterThan(weaker.rpm);
  });
});
