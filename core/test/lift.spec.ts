import { judgeLift, LIFT_STEPS } from '../src/charging/index.js';
import type { ReadingKind } from '../src/diagnosis/index.js';
import { chargePlanOfJob, liftState, nextAction, type Runs, STAGES } from '../src/job/index.js';
import { DEFAULT_RULES } from '../src/rules/index.js';
import { lampLift } from '../src/verdict/index.js';
import { BATTERY_60, CAR, TRUCK } from './fixtures.js';
import { Log, situationIn } from './job-log.js';

const SENSE_VOLTS = DEFAULT_RULES.chargerSenseVolts;

/** A car of 60 Ah whose battery rested at so many volts. */
function flat(volts = 2): Log {
  const log = new Log(CAR);
  log.take('scene.recorded', {
    ...{ place: 'yard', sloping: false, dark: false, enclosed: false, ambientC: 15, mainsNear: true },
  });
  log.take('reading.taken', { kind: 'rest', volts, battery: 0, tempC: 15, source: 'meter' });
  return log;
}
function joined(volts = 2): Log {
  const log = flat(volts);
  for (const step of LIFT_STEPS.slice(0, 3)) log.take('lift.confirmed', { battery: 0, step });
  return log;
}
const situationOfLog = (log: Log) => situationIn(log.job, CAR);

describe('lifting a battery too flat for its charger', () => {
  it('follows its order, and joins nothing else beside its lamp', () => {
    const log = flat();
    expect(log.refuses('lift.confirmed', { battery: 0, step: 'join-lamp' })).toBe('lift-out-of-order');
    expect(log.refuses('lift.confirmed', { battery: 3, step: 'prove-polarity' })).toBe('no-such-battery');
    expect(log.refuses('lift.confirmed', { battery: 0, step: 'part-lamp' })).toBe('nothing-lifted');
    expect(log.refuses('lift.read', { volts: 4, isWarm: false })).toBe('nothing-lifted');
    const on = joined();
    expect(on.job.lifting).toEqual(
      jasmine.objectContaining({ joinedAt: on.events.at(-1)!.at, fromVolts: 2, readings: [] }),
    );
    on.take('polarity.proved', { signs: ['mark', 'meter'] });
    expect(on.refuses('clamp.attached', { clamp: 'redCasualty', pointId: 'plus' })).toBe('lift-under-way');
    expect(on.refuses('attempt.started', {})).toBe('lift-under-way');
    expect(on.refuses('roll.tried', { started: true })).toBe('lift-under-way');
    expect(on.refuses('lift.confirmed', { battery: 0, step: 'prove-polarity' })).toBe('lift-under-way');
    const atRest = { kind: 'rest', volts: 6, battery: 0, tempC: 15, source: 'meter' } as const;
    expect(on.refuses('reading.taken', atRest)).withContext('it shows the helper').toBe('lift-under-way');
    on.take('verdict.given', {
      ...{ verdict: 'charge-first', suspect: null, certainty: 'unsure', followUps: [] },
      ...{ for: [], against: [], wouldChange: null },
    } as never);
    expect(on.refuses('job.closed', {} as never)).toBe('lift-under-way');
    on.take('lift.confirmed', { battery: 0, step: 'part-lamp' });
    expect(on.job.lifting).toBeUndefined();
    expect(on.refuses('reading.taken', atRest)).toBeNull();
    expect(on.job.lifts.map(({ battery }) => battery)).toEqual([0]);
  });

  it('has one next action at every stage while the lamp is joined, under a stop as well', () => {
    const runs = {
      hookup: { next: null, done: [], later: [] },
      clearing: { next: null, done: [], later: [] },
      makeSafe: () => [],
      hazardsOf: () => [],
    } as unknown as Runs;
    const log = joined();
    const acts = () =>
      STAGES.map((stage) => nextAction(stage, log.job, situationOfLog(log), runs, log.events.at(-1)!.at));
    const expected = STAGES.map((stage) =>
      stage === 'measure' ? { act: 'part-lamp' } : { act: 'go', to: 'measure', why: 'lift-runs' },
    );
    expect(acts() as unknown).toEqual(expected);
    log.take('lift.read', { volts: 5, isWarm: true }, 600);
    expect(log.job.stops).toEqual(['case-warm']);
    expect(liftState(log.job.lifting!, situationOfLog(log))).toBe('warm');
    expect(acts() as unknown).toEqual(expected);
    expect(log.refuses('lift.confirmed', { battery: 0, step: 'part-lamp' })).toBeNull();
  });

  /** A lamp of 2.6 ohm fills 915 F: 12.6 V less a difference that halves in 27.5 min. */
  it('tells a deep discharge from shorted cells by how its volts move', () => {
    const lift = lampLift(BATTERY_60, 2, 15, DEFAULT_RULES);
    expect(lift.tauMinutes).toBeCloseTo((2.6 * ((0.05 * 60 * 3600) / 11.8)) / 60, 6);
    const volts = (minutes: number) => 12.6 - 10.6 * 2 ** (-minutes / (lift.tauMinutes * Math.LN2));
    const told = (minutes: number, at: number) =>
      judgeLift(lift, SENSE_VOLTS, minutes, { volts: at, isWarm: false });
    expect(told(0.5, 2)).withContext('too soon').toBe('early');
    expect(told(5, volts(5))).toBe('rises');
    // Twice as much charge owed: half the rise.
    expect(told(5, 2 + (volts(5) - 2) / 2)).toBe('rises');
    expect(told(5, 2.1)).toBe('stays');
    expect(told(lift.minutes! + 0.1, volts(lift.minutes! + 0.1))).toBe('over');
  });

  it('is not offered again at a battery that did not rise', () => {
    const log = joined();
    log.take('lift.read', { volts: 2.1, isWarm: false }, 900);
    log.take('lift.confirmed', { battery: 0, step: 'part-lamp' });
    expect(chargePlanOfJob(situationOfLog(log)).revival!.refused).toBe('stayed');
    const risen = joined();
    risen.take('lift.read', { volts: 6, isWarm: false }, 900);
    risen.take('lift.confirmed', { battery: 0, step: 'part-lamp' });
    expect(chargePlanOfJob(situationOfLog(risen)).revival!.refused).toBeNull();
  });

  it('tells the inrush of a cold lamp: ten times its running amps', () => {
    const { contactAmps, inrushAmps } = lampLift(BATTERY_60, 2, 15, DEFAULT_RULES);
    expect(contactAmps).toBeCloseTo(10.6 / 2.6, 6);
    expect(inrushAmps).toBeCloseTo(106 / 2.6, 6);
  });
});

describe('a figure that no meter can show at this machine', () => {
  it('is refused wherever volts are told: one battery reads no string, and a string reads twice', () => {
    for (const [machine, most] of [
      [CAR, 16],
      [TRUCK, 32],
    ] as const) {
      const log = new Log(machine);
      const reading = (kind: ReadingKind, volts: number) =>
        log.refuses('reading.taken', { kind, volts, battery: 0, tempC: 5, source: 'typed' });
      expect(reading('rest', 17)).withContext('each battery by itself').toBe('value-out-of-range');
      expect(reading('rest', -12.4)).withContext('fitted the wrong way round').toBeNull();
      expect(reading('crank-minimum', most + 1)).toBe('value-out-of-range');
      expect(reading('crank-minimum', most - 1)).toBeNull();
      for (const kind of ['charging-idle', 'charging-loaded'] as const) {
        expect(reading(kind, most * 1.25 + 1)).toBe('value-out-of-range');
        expect(reading(kind, most * 1.25 - 1)).toBeNull();
      }
      const ended = { outcome: 'slow', seconds: 3, lowestVolts: most + 1 } as const;
      log.take('attempt.started', {});
      expect(log.refuses('attempt.ended', ended as never)).toBe('value-out-of-range');
    }
  });
});
