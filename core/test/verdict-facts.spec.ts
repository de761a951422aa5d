import { restVoltsAt } from '../src/battery/index.js';
import type { Chemistry } from '../src/battery/index.js';
import { crankLimitVolts, type DiagnosisEvidence } from '../src/diagnosis/index.js';
import { DEFAULT_RULES } from '../src/rules/index.js';
import type { KitItem } from '../src/sources/index.js';
import {
  barOf,
  type Case,
  chargePlan,
  isJudgeable,
  isKnownFlat,
  misfitsOf,
  proofOf,
  replacementNeed,
  showsSound,
  silentVolts,
  strengthTrend,
} from '../src/verdict/index.js';
import { BATTERY_60, CAR, TRUCK } from './fixtures.js';

const CHARGED = restVoltsAt('flooded', 0.95, 20);
const FLAT = restVoltsAt('flooded', 0.3, 20);
const facts = (restVolts: readonly (number | null)[], more: Partial<Case> = {}): Case => ({
  chemistry: 'flooded',
  wakes: false,
  tempC: 20,
  stops: [],
  restVolts,
  earlierFlatCalls: 0,
  diedInService: false,
  ...more,
});
const found = (
  check: DiagnosisEvidence['check'],
  what: string | number,
  battery?: number,
): DiagnosisEvidence => ({
  check,
  found: what,
  ...(battery !== undefined && { battery }),
});
const proof = (evidence: readonly DiagnosisEvidence[], at = facts([CHARGED])) =>
  proofOf(evidence, at, DEFAULT_RULES);

describe('what proves a battery spent or worn', () => {
  it('is a low cell at any charge, and a charger that is full at once from flat alone', () => {
    expect(proof([found('specific-gravity', 'one-cell-low')], facts([FLAT]))).toBe('spent');
    expect(proof([found('specific-gravity', 'even-low')])).toBeNull();
    expect(proof([found('acceptance', 'full-at-once')], facts([FLAT]))).toBe('spent');
    expect(proof([found('acceptance', 'full-at-once')])).toBeNull();
    expect(proof([found('acceptance', 'takes-hours')], facts([FLAT]))).toBeNull();
  });

  it('is a figure of a charged battery: far down it is spent, a little down it is worn', () => {
    const below = DEFAULT_RULES.crankMinimumBadVolts - crankLimitVolts(20, 12);
    const rows: readonly (readonly [DiagnosisEvidence, 'spent' | 'worn' | null])[] = [
      [found('conductance', 0.4), 'spent'],
      [found('conductance', 0.75), 'worn'],
      [found('conductance', 0.85), null],
      [found('crank', below - 0.01), 'spent'],
      [found('crank', below + 0.01), 'worn'],
      [found('crank', -0.01), 'worn'],
      [found('crank', 0), null],
      [found('load-test', -0.2), 'worn'],
      [found('load-test', 0.2), null],
      [found('key-on', 3.1), 'spent'],
      [found('key-on', 2.9), null],
    ];
    for (const [evidence, what] of rows) {
      expect(proof([evidence]))
        .withContext(JSON.stringify(evidence))
        .toBe(what);
      // Discharged is not the same as bad.
      expect(proof([evidence], facts([FLAT])))
        .withContext(`flat: ${JSON.stringify(evidence)}`)
        .toBeNull();
      expect(proof([evidence], facts([null])))
        .withContext(`unread: ${JSON.stringify(evidence)}`)
        .toBeNull();
    }
  });

  it('is no figure a little low while another test of the same battery holds up well', () => {
    expect(proof([found('conductance', 0.75), found('crank', 1)])).toBeNull();
    expect(proof([found('conductance', 0.75), found('load-test', 1.2)])).toBeNull();
    expect(proof([found('conductance', 0.75), found('crank', 0.9)])).toBe('worn');
    expect(proof([found('conductance', 0.4), found('crank', 1.5)])).toBe('spent');
  });

  it('is charge that was gone a day after it was full', () => {
    expect(proof([], facts([FLAT], { isRested: true }))).toBe('spent');
    expect(proof([], facts([FLAT]))).toBeNull();
    expect(proof([], facts([null], { isRested: true }))).toBeNull();
    expect(proof([], facts([CHARGED], { isRested: true }))).toBeNull();
  });

  it('of a string is each battery’s own, the strongest of them', () => {
    const both = facts([CHARGED, CHARGED]);
    expect(proof([found('conductance', 0.75, 0), found('conductance', 0.4, 1)], both)).toBe('spent');
    expect(proof([found('conductance', 0.75, 1)], both)).toBe('worn');
    // By the charge of the one it was read of.
    const one = facts([FLAT, CHARGED]);
    expect(proof([found('conductance', 0.4, 0)], one)).toBeNull();
    expect(proof([found('conductance', 0.4, 1)], one)).toBe('spent');
    expect(
      showsSound([found('conductance', 0.9, 0), found('conductance', 0.9, 1)], both, DEFAULT_RULES),
    ).toBeTrue();
    expect(showsSound([found('conductance', 0.9, 0)], both, DEFAULT_RULES)).toBeFalse();
  });

  it('has its opposite: a tester at any charge, a load or a crank of a charged battery', () => {
    const sound = (evidence: DiagnosisEvidence, volts = CHARGED): boolean =>
      showsSound([evidence], facts([volts]), DEFAULT_RULES);
    expect(sound(found('conductance', 0.8), FLAT)).toBeTrue();
    expect(sound(found('conductance', 0.79))).toBeFalse();
    for (const check of ['load-test', 'crank'] as const) {
      expect(sound(found(check, 0)))
        .withContext(check)
        .toBeTrue();
      expect(sound(found(check, -0.1)))
        .withContext(check)
        .toBeFalse();
      expect(sound(found(check, 0.5), FLAT))
        .withContext(check)
        .toBeFalse();
    }
    expect(sound(found('look-joints', 'clean'))).toBeFalse();
  });
});

describe('what the verdict reads beside the evidence', () => {
  it('is whether the weakest battery that was read may be judged', () => {
    const edge = restVoltsAt('flooded', DEFAULT_RULES.judgeMinSoc, 20);
    expect(isJudgeable(facts([edge + 0.01]), DEFAULT_RULES)).toBeTrue();
    expect(isJudgeable(facts([edge - 0.02]), DEFAULT_RULES)).toBeFalse();
    expect(isJudgeable(facts([CHARGED, FLAT]), DEFAULT_RULES)).toBeFalse();
    expect(isJudgeable(facts([CHARGED, null]), DEFAULT_RULES)).toBeTrue();
    expect(isJudgeable(facts([null, null]), DEFAULT_RULES)).toBeFalse();
  });

  it('is whether a charger has work to do', () => {
    expect(isKnownFlat(facts([restVoltsAt('flooded', 0.47, 20)]))).toBeTrue();
    expect(isKnownFlat(facts([restVoltsAt('flooded', 0.53, 20)]))).toBeFalse();
    expect(isKnownFlat(facts([null]))).toBeFalse();
    expect(isKnownFlat(facts([CHARGED, FLAT]))).toBeTrue();
  });

  it('is what forbids any current, by the coldest it has been', () => {
    const cold = facts([10.2], { chemistry: 'flooded', tempC: 4, coldestC: -14 });
    expect(barOf(cold)).toBe('frozen');
    expect(barOf({ ...cold, coldestC: 4 })).toBeNull();
    expect(barOf(facts([CHARGED, -11]))).toBe('reversed');
    expect(barOf(facts([null]))).toBeNull();
  });

  it('is the battery at rest a second time where a key was turned and nothing drew amps', () => {
    const at20 = crankLimitVolts(20, 12);
    const silent = found('symptom', 'silence');
    expect(silentVolts([silent, found('crank', 2)], 20)).toEqual([2 + at20 + 0.25]);
    // It ran since: what the posts recover to is no rest.
    expect(silentVolts([silent, found('recovery', 9), found('with-help', 'started')], 20)).toEqual([]);
    expect(silentVolts([found('symptom', 'silence-bright'), found('crank', 2)], 20).length).toBe(1);
    // Pulled below 11 V something drew.
    expect(silentVolts([silent, found('crank', 10.9 - at20)], 20)).toEqual([]);
    expect(silentVolts([silent, found('crank', 11 - at20)], 20).length).toBe(1);
    expect(silentVolts([silent, found('recovery', 9)], 20)).toEqual([9.25]);
    expect(silentVolts([found('symptom', 'one-click'), found('crank', 2)], 20)).toEqual([]);
    expect(silentVolts([silent, found('rest', 9), found('ask-flats', 'yes')], 20)).toEqual([]);
  });
});

describe('the plan of a charge', () => {
  const [battery] = CAR.batteries;
  const charger = (amps: number, volts: number): KitItem => ({
    kind: 'mains-charger',
    id: `c${amps}`,
    name: 'C',
    amps,
    volts,
    startAmps: null,
    leads: { sectionMm2: 6, lengthM: 1.5, conductor: 'copper', contact: 'clean' },
  });
  const plan = (
    soc: number,
    volts: number | null,
    kit: readonly KitItem[] = [],
    rules = DEFAULT_RULES,
    of = battery!,
  ) => chargePlan(of, soc, volts, 10, kit, rules);

  it('goes to 98 hundredths at a tenth of its capacity, from no higher than that', () => {
    const half = plan(0.5, 12.1);
    expect([half.amps, half.fromSoc, half.toSoc, half.restHours]).toEqual([6, 0.5, 0.98, 24]);
    // Half of 60 Ah at 6 A are five hours, and the tail is slower.
    expect(half.hours!).toBeGreaterThan(4.8);
    expect(half.hours!).toBeLessThan(10);
    expect(plan(1, 12.8).fromSoc).toBe(0.98);
    expect(plan(1, 12.8).hours).toBe(0);
  });

  it('counts each charger by what it may push and refuses one of other volts', () => {
    const [small, big, low, high] = plan(0.5, 12.1, [
      charger(4, 14.4),
      charger(40, 14.4),
      charger(7, 13),
      charger(8, 16.2),
    ]).chargers;
    expect([small!.amps, big!.amps]).toEqual([4, 6]);
    expect(small!.hours!).toBeGreaterThan(big!.hours!);
    expect([small!.unfit, big!.unfit, low!.unfit, high!.unfit]).toEqual([
      null,
      null,
      'volts-too-low',
      'volts-too-high',
    ]);
    expect([low!.hours, high!.hours]).toEqual([null, null]);
    const lithium = { ...battery!, rating: { ...BATTERY_60, chemistry: 'lfp' as Chemistry } };
    expect(plan(0.5, 13, [charger(4, 14.4)], DEFAULT_RULES, lithium).chargers[0]!.unfit).toBe(
      'lithium-own-charger',
    );
    expect(plan(0.5, 12.1, [{ kind: 'instrument', id: 'm', name: 'M', tool: 'meter' }]).chargers).toEqual([]);
  });

  it('says where, the strongest reason first', () => {
    const where = (
      soc: number,
      volts: number | null,
      rules = DEFAULT_RULES,
      part: Partial<(typeof CAR.batteries)[0]> = {},
    ) => {
      const { place, placeReason } = plan(soc, volts, [], rules, { ...battery!, ...part });
      return [place, placeReason];
    };
    const out = { ...DEFAULT_RULES, chargeOnVehicle: 'take-out' } as const;
    const off = { ...DEFAULT_RULES, chargeOnVehicle: 'negative-off' } as const;
    expect(where(0, DEFAULT_RULES.chargerSenseVolts - 0.1, off)).toEqual(['take-out', 'very-flat']);
    expect(where(0.5, 12, off, { closedIn: true })).toEqual(['take-out', 'closed-in']);
    expect(where(0.5, 12, off, { closedIn: true, ventHose: true })).toEqual(['negative-off', 'house-rule']);
    expect(where(0.95, 12.6, out)).toEqual(['take-out', 'house-rule']);
    expect(where(0.5, 12.1)).toEqual(['take-out', 'long']);
    expect(where(0.95, 12.7)).toEqual(['at-the-points', 'short']);
  });

  it('lifts what a charger would refuse through a lamp that it stands', () => {
    expect(plan(0.5, 12).revival).toBeNull();
    const lift = plan(0, DEFAULT_RULES.chargerSenseVolts - 0.2).revival!;
    expect(lift.lampWatts).toBe(55);
    expect(lift.contactAmps).toBeLessThanOrEqual(0.2 * 60);
    const small = plan(0, DEFAULT_RULES.chargerSenseVolts - 0.2, [], DEFAULT_RULES, {
      ...battery!,
      rating: { ...BATTERY_60, capacityAh: 9 },
    }).revival!;
    expect(small.lampWatts).toBeLessThan(55);
    expect(plan(0, 1, [], { ...DEFAULT_RULES, veryFlatBattery: 'replace' }).reviveRefusedByHouse).toBeTrue();
    expect(
      plan(0.5, 12, [], { ...DEFAULT_RULES, veryFlatBattery: 'replace' }).reviveRefusedByHouse,
    ).toBeFalse();
  });
});

describe('what may be fitted', () => {
  const need = replacementNeed(CAR, 0);

  it('is never less than the original', () => {
    expect(need.chemistries).toEqual(['flooded', 'efb', 'agm']);
    expect(need.ccaAmps[BATTERY_60.ccaStandard]).toBe(BATTERY_60.ccaAmps);
    expect([need.bothOfString, need.memoryKeeper, need.ventHose]).toEqual([
      false,
      CAR.resets.length > 0,
      false,
    ]);
    expect(replacementNeed(TRUCK, 1).bothOfString).toBeTrue();
    expect(() => replacementNeed(CAR, 1)).toThrowError(RangeError);
    const of = (chemistry: Chemistry) =>
      replacementNeed(
        { ...CAR, batteries: [{ ...CAR.batteries[0]!, rating: { ...BATTERY_60, chemistry } }] },
        0,
      ).chemistries;
    expect([of('efb'), of('agm'), of('gel'), of('lfp')]).toEqual([
      ['efb', 'agm'],
      ['agm'],
      ['gel', 'agm'],
      ['lfp'],
    ]);
  });

  it('is told by all that is wrong with it', () => {
    expect(misfitsOf(need, BATTERY_60)).toEqual([]);
    expect(misfitsOf(need, { ...BATTERY_60, capacityAh: 57 })).toEqual([]);
    expect(misfitsOf(need, { ...BATTERY_60, capacityAh: 56.9 })).toEqual(['capacity']);
    expect(misfitsOf(need, { ...BATTERY_60, ccaAmps: BATTERY_60.ccaAmps - 1 })).toEqual(['cca']);
    expect(misfitsOf(need, { chemistry: 'gel', capacityAh: 40, ccaAmps: 200, ccaStandard: 'EN' })).toEqual([
      'chemistry',
      'capacity',
      'cca',
    ]);
  });
});

describe('where a battery’s strength goes', () => {
  it('is, by one reading, between it and what is known of any: weighed by both doubts', () => {
    // 0.8 with a doubt of 0.05 against 0.9 with 0.2.
    const trend = strengthTrend([{ day: 100, share: 0.8, spread: 0.05 }], 0.5);
    const weights = [1 / 0.05 ** 2, 1 / 0.2 ** 2];
    const expected = (0.8 * weights[0]! + 0.9 * weights[1]!) / (weights[0]! + weights[1]!);
    expect(trend.at(100).share).toBeCloseTo(expected, 9);
    expect(trend.at(100).spread).toBeCloseTo(1 / Math.sqrt(weights[0]! + weights[1]!), 9);
    expect(trend.perYear).toBeCloseTo(-0.06, 9);
    expect(trend.perYearSpread).toBeCloseTo(0.04, 9);
    expect(trend.at(100 + 365.25).share).toBeCloseTo(expected - 0.06, 9);
  });

  it('follows many sure readings, falls below when its line does, and earlier or later by its doubt', () => {
    const points = Array.from({ length: 9 }, (_, i) => ({
      day: i * 200,
      share: 1 - (0.15 * i * 200) / 365.25,
      spread: 0.005,
    }));
    const trend = strengthTrend(points, 0.3);
    expect(trend.perYear).toBeCloseTo(-0.15, 2);
    const crossing = ((1 - 0.3) / 0.15) * 365.25;
    expect(Math.abs(trend.fallsBelow.day! - crossing)).toBeLessThan(30);
    expect(trend.fallsBelow.earliest!).toBeLessThan(trend.fallsBelow.day!);
    expect(trend.fallsBelow.latest!).toBeGreaterThan(trend.fallsBelow.day!);
    expect(trend.at(1600).spread).toBeLessThan(trend.at(3000).spread);
    // A machine that stands under it already fell on the last day; a rising one never does.
    expect(strengthTrend(points, 0.9).fallsBelow.day).toBe(1600);
    const rising = points.map((p) => ({ ...p, share: 0.9 + p.day / 40_000 }));
    expect(strengthTrend(rising, 0.3).fallsBelow.day).toBeNull();
    expect(() => strengthTrend([], 0.5)).toThrowError(RangeError);
  });
});
