import {
  type EventData,
  findingsOfJob,
  foldJob,
  reachedStage,
  hasStarted,
  lastUndoable,
  latestReading,
  outcomeOfJob,
  profileOfJob,
  refusalInLog,
  restSecondsLeft,
  restVoltsByBattery,
  sheetOfJob,
  situationOf,
  undoneIds,
  workingTempC,
} from '../src/job/index.js';
import { DEFAULT_RULES } from '../src/rules/index.js';
import { CAR, KIT, ratedEn, TRUCK } from './fixtures.js';
import { Log, situationIn } from './job-log.js';

const PLAN: EventData['plan.chosen'] = {
  optionId: 'donor+heavy',
  sourceId: 'donor',
  leadSetId: 'heavy',
  sourceKind: 'donor',
  outlook: 'cranks',
  odds: null,
  starterVolts: 10.5,
  starterAmps: 200,
  rpm: 200,
  neededRpm: 85,
  wakeVolts: null,
  postVolts: 10.6,
  waitMinutes: 3,
  chargeOnly: false,
  inputs: [],
};

function planned(): Log {
  const log = new Log();
  log.take('polarity.proved', { signs: ['mark', 'meter'] });
  log.take('plan.chosen', PLAN);
  return log;
}

function connected(): Log {
  const log = planned();
  for (const clamp of ['redCasualty', 'redSource', 'blackSource', 'blackCasualty'] as const) {
    log.take('clamp.attached', { clamp, pointId: 'plus' });
  }
  return log;
}

describe('foldJob', () => {
  it('is nothing before the job is opened, and the call once it is', () => {
    expect(foldJob([])).toBeNull();
    const job = new Log().job;
    expect(job.call.title).toBe('Test car');
    expect(workingTempC(job)).toBe(-4);
    expect(reachedStage(job)).toBe('scene');
  });

  it('gives the same job from the same log, whatever was folded before', () => {
    const log = connected();
    expect(foldJob(log.events)).toEqual(foldJob([...log.events]));
    expect(log.job.revision).toBe(log.events.length);
  });

  it('keeps the latest reading of each battery', () => {
    const log = new Log(TRUCK);
    const reading = (volts: number, battery: number): void =>
      void log.take('reading.taken', { kind: 'rest', volts, battery, tempC: -4, source: 'typed' });
    reading(11.9, 0);
    reading(12.5, 1);
    reading(11.8, 0);
    expect(restVoltsByBattery(log.job, 3)).toEqual([11.8, 12.5, null]);
    expect(latestReading(log.job, 'rest')?.volts).toBe(11.8);
    expect(latestReading(log.job, 'charging-idle')).toBeNull();
  });

  it('follows the clamps and knows that something was once connected', () => {
    const log = connected();
    expect(log.job.hookup.attachedInOrder.length).toBe(4);
    log.take('clamp.detached', { clamp: 'blackCasualty' });
    expect(log.job.hookup.clamps.blackCasualty).toBeNull();
    expect(log.job.everConnected).toBeTrue();
  });

  it('marks a try as helped or alone', () => {
    const log = planned();
    log.take('attempt.started', {});
    log.take('attempt.ended', { outcome: 'slow', seconds: 6, lowestVolts: 8.1 });
    for (const clamp of ['redCasualty', 'redSource', 'blackSource', 'blackCasualty'] as const) {
      log.take('clamp.attached', { clamp, pointId: 'plus' });
    }
    log.take('attempt.started', {});
    log.take('attempt.ended', { outcome: 'started', seconds: 2, lowestVolts: null });
    expect(log.job.attempts.map((a) => a.helped)).toEqual([false, true]);
    expect(hasStarted(log.job)).toBeTrue();
  });
});

describe('undo', () => {
  it('takes the last act back, and the one before after it', () => {
    const log = connected();
    const last = lastUndoable(log.events)!;
    log.take('event.undone', { eventId: last.id });
    expect(log.job.hookup.clamps.blackCasualty).toBeNull();
    expect(undoneIds(log.events).has(last.id)).toBeTrue();
    const before = lastUndoable(log.events)!;
    expect(before.data).toEqual(jasmine.objectContaining({ clamp: 'blackSource' }));
    log.take('event.undone', { eventId: before.id });
    expect(log.job.hookup.attachedInOrder).toEqual(['redCasualty', 'redSource']);
  });

  it('never undoes the opening', () => {
    const log = new Log();
    expect(lastUndoable(log.events)).toBeNull();
    expect(log.refuses('event.undone', { eventId: log.events[0]!.id })).toBe('cannot-undo');
  });

  it('is refused for anything but the last act', () => {
    const log = connected();
    expect(log.refuses('event.undone', { eventId: log.events[1]!.id })).toBe('cannot-undo');
  });
});

describe('refusalOf', () => {
  it('wants the job opened once, and open', () => {
    const log = new Log();
    expect(refusalInLog([], log.make('symptom.recorded', { symptom: 'silence' }), log.around)).toBe(
      'not-open',
    );
    expect(log.refuses('job.opened', log.job.call)).toBe('already-open');
  });

  it('lets nothing be connected, armed or cranked while a stop stands', () => {
    const log = planned();
    log.take('stop.raised', { stop: 'fuel-smell' });
    expect(log.refuses('clamp.attached', { clamp: 'redCasualty', pointId: 'plus' })).toBe('stop-active');
    expect(log.refuses('attempt.started', {})).toBe('stop-active');
    expect(log.refuses('pack.switched', { on: true })).toBe('stop-active');
    expect(log.refuses('donor.switched', { running: true })).toBe('stop-active');
    expect(log.refuses('stop.withdrawn', { stop: 'fuel-smell', reason: '  ' })).toBe('reason-missing');
    expect(log.refuses('stop.withdrawn', { stop: 'frozen', reason: 'warmed' })).toBe('stop-not-raised');
    log.take('stop.withdrawn', { stop: 'fuel-smell', reason: 'cap was off, aired' });
    expect(log.refuses('clamp.attached', { clamp: 'redCasualty', pointId: 'plus' })).toBeNull();
  });

  it('ends a stop that a reading shows by another reading, by no word', () => {
    const log = planned();
    const read = (volts: number) =>
      log.take('reading.taken', { kind: 'rest', volts, battery: 0, tempC: -4, source: 'typed' });
    read(-11.2);
    expect(log.refuses('stop.withdrawn', { stop: 'polarity-unknown', reason: 'sure' })).toBe(
      'stop-not-raised',
    );
    expect(log.refuses('clamp.attached', { clamp: 'redCasualty', pointId: 'plus' })).toBe('stop-active');
    read(11.9);
    expect(log.refuses('clamp.attached', { clamp: 'redCasualty', pointId: 'plus' })).toBeNull();
  });

  it('still lets clamps come off while a stop stands', () => {
    const log = connected();
    log.take('stop.raised', { stop: 'gas-smell' });
    expect(log.refuses('clamp.detached', { clamp: 'blackCasualty' })).toBeNull();
  });

  it('wants a plan and a proved polarity before a clamp', () => {
    const log = new Log();
    expect(log.refuses('clamp.attached', { clamp: 'redCasualty', pointId: 'plus' })).toBe('no-plan');
    log.take('plan.chosen', PLAN);
    expect(log.refuses('clamp.attached', { clamp: 'redCasualty', pointId: 'plus' })).toBe(
      'polarity-unproved',
    );
    expect(log.refuses('polarity.proved', { signs: ['mark', 'mark'] })).toBe('polarity-unproved');
  });

  it('knows which clamps are on', () => {
    const log = planned();
    log.take('clamp.attached', { clamp: 'redCasualty', pointId: 'plus' });
    expect(log.refuses('clamp.attached', { clamp: 'redCasualty', pointId: 'ground' })).toBe(
      'clamp-already-on',
    );
    expect(log.refuses('clamp.detached', { clamp: 'redSource' })).toBe('clamp-already-off');
    expect(log.refuses('plan.chosen', PLAN)).toBe('plan-in-use');
    expect(log.refuses('attempt.started', {})).toBe('clamps-unfinished');
  });

  it('keeps a live pack on until it is switched off', () => {
    const log = new Log();
    log.take('polarity.proved', { signs: ['mark', 'meter'] });
    log.take('plan.chosen', { ...PLAN, sourceId: 'lithium', sourceKind: 'lithium-pack', leadSetId: null });
    log.take('clamp.attached', { clamp: 'redCasualty', pointId: 'plus' });
    log.take('clamp.attached', { clamp: 'blackCasualty', pointId: 'ground' });
    log.take('pack.switched', { on: true });
    expect(log.refuses('clamp.detached', { clamp: 'blackCasualty' })).toBe('pack-still-on');
    expect(log.refuses('pack.switched', { on: true })).toBe('pack-already-so');
    expect(log.refuses('attempt.started', {})).toBeNull();
  });

  it('wants rest between tries, unless told why not', () => {
    const log = connected();
    log.take('attempt.started', {});
    expect(log.refuses('attempt.started', {})).toBe('attempt-running');
    log.take('attempt.ended', { outcome: 'slow', seconds: 8, lowestVolts: 9 }, 8);
    const at = (seconds: number): string =>
      new Date(Date.parse(log.events.at(-1)!.at) + seconds * 1000).toISOString();
    expect(restSecondsLeft(log.job, at(20), DEFAULT_RULES)).toBe(40);
    expect(log.refuses('attempt.started', {}, 20)).toBe('rest-first');
    expect(log.refuses('attempt.started', {}, 61)).toBeNull();
    log.take('override.given', { rule: 'crankRestSeconds', reason: 'one second of crank only' }, 10);
    expect(log.refuses('attempt.started', {}, 5)).toBeNull();
  });

  it('sends the user back to the checks after four tries', () => {
    const log = connected();
    for (let i = 0; i < DEFAULT_RULES.crankTriesMax; i++) {
      log.take('attempt.started', {}, 90);
      log.take('attempt.ended', { outcome: 'slow', seconds: 8, lowestVolts: null }, 8);
    }
    expect(log.refuses('attempt.started', {}, 90)).toBe('tries-spent');
    log.take('finding.recorded', { check: 'look-joints', found: 'deposits' });
    expect(log.refuses('attempt.started', {}, 90)).toBeNull();
  });

  it('does not crank a running engine', () => {
    const log = connected();
    log.take('attempt.started', {});
    log.take('attempt.ended', { outcome: 'started', seconds: 2, lowestVolts: null });
    expect(log.refuses('attempt.started', {}, 600)).toBe('already-running');
    expect(log.refuses('attempt.ended', { outcome: 'slow', seconds: 1, lowestVolts: null })).toBe(
      'no-attempt-running',
    );
  });

  it('takes no figure that cannot be', () => {
    const log = new Log();
    const rest = (volts: number) =>
      log.refuses('reading.taken', { kind: 'rest', volts, battery: 0, tempC: 0, source: 'typed' });
    expect(rest(120)).toBe('value-out-of-range');
    expect(rest(NaN)).toBe('value-out-of-range');
    expect(rest(-12.1)).toBeNull();
  });

  it('closes only with everything off and a verdict given', () => {
    const log = connected();
    expect(log.refuses('job.closed', { note: '' })).toBe('clamps-still-on');
    for (const clamp of ['blackCasualty', 'blackSource', 'redSource', 'redCasualty'] as const) {
      log.take('clamp.detached', { clamp });
    }
    expect(log.refuses('job.closed', { note: '' })).toBe('no-verdict');
    log.take('verdict.given', {
      verdict: 'charge-first',
      suspect: null,
      certainty: 'unsure',
      followUps: [],
    });
    log.take('job.closed', { note: '' });
    expect(log.job.closedAt).not.toBeNull();
    expect(log.refuses('symptom.recorded', { symptom: 'silence' })).toBe('job-closed');
  });
});

describe('a note', () => {
  it('is kept in order with who wrote it, goes on the sheet, and is taken back by undo', () => {
    const log = new Log();
    log.take('note.added', { text: 'owner waits inside' });
    log.take('note.added', { text: 'plus clamp was loose' });
    expect(log.job.notes!.map(({ text }) => text)).toEqual(['owner waits inside', 'plus clamp was loose']);
    expect(sheetOfJob(log.job, log.machine, 0).notes).toEqual(log.job.notes!);
    log.take('event.undone', { eventId: log.events.at(-1)!.id });
    expect(log.job.notes!.map(({ text }) => text)).toEqual(['owner waits inside']);
  });

  it('says something', () => {
    const log = new Log();
    expect(log.refuses('note.added', { text: '  ' })).toBe('reason-missing');
  });
});

describe('a photo', () => {
  it('stands with its words, its time and its name, goes on the sheet, and is taken back by undo', () => {
    const log = new Log();
    log.take('photo.added', { photoId: 'p1', caption: 'date mark', showsPerson: false });
    expect(log.job.photos).toEqual([
      { photoId: 'p1', caption: 'date mark', showsPerson: false, by: 'crew-1', at: log.events.at(-1)!.at },
    ]);
    expect(sheetOfJob(log.job, log.machine, 0).photos).toEqual(log.job.photos!);
    log.take('event.undone', { eventId: log.events.at(-1)!.id });
    expect(log.job.photos).toBeUndefined();
  });
});

describe('another battery than the record says', () => {
  const AGM_95 = ratedEn('agm', 95, 850);
  const found = { battery: 0, rating: AGM_95 } as const;

  it('is the one that every answer counts with from then on, and is taken back by undo', () => {
    const log = new Log();
    const { rating } = log.machine.batteries[0]!;
    log.take('reading.taken', { kind: 'rest', volts: 12.1, battery: 0, tempC: -4, source: 'typed' });
    log.take('battery.found', found);
    const situation = situationIn(log.job, log.machine);
    expect(situation.machine.batteries[0]!.rating).toEqual(AGM_95);
    expect(situation.restVolts).toEqual([12.1]);
    expect(profileOfJob(log.job, log.machine).rating).toEqual(AGM_95);
    expect(sheetOfJob(log.job, log.machine, 0).machine.batteries[0]).toEqual(
      jasmine.objectContaining({ capacityAh: 95 }),
    );
    log.take('event.undone', { eventId: log.events.at(-1)!.id });
    expect(situationIn(log.job, log.machine).machine.batteries[0]!.rating).toEqual(rating);
  });

  it('ends a plan that nobody has begun, and is refused where this job has fitted one itself', () => {
    const log = new Log();
    log.take('plan.chosen', PLAN);
    log.take('battery.found', found);
    expect(log.job.plan).toBeNull();
    expect(log.refuses('battery.found', { ...found, battery: 1 })).toBe('no-such-battery');
    log.take('battery.replaced', { battery: 0, rating: AGM_95 });
    expect(log.refuses('battery.found', found)).toBe('already-fitted');
  });

  it('leaves the earlier strength of the battery that is gone out of what is found', () => {
    const log = new Log();
    const earlier = { closedAt: null, days: 20, causes: [], strengths: [{ share: 0.4, spread: 0.05 }] };
    const strengths = () => {
      const record = { machine: log.machine, donor: CAR, kit: KIT, earlierFlatCalls: 0, earlier };
      return findingsOfJob(log.job, situationOf(log.job, record, DEFAULT_RULES)).earlier!.strengths;
    };
    expect(strengths()).toEqual(earlier.strengths);
    log.take('battery.found', found);
    expect(strengths()).toEqual([null]);
  });
});

describe('outcomeOfJob', () => {
  it('counts minutes from the arrival to the first start, and names the kit that helped', () => {
    const log = planned();
    // The call was taken at 02:40; the polarity is the first thing at the machine, a minute later.
    expect(outcomeOfJob(log.job, 1).startedBy).toBeNull();
    log.take('donor.switched', { running: true });
    for (const clamp of ['redCasualty', 'redSource', 'blackSource', 'blackCasualty'] as const)
      log.take('clamp.attached', { clamp, pointId: 'plus' });
    log.take('attempt.started', {}, 240);
    log.take('attempt.ended', { outcome: 'slow', seconds: 5, lowestVolts: 8.2 }, 5);
    log.take('attempt.started', {}, 235);
    log.take('attempt.ended', { outcome: 'started', seconds: 2, lowestVolts: 9.8 }, 60);
    const { minutesToRunning, ...outcome } = outcomeOfJob(log.job, 1);
    // Plan, engine and four clamps a minute each, then 240 + 5 + 235 + 60 s.
    expect(minutesToRunning).toBeCloseTo(6 + 9, 6);
    expect(outcome).toEqual({
      startedBy: 'donor',
      batteriesFitted: 0,
      wasCharged: false,
      helpedTries: [
        { sourceId: 'donor', sourceKind: 'donor', odds: null, started: false },
        { sourceId: 'donor', sourceKind: 'donor', odds: null, started: true },
      ],
      overridden: [],
    });
  });

  it('counts a start by itself, and each rule that was overridden once', () => {
    const log = new Log();
    log.take('note.added', { text: 'on the way' }, 600);
    for (let i = 0; i < 2; i++) log.take('override.given', { rule: 'crankTriesMax', reason: 'cold' });
    log.take('attempt.started', {});
    log.take('attempt.ended', { outcome: 'started', seconds: 1, lowestVolts: 10.1 });
    const outcome = outcomeOfJob(log.job, 2);
    expect(outcome.startedBy).toBe('itself');
    expect(outcome.minutesToRunning).toBeCloseTo(3, 6);
    expect(outcome.overridden).toEqual(['crankTriesMax']);
    expect(outcome.helpedTries).toEqual([]);
  });
});
