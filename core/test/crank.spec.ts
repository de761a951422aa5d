import fc from 'fast-check';
import { batteryOhms, batteryOpenVolts, type BatteryRating } from '../src/battery/index.js';
import { type ModelBattery, type Rescue, rescueCircuit, solveDc, voltsAcross } from '../src/circuit/index.js';
import { crankPoint, whileCranking } from '../src/crank/index.js';
import { type Engine, neededRpm } from '../src/engine/index.js';
import type { LeadSet } from '../src/leads/index.js';
import { casualtyBatteries } from '../src/belief/index.js';
import { outlookOf, rankOptions } from '../src/plan/index.js';
import { DEFAULT_RULES } from '../src/rules/index.js';
import type { SourceModel } from '../src/sources/index.js';
import { BATTERY_60, BATTERY_95, CAR, EV, FREE, JOINED, KIT, MOTORCYCLE, TRUCK } from './fixtures.js';

const PETROL: Engine = { fuel: 'petrol', displacementL: 1.6, cylinders: 4, systemVolts: 12 };
const DIESEL: Engine = { fuel: 'diesel', displacementL: 3, cylinders: 6, systemVolts: 12 };

function battery(rating: BatteryRating, soc: number, tempC: number, ageing = 1): ModelBattery {
  const state = { soc, tempC, ageing };
  return { openVolts: batteryOpenVolts(rating, state), ohms: batteryOhms(rating, state) };
}

function rescue(
  batteries: readonly ModelBattery[],
  tempC: number,
  source?: SourceModel,
  leads?: LeadSet,
): Rescue {
  return {
    casualty: batteries,
    load: { kind: 'none' },
    source: source ?? null,
    sourceOn: true,
    leads: leads ?? null,
    tempC,
    clamps: source ? JOINED : FREE,
  };
}

const donor = (tempC: number): SourceModel => ({
  openVolts: batteryOpenVolts(BATTERY_95, { soc: 0.95, tempC, ageing: 1.2 }),
  ohms: batteryOhms(BATTERY_95, { soc: 0.95, tempC, ageing: 1.2 }),
  alternator: { volts: 14.2, maxAmps: 60 },
});
const HEAVY: LeadSet = { sectionMm2: 25, lengthM: 3.5, conductor: 'copper', contact: 'clean' };

describe('crankPoint, at the stated plausible conditions', () => {
  it('1.6 L petrol on a full 60 Ah battery at 25 degC', () => {
    const point = crankPoint(rescue([battery(BATTERY_60, 1, 25)], 25), PETROL);
    expect(point.postVolts).toBeGreaterThan(10.5);
    expect(point.postVolts).toBeLessThan(12.1);
    expect(point.starterAmps).toBeGreaterThan(100);
    expect(point.starterAmps).toBeLessThan(180);
    expect(point.rpm).toBeGreaterThan(200);
    expect(point.rpm).toBeLessThan(290);
  });

  it('the same at -18 degC: slower, harder, still starting', () => {
    const point = crankPoint(rescue([battery(BATTERY_60, 1, -18)], -18), PETROL);
    expect(point.postVolts).toBeGreaterThan(9);
    expect(point.postVolts).toBeLessThan(10.6);
    expect(point.starterAmps).toBeGreaterThan(190);
    expect(point.starterAmps).toBeLessThan(300);
    expect(point.rpm).toBeGreaterThan(110);
    expect(point.rpm).toBeLessThan(190);
    expect(outlookOf(point)).toBe('cranks');
  });

  it('at a tenth of charge and -10 degC: under 8 V, not expected to start', () => {
    const point = crankPoint(rescue([battery(BATTERY_60, 0.1, -10)], -10), PETROL);
    expect(point.postVolts).toBeLessThan(8);
    expect(outlookOf(point)).toBe('low-volts');
  });

  it('flat at 0 degC does not turn; with a donor through 25 mm2 x 3.5 m it cranks', () => {
    const flat = [battery(BATTERY_60, 0.02, 0)];
    expect(crankPoint(rescue(flat, 0), PETROL).turns).toBeFalse();
    expect(outlookOf(crankPoint(rescue(flat, 0, donor(0), HEAVY), PETROL))).toBe('cranks');
  });

  it('3.0 L diesel, flat, -10 degC: thin clad leads do not start it, 50 mm2 copper does', () => {
    const flat = [battery(BATTERY_95, 0.02, -10)];
    const thin: LeadSet = { sectionMm2: 10, lengthM: 3, conductor: 'copper-clad-aluminium', contact: 'worn' };
    const thick: LeadSet = { sectionMm2: 50, lengthM: 4.5, conductor: 'copper', contact: 'clean' };
    expect(outlookOf(crankPoint(rescue(flat, -10, donor(-10), thin), DIESEL))).not.toBe('cranks');
    expect(outlookOf(crankPoint(rescue(flat, -10, donor(-10), thick), DIESEL))).toBe('cranks');
  });

  it('a 12 V battery across the flat one of a 24 V string lifts the starter by 6 V or more', () => {
    const engine = TRUCK.engine!;
    const string = [battery(BATTERY_95, 0.02, 0), battery(BATTERY_95, 0.9, 0)];
    const alone = crankPoint(rescue(string, 0), engine);
    const helper: SourceModel = {
      openVolts: 12.6,
      ohms: batteryOhms(BATTERY_95, { soc: 0.95, tempC: 0, ageing: 1.2 }),
    };
    const helped = crankPoint(rescue(string, 0, helper, HEAVY), engine);
    expect(helped.starterVolts - alone.starterVolts).toBeGreaterThan(6);
  });

  it('balances at the starter: its volts are its drop and its back-EMF', () => {
    const point = crankPoint(rescue([battery(BATTERY_60, 0.8, 10)], 10), PETROL);
    const locked = crankPoint(
      rescue([battery(BATTERY_60, 0.8, 10)], 10),
      { ...PETROL, displacementL: 12 },
      {
        ohms: 0.012,
        kVoltSeconds: 0.1,
        efficiency: 0.75,
        controlMinVolts: 8,
      },
    );
    expect(locked.turns).toBeFalse();
    expect(locked.starterVolts).toBeCloseTo(locked.starterAmps * 0.012, 6);
    expect(point.starterVolts).toBeGreaterThan(point.starterAmps * 0.012);
  });
});

describe('crankPoint, the monotone laws', () => {
  const socs = fc.double({ min: 0.15, max: 0.9, noNaN: true });
  const temps = fc.integer({ min: -18, max: 30 });
  const sections = fc.integer({ min: 10, max: 70 });
  const lengths = fc.double({ min: 1, max: 6, noNaN: true });
  const rpm = (soc: number, tempC: number, ageing: number, leads: LeadSet): number =>
    crankPoint(rescue([battery(BATTERY_60, soc, tempC, ageing)], tempC, donor(tempC), leads), PETROL).rpm;

  it('more section, charge and cleaner clamps never slow it; longer leads and age never speed it', () => {
    fc.assert(
      fc.property(socs, temps, sections, lengths, (soc, tempC, sectionMm2, lengthM) => {
        const leads: LeadSet = { sectionMm2, lengthM, conductor: 'copper', contact: 'worn' };
        const base = rpm(soc, tempC, 1.5, leads);
        const slack = 1e-3;
        expect(rpm(soc, tempC, 1.5, { ...leads, sectionMm2: sectionMm2 + 10 })).toBeGreaterThanOrEqual(
          base - slack,
        );
        expect(rpm(soc + 0.1, tempC, 1.5, leads)).toBeGreaterThanOrEqual(base - slack);
        expect(rpm(soc, tempC, 1.5, { ...leads, contact: 'clean' })).toBeGreaterThanOrEqual(base - slack);
        expect(rpm(soc, tempC, 1.5, { ...leads, lengthM: lengthM + 1 })).toBeLessThanOrEqual(base + slack);
        expect(rpm(soc, tempC, 2, leads)).toBeLessThanOrEqual(base + slack);
      }),
      { numRuns: 40 },
    );
  });

  it('cold never lowers what is needed nor raises what is had', () => {
    fc.assert(
      fc.property(socs, temps, (soc, tempC) => {
        expect(neededRpm(PETROL, tempC - 5)).toBeGreaterThanOrEqual(neededRpm(PETROL, tempC));
        expect(rpm(soc, tempC - 5, 1, HEAVY)).toBeLessThanOrEqual(rpm(soc, tempC, 1, HEAVY) + 1e-3);
      }),
      { numRuns: 40 },
    );
  });
});

describe('whileCranking', () => {
  it('is the circuit of the steady crank: the same volts at the starter and the same amps through it', () => {
    const alone = rescue([battery(BATTERY_60, 0.8, 5)], 5);
    const point = crankPoint(alone, PETROL);
    const solved = solveDc(rescueCircuit(whileCranking(alone, PETROL)));
    expect(voltsAcross(solved, 'casualty.starter', 'casualty.body')).toBeCloseTo(point.starterVolts, 6);
    expect(-solved.amps.get('starter')!).toBeCloseTo(point.starterAmps, 4);
  });
});

describe('rankOptions', () => {
  const ranked = (machine: typeof CAR, rest: (number | null)[], tempC = -4) =>
    rankOptions(machine, KIT, casualtyBatteries(machine, rest, tempC), tempC, DEFAULT_RULES);

  it('puts the heavy set before the light one and every fitting source before the unfit', () => {
    const ids = ranked(CAR, [11.8]).map((r) => r.option.id);
    expect(ids.indexOf('donor+heavy')).toBeLessThan(ids.indexOf('donor+light'));
    const fits = ranked(CAR, [11.8]).map((r) => r.unfit === null);
    expect(fits).toEqual([...fits].sort((a, b) => Number(b) - Number(a)));
  });

  it('refuses 24 V on a 12 V car, and blames the thin leads where they hold it back', () => {
    const all = ranked(CAR, [11.8]);
    expect(all.find((r) => r.option.id === 'lead@24')?.unfit?.code).toBe('voltage');
    expect(all.find((r) => r.option.id === 'donor+light')?.limitedBy).toBe('leads');
  });

  it('keeps a lithium pack off a casualty below its sense voltage', () => {
    expect(ranked(CAR, [1.4], 10).find((r) => r.option.id === 'lithium@12')?.unfit?.code).toBe('sense');
    expect(ranked(CAR, [null], 10).find((r) => r.option.id === 'lithium@12')?.unfit).toBeNull();
  });

  it('helps one battery of a string only when the other is known and sound', () => {
    const across = (rest: (number | null)[]) =>
      ranked(TRUCK, rest).find((r) => r.option.id.startsWith('lead@12#battery'))!;
    expect(across([null, null]).unfit?.code).toBe('batteries-unread');
    expect(across([11.9, 11.85]).unfit?.code).toBe('other-battery-weak');
    const fit = across([11.7, 12.6]);
    expect(fit.unfit).toBeNull();
    expect(fit.option.across).toEqual({ kind: 'battery', battery: 0 });
  });

  it('offers a still donor to what wakes and to a motorcycle, a running one to a car', () => {
    expect(ranked(CAR, [11.8]).find((r) => r.option.sourceKind === 'donor')?.option.donorRuns).toBeTrue();
    expect(ranked(EV, [11.8]).find((r) => r.option.sourceKind === 'donor')?.option.donorRuns).toBeFalse();
    expect(
      ranked(MOTORCYCLE, [11.8]).find((r) => r.option.sourceKind === 'donor')?.option.donorRuns,
    ).toBeFalse();
  });

  it('judges a wake-up by steady volts, and offers no capacitor for it', () => {
    const all = ranked(EV, [11]);
    expect(all.find((r) => r.option.id === 'lead@12')?.outlook).toBe('wakes');
    expect(all.find((r) => r.option.sourceKind === 'capacitor-booster')?.unfit?.code).toBe('unsteady');
  });
});
