import { crankLimitVolts, type Found, type CheckId } from '../src/diagnosis/index.js';
import {
  batteryEntries,
  caseOfJob,
  evidenceOfJob,
  hasStarted,
  profileOfJob,
  sheetOfJob,
} from '../src/job/index.js';
import type { Machine } from '../src/machine/index.js';
import { CAR, EV, TRUCK } from './fixtures.js';
import { Log } from './job-log.js';

function found(log: Log, machine: Machine = CAR, earlierFlatCalls = 0): Partial<Record<CheckId, Found>> {
  return Object.fromEntries(evidenceOfJob(log.job, machine, earlierFlatCalls).map((e) => [e.check, e.found]));
}
const rest = (volts: number, battery = 0) =>
  ({ kind: 'rest', volts, battery, tempC: -4, source: 'typed' }) as const;

/** A donor chosen and joined, four clamps on. */
function joinDonor(log: Log): void {
  log.take('plan.chosen', {
    optionId: 'donor+heavy',
    sourceId: 'donor',
    leadSetId: 'heavy',
    sourceKind: 'donor',
    outlook: 'cranks',
    odds: null,
    starterVolts: 10.4,
    starterAmps: 200,
    rpm: 200,
    neededRpm: 85,
    wakeVolts: null,
    postVolts: 10.9,
    waitMinutes: 2,
    chargeOnly: false,
    inputs: [],
  });
  log.take('polarity.proved', { signs: ['mark', 'meter'] });
  for (const [clamp, pointId] of [
    ['redCasualty', 'plus'],
    ['redSource', 'plus'],
    ['blackSource', 'minus'],
    ['blackCasualty', 'ground'],
  ] as const)
    log.take('clamp.attached', { clamp, pointId });
}

describe('evidence of a job', () => {
  it('is nothing for a job in which nothing was found', () => {
    expect(found(new Log())).toEqual({});
  });

  it('takes nothing from a rolling start: the starter took no part', () => {
    const log = new Log();
    log.take('roll.tried', { started: false });
    expect(found(log)).toEqual({});
    expect(log.job.attempts.map((a) => a.outcome)).toEqual(['nothing']);
    log.take('roll.tried', { started: true });
    expect(hasStarted(log.job)).toBeTrue();
    expect(log.refuses('roll.tried', { started: true })).toBe('already-running');
    const automatic = new Log({ ...CAR, gearbox: 'automatic' });
    expect(automatic.refuses('roll.tried', { started: true })).toBe('cannot-roll');
    expect(new Log(EV).refuses('roll.tried', { started: true })).toBe('cannot-roll');
  });

  it('keeps the rest that the starter needs after a rolling start in vain', () => {
    const log = new Log();
    log.take('attempt.started', {});
    log.take('attempt.ended', { outcome: 'slow', seconds: 8, lowestVolts: 8.9 }, 8);
    log.take('roll.tried', { started: false }, 5);
    expect(log.refuses('attempt.started', {}, 5)).toBe('rest-first');
  });

  it('takes looks from the checks, and interlocks only when all of them are known', () => {
    const log = new Log();
    log.take('symptom.recorded', { symptom: 'silence' });
    log.take('finding.recorded', { check: 'look-joints', found: 'deposits' });
    log.take('finding.recorded', { check: 'immobiliser-lamp', found: 'out' });
    log.take('finding.recorded', { check: 'fuel-gauge', found: 'empty' });
    log.take('finding.recorded', { check: 'look-belt', found: 'bad' });
    expect(found(log)).toEqual({
      symptom: 'silence',
      'look-joints': 'deposits',
      'immobiliser-lamp': 'out',
      'fuel-gauge': 'empty',
      'look-belt': 'bad',
    });
    log.take('finding.recorded', { check: 'clutch-switch', found: 'clear' });
    expect(found(log).interlocks).toBe('clear');
    log.take('finding.recorded', { check: 'clutch-switch', found: 'fault' });
    expect(found(log).interlocks).toBe('fault');
  });

  it('tells what opens the circuit from what holds the starter, by class', () => {
    const log = new Log();
    log.take('finding.recorded', { check: 'isolator', found: 'fault' });
    expect(found(log, TRUCK)['isolator-fuse']).toBe('fault');
    expect(found(log, TRUCK).interlocks).toBeUndefined();
    const ev = new Log();
    ev.take('finding.recorded', { check: 'traction-gauge', found: 'flat' });
    expect(found(ev, EV)['traction-gauge']).toBe('flat');
  });

  it('takes each battery of a string by itself, and its figures into its own record', () => {
    const log = new Log(TRUCK);
    log.take('reading.taken', rest(11.8, 0));
    log.take('reading.taken', rest(12.5, 1));
    log.take('finding.recorded', { check: 'conductance', found: 0.4, source: 'typed', battery: 1 });
    log.take('finding.recorded', { check: 'conductance', found: 0.5, source: 'typed', battery: 1 });
    expect(evidenceOfJob(log.job, TRUCK, 0)).toEqual([
      { check: 'rest', found: 11.8, battery: 0 },
      { check: 'rest', found: 12.5, battery: 1 },
      { check: 'conductance', found: 0.5, battery: 1 },
    ]);
    const tested = batteryEntries(log.job, TRUCK).filter((e) => e.kind === 'strength');
    expect(tested.map(({ battery, share }) => [battery, share])).toEqual([
      [1, 0.4],
      [1, 0.5],
    ]);
  });

  it('sees a crank against its limit in this cold, per 12 V', () => {
    const log = new Log(TRUCK);
    log.take('reading.taken', { kind: 'crank-minimum', volts: 18, battery: 0, tempC: -4, source: 'meter' });
    expect(found(log, TRUCK).crank).toBeCloseTo(9 - crankLimitVolts(-4, 12), 6);
  });

  it('takes tries by themselves for what they show, and charging once it ran', () => {
    const log = new Log();
    log.take('attempt.started', {});
    log.take('attempt.ended', { outcome: 'clicks', seconds: 2, lowestVolts: 8.4 });
    expect(found(log)).toEqual({
      'try-alone': 'clicks',
      crank: jasmine.any(Number),
    } as unknown as Partial<Record<CheckId, Found>>);
    log.take('attempt.started', {}, 120);
    log.take('attempt.ended', { outcome: 'started', seconds: 2, lowestVolts: null });
    log.take('reading.taken', { kind: 'charging-idle', volts: 14.1, battery: 0, tempC: -4, source: 'typed' });
    expect(found(log)['try-alone']).toBe('started');
    expect(found(log).charging).toBe(14.1);
  });

  it('compares a try with help to what the plan promised', () => {
    const log = new Log();
    joinDonor(log);
    log.take('attempt.started', {});
    log.take('attempt.ended', { outcome: 'slow', seconds: 5, lowestVolts: 8.7 });
    expect(found(log)['with-help']).toBe('slow');
    expect(found(log).promise).toBeCloseTo(-2.2, 6);
    expect(found(log)['try-alone']).toBeUndefined();
  });

  it('takes nothing that the posts showed while help was joined for the battery’s own', () => {
    const log = new Log();
    const crank = (volts: number) =>
      ({ kind: 'crank-minimum', volts, battery: 0, tempC: -4, source: 'meter' }) as const;
    log.take('reading.taken', rest(11.7));
    log.take('reading.taken', crank(6.4));
    log.take('finding.recorded', { check: 'conductance', found: 0.4, source: 'meter', figures: [216] });
    const alone = found(log);
    joinDonor(log);
    log.take('reading.taken', { kind: 'charging-idle', volts: 14.3, battery: 0, tempC: -4, source: 'meter' });
    log.take('reading.taken', crank(10.9));
    log.take('finding.recorded', { check: 'conductance', found: 0.95, source: 'meter', figures: [513] });
    log.take('finding.recorded', { check: 'recovery', found: 12.6, source: 'meter', figures: [12.6] });
    expect(found(log)).toEqual(alone);
    expect(batteryEntries(log.job, CAR).map((e) => [e.kind, e.volts, e.share])).toEqual(
      jasmine.arrayContaining([
        ['rest', 11.7, null],
        ['strength', null, 0.4],
      ]),
    );
    expect(batteryEntries(log.job, CAR).some((e) => e.share === 0.95)).toBeFalse();
  });

  it('lets what was recorded for a check itself go before what is worked out, and counts earlier flats', () => {
    const log = new Log();
    log.take('finding.recorded', { check: 'look-joints', found: 'deposits' });
    log.take('finding.recorded', { check: 'look-joints', found: 'turns-by-hand' });
    expect(found(log, CAR, 2)).toEqual({ 'look-joints': 'turns-by-hand', 'ask-flats': 'yes' });
  });

  it('knows the machine and the case as the verdict needs them', () => {
    const log = new Log();
    log.take('symptom.recorded', { symptom: 'no-doors' });
    log.take('reading.taken', rest(11.2));
    expect(profileOfJob(log.job, CAR).tempC).toBe(-4);
    expect(caseOfJob(log.job, EV, 1)).toEqual(
      jasmine.objectContaining({ wakes: true, diedInService: true, restVolts: [11.2], earlierFlatCalls: 1 }),
    );
  });
});

describe('sheet of a job', () => {
  it('holds everything that happened, and nothing of the log’s own keys', () => {
    const log = new Log();
    log.take('reading.taken', rest(12.5));
    log.take('reading.taken', rest(11.9));
    log.take('finding.recorded', { check: 'conductance', found: 0.7, source: 'meter', figures: [378] });
    log.take('override.given', { rule: 'crankRestSeconds', reason: 'the ferry leaves' });
    const sheet = sheetOfJob(log.job, { ...CAR, resets: ['Clock'], never: ['Jump it backwards.'] }, 0);
    expect(sheet.readings.map((r) => [r.volts, r.doubt])).toEqual([
      [12.5, null],
      [11.9, 'rest-moved'],
    ]);
    expect(sheet.figures[0]!.figures).toEqual([378]);
    expect(sheet.never).toEqual(['Jump it backwards.']);
    expect(sheet.resets).toEqual([{ reset: 'Clock', done: false }]);
    expect(JSON.stringify(sheet)).not.toContain('eventId');
  });
});
