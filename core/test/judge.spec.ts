import {
  type Case,
  chargingMeaning,
  CHECK_IDS,
  checksFor,
  crankLimitVolts,
  crankMeaning,
  DEFAULT_RULES,
  judge,
  restMeaning,
  RULES,
  suspectOf,
} from '../src/index.js';
import { CAR, EV, MOTORCYCLE, TRUCK } from './fixtures.js';

const BARE: Case = {
  chemistry: 'flooded',
  systemVolts: 12,
  wakes: false,
  tempC: 10,
  stops: [],
  faults: [],
  symptoms: [],
  restVolts: [null],
  crankMinimum: null,
  chargingIdleVolts: null,
  chargingLoadedVolts: null,
  attempts: [],
  earlierFlatCalls: 0,
};
const verdictOf = (facts: Partial<Case>) => judge({ ...BARE, ...facts }, DEFAULT_RULES);

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

  it('calls a block frozen when the air has been below its point', () => {
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

  it('warns early, limits, and condemns only a charged block', () => {
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
    expect(say(13.2, 'flooded', 20)).toBe('not-charging');
    expect(say(14.0, 'flooded', 20)).toBe('charging');
    expect(say(14.5, 'flooded', 20)).toBe('high-but-normal');
    expect(say(14.9, 'flooded', 20)).toBe('above-band');
    expect(say(14.9, 'agm', 20)).toBe('charging');
    expect(say(14.9, 'flooded', -5)).toBe('charging');
    expect(say(15.3, 'agm', -5)).toBe('over-voltage');
  });
});

describe('judge', () => {
  it('never calls a discharged block bad without proof', () => {
    for (const volts of [11.2, 11.9, 12.1]) {
      const crankMinimum = { volts: 6.5, helped: false };
      const { verdict } = verdictOf({
        restVolts: [volts],
        crankMinimum,
        attempts: [{ outcome: 'started', helped: true }],
      });
      expect(verdict).toBe('recheck');
    }
  });

  it('condemns a charged block that collapses, and says why', () => {
    const { verdict, certainty, evidenceFor } = verdictOf({
      restVolts: [12.6],
      crankMinimum: { volts: 7.1, helped: false },
    });
    expect(verdict).toBe('replace-now');
    expect(certainty).toBe('sure');
    expect(evidenceFor.map((e) => e.code)).toContain('crank-under-charged');
  });

  it('does not judge a block on a crank that had help', () => {
    const { verdict } = verdictOf({ restVolts: [12.6], crankMinimum: { volts: 7.1, helped: true } });
    expect(verdict).toBe('keep');
  });

  it('names the suspect when it is not the battery', () => {
    const expectSuspect = (facts: Partial<Case>, suspect: string): void => {
      const found = verdictOf(facts);
      expect(found.verdict).toBe('not-the-battery');
      expect(found.suspect).toBe(suspect as typeof found.suspect);
    };
    expectSuspect({ restVolts: [12.6], faults: ['joints'] }, 'joint');
    expectSuspect({ restVolts: [12.6], faults: ['kill-switch'] }, 'interlock');
    expectSuspect({ restVolts: [12.6], symptoms: ['brisk-no-fire'] }, 'fuel-or-engine');
    expectSuspect({ restVolts: [12.6], chargingIdleVolts: 12.3, chargingLoadedVolts: 12.0 }, 'charging');
    expectSuspect({ restVolts: [12.6], attempts: [{ outcome: 'clicks', helped: true }] }, 'starter');
  });

  it('is unsafe as long as a stop stands, whatever else is known', () => {
    const { verdict, followUps } = verdictOf({
      stops: ['frozen'],
      restVolts: [9],
      faults: ['joints'],
      earlierFlatCalls: 3,
    });
    expect(verdict).toBe('unsafe');
    expect(followUps.length).toBeGreaterThan(0);
  });

  it('leans to replacing after a second flat call in 90 days', () => {
    const flat = { restVolts: [11.9], attempts: [{ outcome: 'started', helped: true }] } as const;
    expect(verdictOf(flat).verdict).toBe('recheck');
    expect(verdictOf({ ...flat, earlierFlatCalls: 2 }).verdict).toBe('replace-soon');
  });

  it('shows every line of evidence on one side or the other, once', () => {
    const { evidenceFor, evidenceAgainst } = verdictOf({
      restVolts: [12.6],
      crankMinimum: { volts: 7.1, helped: false },
      chargingIdleVolts: 14.2,
      faults: ['belt'],
    });
    const codes = [...evidenceFor, ...evidenceAgainst].map((e) => e.code).sort();
    expect(codes).toEqual(['charging-right', 'check-fault', 'crank-under-charged', 'rest-charged']);
  });

  it('asks for the reading that would change most', () => {
    expect(verdictOf({}).decidingReading).toBe('rest');
    expect(verdictOf({ restVolts: [12.5] }).decidingReading).toBe('crank-minimum');
    const started = { restVolts: [12.5], attempts: [{ outcome: 'started', helped: false }] } as const;
    expect(verdictOf(started).decidingReading).toBe('charging-idle');
    const all = {
      ...started,
      chargingIdleVolts: 14,
      chargingLoadedVolts: 14,
      crankMinimum: { volts: 11, helped: false },
    };
    expect(verdictOf(all).decidingReading).toBeNull();
  });

  it('dates the recheck by the rule', () => {
    const { followUps } = verdictOf({ restVolts: [11.9] });
    expect(followUps).toEqual([
      { kind: 'charge', days: 0 },
      { kind: 'recheck', days: DEFAULT_RULES.recheckDays },
    ]);
  });
});

describe('checksFor', () => {
  it('asks each class what stops it, looks first', () => {
    expect(checksFor(CAR)).toContain('clutch-switch');
    expect(checksFor({ ...CAR, gearbox: 'automatic' })).toContain('selector-park');
    expect(checksFor(MOTORCYCLE)).toContain('side-stand');
    expect(checksFor(TRUCK)).toContain('isolator');
    expect(checksFor(TRUCK)).toContain('both-blocks');
    expect(checksFor(EV)).toContain('charge-port-free');
    for (const machine of [CAR, EV, MOTORCYCLE, TRUCK]) expect(checksFor(machine)[0]).toBe('case');
  });

  it('has a suspect for every check but those that stop the job or only set the key right', () => {
    const without = CHECK_IDS.filter((check) => suspectOf(check) === null);
    expect(without).toEqual(['high-voltage-ready', 'case']);
  });
});

describe('RULES', () => {
  it('give every threshold a reason', () => {
    for (const [key, rule] of Object.entries(RULES)) {
      expect(rule.reason.length).withContext(key).toBeGreaterThan(10);
    }
  });
});
