import {
  chargingMeaning,
  CHECK_IDS,
  checkOf,
  CHECKS,
  isAtFault,
  isWeighed,
  walkRound,
  crankLimitVolts,
  crankMeaning,
  findingOf,
  measuresFor,
  outcomeOf,
  restMeaning,
} from '../src/diagnosis/index.js';
import { DEFAULT_RULES, RULES } from '../src/rules/index.js';
import { CAR, EV, MOTORCYCLE, TRUCK } from './fixtures.js';

describe('rest meaning', () => {
  const code = (volts: number, tempC = 15) => restMeaning('flooded', volts, tempC, DEFAULT_RULES).code;

  it('steps down from charged to reversed', () => {
    expect(code(12.66)).toBe('charged');
    expect(code(12.4)).toBe('part-charged');
    expect(code(12.0)).toBe('low');
    expect(code(11.6)).toBe('flat');
    expect(code(10.2)).toBe('dead-cell-or-deep');
    expect(code(2.1)).toBe('maybe-reversed');
    expect(code(-4)).toBe('reversed');
  });

  it('calls a battery frozen when the air has been below its point', () => {
    expect(code(9, -8)).toBe('frozen');
    expect(code(12.6, -20)).toBe('charged');
  });

  it('does not believe surface charge', () => {
    expect(code(13.1)).toBe('surface-charge');
  });
});

describe('crank meaning', () => {
  it('follows the standard by temperature, doubled on 24 V', () => {
    expect(crankLimitVolts(21, 12)).toBe(9.6);
    expect(crankLimitVolts(-18, 12)).toBe(8.5);
    expect(crankLimitVolts(-18, 24)).toBe(17);
  });

  it('warns early, limits, and condemns only a charged battery', () => {
    const say = (volts: number, soc: number | null) => crankMeaning(volts, 21, 12, soc, DEFAULT_RULES);
    expect(say(11, 0.9).code).toBe('holds');
    expect(say(10, 0.9).code).toBe('early-warning');
    expect(say(9.2, 0.9)).toEqual(jasmine.objectContaining({ code: 'under-limit', mayCondemn: true }));
    expect(say(7, 0.5)).toEqual(jasmine.objectContaining({ code: 'collapses', mayCondemn: false }));
    expect(say(7, null).mayCondemn).toBeFalse();
  });
});

describe('charging meaning', () => {
  it('keeps to the band of chemistry and cold', () => {
    const say = (volts: number, chemistry: 'flooded' | 'agm', tempC: number) =>
      chargingMeaning(volts, chemistry, tempC, 12, DEFAULT_RULES).code;
    expect(say(12.9, 'flooded', 20)).toBe('not-charging');
    // Held down by a flat battery, or weak: read again at 2,000 rpm.
    expect(say(13.0, 'flooded', 20)).toBe('weak');
    expect(say(13.2, 'flooded', 20)).toBe('weak');
    expect(say(14.0, 'flooded', 20)).toBe('charging');
    expect(say(14.5, 'flooded', 20)).toBe('high-but-normal');
    expect(say(14.9, 'flooded', 20)).toBe('above-band');
    expect(say(14.9, 'agm', 20)).toBe('charging');
    expect(say(14.9, 'flooded', -5)).toBe('charging');
    expect(say(15.3, 'agm', -5)).toBe('over-voltage');
  });
});

describe('walkRound', () => {
  it('asks each class what stops it, looks first', () => {
    expect(walkRound(CAR)).toContain('clutch-switch');
    expect(walkRound({ ...CAR, gearbox: 'automatic' })).toContain('selector-park');
    expect(walkRound(MOTORCYCLE)).toContain('side-stand');
    expect(walkRound(TRUCK)).toContain('isolator');
    expect(walkRound(TRUCK)).toContain('both-batteries');
    expect(walkRound(EV)).toContain('traction-gauge');
    for (const machine of [CAR, EV, MOTORCYCLE, TRUCK]) expect(walkRound(machine)[0]).toBe('case');
  });

  it('weighs every check, stops the job by it, or makes it a part of one that is weighed', () => {
    const loose = CHECKS.filter(
      (c) => !isWeighed(c) && !c.stop && !(c.partOf && isWeighed(checkOf(c.partOf))),
    );
    expect(loose).toEqual([]);
    expect(CHECKS.map((c) => c.id).sort()).toEqual([...CHECK_IDS].sort());
  });

  it('calls every outcome but the sound one a fault', () => {
    expect(isAtFault('look-joints', 'turns-by-hand')).toBeTrue();
    expect(isAtFault('look-joints', 'deposits')).toBeTrue();
    expect(isAtFault('look-joints', 'clean')).toBeFalse();
    for (const id of walkRound(TRUCK)) {
      expect(isAtFault(id, checkOf(id).outcomes.at(-1)!))
        .withContext(id)
        .toBeFalse();
      expect(isAtFault(id, checkOf(id).outcomes[0]!))
        .withContext(id)
        .toBeTrue();
    }
  });
});

describe('RULES', () => {
  it('give every threshold a reason', () => {
    for (const [key, rule] of Object.entries(RULES)) {
      expect(rule.reason.length).withContext(key).toBeGreaterThan(10);
    }
  });
});

describe('measures', () => {
  const context = { rating: CAR.batteries[0]!.rating, systemVolts: 12, tempC: 21, restVolts: 12.6 } as const;
  const kindOf = (id: string) => measuresFor(CAR.batteries[0]!.rating, true).find((m) => m.id === id)!;
  const found = (id: string, ...figures: number[]) => findingOf(kindOf(id), figures, context);

  it('turn figures into what the checks find', () => {
    expect(found('key-on', 12.1)).toBeCloseTo(0.5, 6);
    expect(findingOf(kindOf('key-on'), [12.1], { ...context, restVolts: null })).toBeNull();
    expect(found('conductance', 270)).toBeCloseTo(0.5, 6);
    expect(found('load-test', 9.1)).toBeCloseTo(-0.5, 6);
    expect(found('drain', 380)).toBeCloseTo(0.38, 6);
    expect(findingOf(kindOf('recovery'), [24.2], { ...context, systemVolts: 24 })).toBeCloseTo(12.1, 6);
  });

  it('read six cells: even, or one that stands out', () => {
    expect(found('specific-gravity', 1.26, 1.26, 1.265, 1.26, 1.255, 1.26)).toBe('even-high');
    expect(found('specific-gravity', 1.15, 1.15, 1.155, 1.15, 1.15, 1.15)).toBe('even-low');
    expect(found('specific-gravity', 1.26, 1.26, 1.19, 1.26, 1.26, 1.26)).toBe('one-cell-low');
  });

  it('offer a machine what it has', () => {
    const ids = (chemistry: 'flooded' | 'agm' | 'lfp', cranks: boolean) =>
      measuresFor({ ...CAR.batteries[0]!.rating, chemistry }, cranks).map((m) => m.id);
    expect(ids('flooded', true)).toContain('specific-gravity');
    expect(ids('agm', true)).not.toContain('specific-gravity');
    expect(ids('lfp', false)).not.toContain('acceptance');
    expect(ids('agm', false)).not.toContain('crank-minimum');
  });

  it('fall on the outcome their edges say', () => {
    expect(outcomeOf('joint-plus', 0.1)).toBe('good');
    expect(outcomeOf('joint-plus', 0.3)).toBe('worth-cleaning');
    expect(outcomeOf('joint-plus', 0.9)).toBe('bad');
    expect(outcomeOf('conductance', 0.55)).toBe('spent');
    expect(outcomeOf('specific-gravity', 'even-low')).toBe('even-low');
  });
});
