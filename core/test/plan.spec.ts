import fc from 'fast-check';
import { restVoltsAt } from '../src/battery/index.js';
import { CLAMP_OHMS } from '../src/leads/index.js';
import type { Machine } from '../src/machine/index.js';
import { beliefsWhileJoined, casualtyBatteries, startShare } from '../src/belief/index.js';
import {
  afterWait,
  leadGrid,
  leadRiseC,
  PLAN_INPUT_RANGES,
  type PlanCase,
  planCase,
  planInputs,
  rankOptions,
  type RankedOption,
  traceOf,
  waitCurve,
  whatHelps,
  withChanges,
} from '../src/plan/index.js';
import { DEFAULT_RULES, type HouseRules } from '../src/rules/index.js';
import { BATTERY_95, CAR, EV, KIT, MOTORCYCLE, TRUCK } from './fixtures.js';
import { soundForTests } from './population.js';

function ranked(
  machine: Machine,
  rest: (number | null)[],
  tempC: number,
  mainsNear = false,
  rules: HouseRules = DEFAULT_RULES,
): RankedOption[] {
  return rankOptions(machine, KIT, casualtyBatteries(machine, rest, tempC), tempC, rules, {
    mainsNear,
    donorMetres: null,
  });
}

function caseFor(machine: Machine, optionId: string, rest: (number | null)[], tempC: number): PlanCase {
  const batteries = casualtyBatteries(machine, rest, tempC);
  const found = ranked(machine, rest, tempC, true).find((r) => r.option.id === optionId)!;
  return planCase(machine, found.option, batteries, tempC, DEFAULT_RULES)!;
}

const start = (plan: PlanCase): number => startShare(afterWait(plan), plan.engine, soundForTests(300));

/** A diesel car: what waits and leads matter for. */
const DIESEL_CAR: Machine = {
  ...CAR,
  id: 'diesel',
  engine: { fuel: 'diesel', displacementL: 3, cylinders: 6, systemVolts: 12 },
  batteries: [{ ...CAR.batteries[0]!, rating: BATTERY_95 }],
};

describe('waiting on a donor', () => {
  it('never lowers the charge, and gives no more Ah than the alternator and the battery allow', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 11.2, max: 12.3, noNaN: true }),
        fc.integer({ min: -15, max: 20 }),
        (rest, tempC) => {
          const plan = caseFor(CAR, 'donor+heavy', [rest], tempC);
          const path = beliefsWhileJoined(plan.rescue, plan.beliefs, 8);
          const socs = path.map((b) => b[0]!.soc);
          expect(socs).toEqual([...socs].sort((a, b) => a - b));
          expect(path.length).toBe(9);
          // 60 A for 8 min is 8 Ah of 60, taken three times over as surface charge at the most.
          expect(socs.at(-1)! - socs[0]!).toBeLessThan((3 * 8) / 60 + 1e-9);
        },
      ),
      { numRuns: 20 },
    );
  });

  it('lifts an over-discharged battery towards its flat line before its charge counts', () => {
    const plan = caseFor(CAR, 'donor+heavy', [9], 5);
    const path = beliefsWhileJoined(plan.rescue, plan.beliefs, 15).map((b) => b[0]!);
    expect(path[0]!.overDischargedVolts).toBe(9);
    expect(path[1]!.overDischargedVolts!).toBeGreaterThan(9);
    expect(path[1]!.overDischargedVolts!).toBeLessThan(11.8);
    expect(path[1]!.soc).toBe(0);
    expect(path[15]!.overDischargedVolts).toBeUndefined();
    expect(path[15]!.soc).toBeGreaterThan(0);
  });

  it('has a curve that rises, with its knee where the best is two in a hundred away', () => {
    const plan = caseFor(DIESEL_CAR, 'donor+heavy', [11.75], -10);
    const curve = waitCurve(plan, 12, soundForTests(250))!;
    expect(curve.start.length).toBe(13);
    for (let t = 1; t < 13; t++) expect(curve.start[t]!).toBeGreaterThanOrEqual(curve.start[t - 1]! - 0.005);
    const best = Math.max(...curve.start);
    expect(curve.start[curve.kneeMinutes]!).toBeGreaterThan(best - 0.02);
    if (curve.kneeMinutes > 0) expect(curve.start[curve.kneeMinutes - 1]!).toBeLessThanOrEqual(best - 0.02);
  });

  it('names its shape: at once with a part-charged car, no supply with a pack, no use through thread', () => {
    expect(waitCurve(caseFor(CAR, 'donor+heavy', [12.3], 10), 5, soundForTests(100))!.shape).toBe('at-once');
    expect(waitCurve(caseFor(CAR, 'lithium@12', [11.9], 0), 5, soundForTests(100))!.shape).toBe('no-supply');
    const thread = withChanges(caseFor(DIESEL_CAR, 'donor+light', [11.75], -18), { sectionMm2: 2 });
    expect(waitCurve(thread, 5, soundForTests(100))!.shape).toBe('no-use');
  });

  it('3.0 L diesel, flat 800 A battery, -10 degC, 50 mm2 x 4.5 m and 5 min: odds over one half', () => {
    const plan = withChanges(caseFor(DIESEL_CAR, 'donor+heavy', [11.76], -10), {
      sectionMm2: 50,
      leadLengthM: 4.5,
      waitMinutes: 5,
    });
    expect(start(plan)).toBeGreaterThan(0.5);
  });

  it('stops when told to', () => {
    expect(waitCurve(caseFor(CAR, 'donor+heavy', [11.9], 0), 5, soundForTests(50), () => false)).toBeNull();
  });
});

describe('leadGrid', () => {
  const plan = caseFor(DIESEL_CAR, 'donor+light', [11.76], -8);
  const cells = leadGrid(plan, soundForTests(60))!;

  it('holds every section, length and material once', () => {
    expect(cells.length).toBe(50);
    expect(new Set(cells.map((c) => `${c.sectionMm2} ${c.lengthM} ${c.conductor}`)).size).toBe(50);
  });

  it('never gives a thinner, longer or clad set more volts or better odds', () => {
    for (const a of cells) {
      for (const b of cells) {
        const isNoWorse =
          a.sectionMm2 >= b.sectionMm2 &&
          a.lengthM <= b.lengthM &&
          (a.conductor === 'copper' || b.conductor !== 'copper');
        if (!isNoWorse) continue;
        expect(a.starterVolts).toBeGreaterThanOrEqual(b.starterVolts - 1e-6);
        expect(a.odds).toBeGreaterThanOrEqual(b.odds - 0.02);
      }
    }
  });

  it('warms by I2 R t over its heat: 25 mm2 x 3.5 m copper, 200 A for 10 s at 20 degC', () => {
    const set = { sectionMm2: 25, lengthM: 3.5, conductor: 'copper', contact: 'clean' } as const;
    // 0.965 V x 200 A x 10 s into 2 x 3.5 m x 25 mm2 of copper.
    expect(leadRiseC(set, 200, 10, 20)).toBeCloseTo((0.9654 * 200 * 10) / (2 * 3.5 * 25e-6 * 3.45e6), 2);
  });

  it('has nothing to say without leads', () => {
    expect(leadGrid({ ...plan, rescue: { ...plan.rescue, leads: null } }, soundForTests(10))).toBeNull();
  });
});

describe('whatHelps', () => {
  it('names heavier leads for a diesel on thin clad ones, best first, each a real gain', () => {
    const plan = caseFor(DIESEL_CAR, 'donor+light', [11.9], -5);
    const gains = whatHelps(plan, start(plan), soundForTests(300));
    expect(gains.map((g) => g.help)).toContain('heavier-leads');
    expect(gains.map((g) => g.gain)).toEqual(gains.map((g) => g.gain).sort((a, b) => b - a));
    for (const { odds, gain } of gains) {
      expect(gain).toBeGreaterThanOrEqual(0.01);
      expect(odds).toBeCloseTo(start(plan) + gain, 9);
    }
  });

  it('has nothing to offer where it starts anyway', () => {
    const plan = caseFor(CAR, 'donor+heavy', [12.3], 20);
    expect(whatHelps(plan, start(plan), soundForTests(300))).toEqual([]);
  });
});

describe('plan inputs', () => {
  const plan = caseFor(CAR, 'donor+light', [11.9], -4);
  const from = { soc: 'typed', tempC: 'scene' } as const;

  it('tell each figure and where it came from, all inside their ranges', () => {
    const inputs = planInputs(plan, from);
    expect(inputs.find((i) => i.key === 'soc')!.origin).toBe('typed');
    expect(inputs.find((i) => i.key === 'sectionMm2')).toEqual({
      key: 'sectionMm2',
      value: 10,
      origin: 'kit',
    });
    expect(inputs.find((i) => i.key === 'ageing')!.origin).toBe('assumed');
    for (const { key, value } of inputs) {
      expect(value).toBeGreaterThanOrEqual(PLAN_INPUT_RANGES[key].min);
      expect(value).toBeLessThanOrEqual(PLAN_INPUT_RANGES[key].max);
    }
  });

  it('changed by hand come back as they were given, and changed to themselves change nothing', () => {
    const changed = withChanges(plan, {
      soc: 0.4,
      sectionMm2: 35,
      clampOhms: 0.002,
      tempC: 3,
      waitMinutes: 7,
    });
    const value = (key: string): number => planInputs(changed, from).find((i) => i.key === key)!.value;
    expect(value('soc')).toBe(0.4);
    expect(value('sectionMm2')).toBe(35);
    expect(value('clampOhms')).toBeCloseTo(0.002, 12);
    expect(value('tempC')).toBe(3);
    expect(value('waitMinutes')).toBe(7);
    const same = Object.fromEntries(planInputs(plan, from).map((i) => [i.key, i.value]));
    const belief = plan.beliefs[0]!;
    expect(planInputs(withChanges(plan, same), from).map((i) => i.value)).toEqual(
      planInputs(plan, from).map((i) => i.value),
    );
    expect(withChanges(plan, {}).beliefs[0]).toEqual(belief);
    expect(CLAMP_OHMS.worn).toBe(0.001);
  });

  it('refuse what is not physical, with the range', () => {
    expect(() => withChanges(plan, { leadLengthM: -1 })).toThrowError(
      /leadLengthM must be between 0.1 and 30 m/,
    );
    expect(() => withChanges(plan, { soc: NaN })).toThrowError(/must be a number/);
  });
});

describe('the whole kit, ranked', () => {
  const of = (list: readonly RankedOption[], id: string): RankedOption =>
    list.find((r) => r.option.id === id)!;

  it('offers a mains charger only near a socket, and after what starts at once', () => {
    expect(of(ranked(CAR, [11.8], -4), 'charger@12').unfit).toEqual({ code: 'no-mains' });
    const near = ranked(CAR, [11.8], 15, true);
    const charger = of(near, 'charger@12');
    expect(charger.unfit).toBeNull();
    expect(charger.chargeMinutes).toBe(30);
    expect(charger.crank!.sourceAmps).toBe(0);
    expect(near.indexOf(charger)).toBeGreaterThan(near.indexOf(of(near, 'donor+heavy')));
    // Half an hour lifts a flat battery enough to turn the engine by itself.
    const alone = planCase(CAR, null, casualtyBatteries(CAR, [11.8], 15), 15, DEFAULT_RULES)!;
    expect(charger.crank!.rpm).toBeGreaterThan(20);
    // A crank too slow by its figures still catches six times in a hundred.
    expect(start(alone)).toBeLessThan(0.08);
  });

  it('lets an engine-start charger stay on: it carries part of the crank, never more than its amps', () => {
    const starts = of(ranked(CAR, [11.8], 15, true), 'starter-charger@12');
    expect(starts.crank!.sourceAmps).toBeGreaterThan(100);
    expect(starts.crank!.sourceAmps).toBeLessThanOrEqual(150.01);
  });

  it('an ordinary charger refuses a battery under its sense voltage', () => {
    expect(of(ranked(CAR, [3], 5, true), 'charger@12').unfit).toEqual({
      code: 'sense',
      restVolts: 3,
      senseVolts: 4,
    });
  });

  it('keeps hobby lithium off unless the house rule allows it, and then within its amps', () => {
    expect(of(ranked(CAR, [11.8], 0), 'hobby@12').unfit).toEqual({ code: 'house-rule' });
    const rules: HouseRules = { ...DEFAULT_RULES, hobbyLithium: 'allowed' };
    const strained = of(ranked(CAR, [11.8], 0, false, rules), 'hobby@12');
    expect(strained.unfit).toEqual(jasmine.objectContaining({ code: 'over-current', maxAmps: 100 }));
    const small = of(ranked(MOTORCYCLE, [12], 10, false, rules), 'hobby@12');
    expect(small.unfit).toBeNull();
  });

  it('puts one spare battery across one battery of a string, two in series across the whole, never one across the whole', () => {
    const list = ranked(TRUCK, [11.75, 12.6], -2);
    expect(of(list, 'spares@12+heavy').unfit).toEqual(jasmine.objectContaining({ code: 'voltage' }));
    expect(of(list, 'spares@12+heavy#battery0').unfit).toBeNull();
    expect(of(list, 'spares@24+heavy').unfit).toBeNull();
    expect(of(list, 'spares@24+heavy').option.source.openVolts).toBeCloseTo(
      2 * restVoltsAt('flooded', 0.95, -2),
      6,
    );
  });

  it('wakes an EV from what is steady, never from a bank or an ordinary charger', () => {
    const list = ranked(EV, [10.2], 0, true);
    expect(of(list, 'cap@12').unfit).toEqual({ code: 'unsteady' });
    expect(of(list, 'charger@12').unfit).toEqual({ code: 'unsteady' });
    expect(of(list, 'lead@12').outlook).toBe('wakes');
  });
});

describe('traceOf', () => {
  it('follows the crank after the wait: a charged battery dips less', () => {
    const plan = caseFor(CAR, 'donor+heavy', [11.6], -4);
    const waited = traceOf({ ...plan, waitMinutes: 10 }, 2);
    const at0 = traceOf({ ...plan, waitMinutes: 0 }, 2);
    expect(waited.dipVolts).toBeGreaterThan(at0.dipVolts);
    expect(waited.seconds.length).toBe(2000);
  });
});
