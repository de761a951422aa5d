import { bankFarads, type BatteryRating } from '../src/battery/index.js';
import { afterJoined, chargeJoined, judgeCharge, maintaining, revive } from '../src/charging/index.js';
import { aloneRescue, modelBattery, type Rescue } from '../src/circuit/index.js';
import { crankPoint, simulateCrank, toSpice } from '../src/crank/index.js';
import { priorsFor, restMeaning } from '../src/diagnosis/index.js';
import { fittingOrder, orderHazards, safestOrder, takeOutOrder } from '../src/hookup/index.js';
import { dataFaults, type Machine } from '../src/machine/index.js';
import { casualtyBatteries } from '../src/belief/index.js';
import { DEFAULT_RULES } from '../src/rules/index.js';
import { bankCondition, chargePlan } from '../src/verdict/index.js';
import { CAR, JOINED, KIT } from './fixtures.js';
import { runNgspice, sampleAt } from './ngspice.js';
import { optionNamed, sceneFor } from './scenes.js';

/** Six cells of 1,200 F: 200 F, 0.8 Ah between nothing and 14.4 V. */
const BANK: BatteryRating = { chemistry: 'capacitor', capacityAh: 0.8, ccaAmps: 1200, ccaStandard: 'SAE' };
const BANKED: Machine = { ...CAR, batteries: [{ ...CAR.batteries[0]!, rating: BANK }] };
const ENGINE = CAR.engine!;
const WARM_C = 25;
const at = (volts: number, tempC = WARM_C) => ({ soc: volts / 14.4, tempC, ageing: 1 });

describe('a capacitor bank as the machine’s own battery', () => {
  it('has the farads, the volts and the resistance of its figures', () => {
    expect(bankFarads(BANK)).toBeCloseTo(200, 9);
    const { openVolts, ohms, farads } = modelBattery(BANK, at(12, -18));
    expect(openVolts).toBeCloseTo(12, 9);
    // 1,200 A pull 14.4 V down to 7.2 V: 6 mOhm, at any charge.
    expect(ohms).toBeCloseTo(0.006, 9);
    expect(modelBattery(BANK, at(6, -18)).ohms).toBeCloseTo(0.006, 9);
    expect(farads).toBeCloseTo(200, 9);
  });

  it('falls in a crank by what it gives, as the same bank of farads does, and as ngspice has it', () => {
    const rescue = aloneRescue([modelBattery(BANK, at(13.5, 5))], 5);
    const known = { rescue, engine: ENGINE, seconds: 3 };
    const trace = simulateCrank({ ...known, batteries: [{ rating: BANK, state: at(13.5, 5) }] });
    const { ohms } = rescue.casualty[0]!;
    const plain = simulateCrank({
      ...known,
      batteries: [{ bank: { farads: 200, esrOhms: ohms, maxVolts: 16 }, volts: 13.5 }],
    });
    const last = trace.postVolts.length - 1;
    const given = trace.starterAmps.reduce((sum, amps) => sum + amps * trace.stepSeconds, 0);
    expect(trace.postVolts[last]!).toBeCloseTo(plain.postVolts[last]!, 2);
    // Terminal volts: what is left of the charge, less what its resistance takes.
    expect(13.5 - given / 200 - trace.starterAmps[last]! * ohms).toBeCloseTo(trace.postVolts[last]!, 1);
    const spice = runNgspice(toSpice({ ...known, batteries: [{ rating: BANK, state: at(13.5, 5) }] }));
    const theirs = sampleAt(spice.get('time')!, spice.get('v(casualty_starter)')!, trace.seconds[last]!);
    expect(Math.abs(trace.starterVolts[last]! - theirs)).toBeLessThan(0.02);
  });

  it('is judged in the middle of a crank, not as if it held its volts', () => {
    const model = modelBattery(BANK, at(13.5, 5));
    const point = crankPoint(aloneRescue([model], 5), ENGINE);
    const steady = crankPoint(aloneRescue([{ openVolts: model.openVolts, ohms: model.ohms }], 5), ENGINE);
    const trace = simulateCrank({
      rescue: aloneRescue([model], 5),
      engine: ENGINE,
      seconds: 2,
      batteries: [{ rating: BANK, state: at(13.5, 5) }],
    });
    const second = trace.postVolts[Math.round(1 / trace.stepSeconds)]!;
    expect(point.postVolts).toBeLessThan(steady.postVolts - 0.4);
    expect(Math.abs(point.postVolts - second)).toBeLessThan(0.6);
  });

  it('is filled through leads towards its source, never past it, and what goes in is in it', () => {
    const { option } = sceneFor(BANKED, optionNamed(BANKED, 'donor+heavy', [11]), [11]);
    const rescue: Rescue = {
      casualty: [modelBattery(BANK, at(4))],
      load: { kind: 'none' },
      source: { openVolts: 12.7, ohms: 0.01 },
      sourceOn: true,
      leads: option.leads,
      tempC: WARM_C,
      clamps: JOINED,
    };
    const path = chargeJoined(rescue, [{ rating: BANK, state: at(4) }], 2);
    const volts = path.map(([state]) => state!.soc * 14.4);
    expect(volts[1]!).toBeGreaterThan(12);
    expect(Math.max(...volts)).toBeLessThan(12.7);
    expect(volts[2]!).toBeGreaterThan(volts[1]!);
    // However much rushes in: it has no plates to warm.
    expect(afterJoined(rescue, [{ rating: BANK, state: at(4) }], 2)).toEqual({
      states: path[2]!,
      warmedK: [0],
    });
  });

  it('reads as a bank: spent below the cut-off, nothing dead or frozen about 9 V, too high above its cells', () => {
    const code = (volts: number): string => restMeaning('capacitor', volts, -25, DEFAULT_RULES).code;
    expect(code(0.2)).toBe('bank-spent');
    expect(code(9)).toBe('bank-spent');
    expect(code(11)).toBe('part-charged');
    expect(code(13.8)).toBe('charged');
    expect(code(15.6)).toBe('bank-over');
    expect(code(-3)).toBe('reversed');
    expect(restMeaning('capacitor', 9, -25, DEFAULT_RULES).freezeC).toBeNull();
  });

  it('tells its cranks, how long it holds, and how soon it is full', () => {
    const now = bankCondition(BANKED, 13.5, 5, DEFAULT_RULES)!;
    const lower = bankCondition(BANKED, 11, 5, DEFAULT_RULES)!;
    expect(now.cranks).toBeGreaterThan(lower.cranks);
    // 140 W at 12 V are 11.7 A: 200 F from 13.5 to 10.5 V hold 51 s, less what it leaks.
    expect(now.minutesOn.headlamps).toBeCloseTo((200 * 3) / (140 / 12) / 60, 2);
    expect(now.minutesToFull.converter).toBeCloseTo((200 * 0.9) / 10 / 60, 9);
    expect(now.minutesToFull.solar).toBeCloseTo(2 * now.minutesToFull.converter, 9);
    expect(lower.minutesToFull.converter).toBeCloseTo((200 * 3.4) / 10 / 60, 9);
    expect(bankCondition(CAR, 12.5, 5, DEFAULT_RULES)).toBeNull();
    expect(bankCondition(BANKED, 9, 5, DEFAULT_RULES)!.cranks).toBe(0);
  });

  it('has none of the faults of plates, and no guard', () => {
    const priors = priorsFor({
      machineClass: 'car',
      systemVolts: 12,
      engine: ENGINE,
      rating: BANK,
      tempC: 0,
    });
    for (const cause of ['sulphated', 'dead-cell', 'frozen', 'guard-open'] as const)
      expect(priors.get(cause) ?? 0)
        .withContext(cause)
        .toBe(0);
    expect([...priors.values()].reduce((a, b) => a + b, 0)).toBeCloseTo(1, 9);
  });

  it('is charged by any charger that holds its volts, in minutes and where it is', () => {
    const plan = chargePlan(BANKED.batteries[0]!, 9 / 14.4, 9, 5, KIT, DEFAULT_RULES);
    const charger = plan.chargers.find(({ unfit }) => unfit === null)!;
    // 200 F from 9 V to 98 % of 14.4 V at the charger's amps.
    expect(charger.hours! * 3600).toBeCloseTo((200 * (0.98 * 14.4 - 9)) / charger.amps, 3);
    expect(plan.place).toBe('at-the-points');
    expect(plan.reviveRefusedByHouse).toBeFalse();
    const { minutes, refused } = revive(BANK, 3, 12.6, 10.5, 2.6, 5);
    expect(minutes).toBeCloseTo((2.6 * 200 * Math.log(9.6 / 2.1)) / 60, 9);
    expect(refused).toBeNull();
    expect(
      judgeCharge(
        { rating: BANK, fromSoc: 0.3, toSoc: 0.98, tempC: 5, minutes: 4, setAmps: 10 },
        { volts: 14.4, amps: 0.1, isWarm: false },
      ).state,
    ).toBe('full');
    // 2 % a day by itself, and what sleeps on it: down within hours.
    expect(maintaining(BANK, 0.025).daysJoined).toBe(0);
  });

  it('rushes when it is joined empty, and that is no short', () => {
    const option = optionNamed(BANKED, 'donor+heavy', [2]);
    const scene = sceneFor(BANKED, option, [2]);
    const found = orderHazards(scene, safestOrder(scene, 0, DEFAULT_RULES), DEFAULT_RULES).flat();
    const codes = found.map(({ code }) => code);
    expect(codes).toContain('unequal-sources');
    expect(codes).not.toContain('dead-short');
    expect(codes).not.toContain('over-charges-battery');
  });

  it('is formed and balanced before it goes in, and only when it is new', () => {
    const { models } = casualtyBatteries(BANKED, [12], 5);
    const steps = fittingOrder(BANKED, models, 0, 5).map(({ step }) => step);
    expect(steps.slice(0, 2)).toEqual(['fill-cells', 'balance-cells']);
    expect(steps).toContain('cut-off');
    const back = takeOutOrder(BANKED, models, 0, 5).map(({ step }) => step);
    expect(back).not.toContain('fill-cells');
    expect(back).not.toContain('rest-outside');
    expect(back).toContain('test-outside');
    expect(
      fittingOrder(CAR, casualtyBatteries(CAR, [12], 5).models, 0, 5).map(({ step }) => step),
    ).not.toContain('balance-cells');
  });

  it('is told from a mistyped battery', () => {
    expect(dataFaults(BANKED)).toEqual([]);
    const wrong = { ...BANKED.batteries[0]!, rating: { ...BANK, capacityAh: 60 } };
    expect(dataFaults({ ...BANKED, batteries: [wrong] }).map(({ code }) => code)).toEqual([
      'rating-unlikely',
    ]);
  });
});
