import { isPossibleNow, TOOLS } from '../src/diagnosis/index.js';
import { runDown } from '../src/charging/index.js';
import { rescueCircuit, solveDc, voltsAcross } from '../src/circuit/index.js';
import { hazardsOf, rescueOf } from '../src/hookup/index.js';
import {
  chargingOfJob,
  entryOf,
  hookupScene,
  plannedOption,
  planRecord,
  plannedRescue,
  rankForJob,
  readingsOf,
  roadOfJob,
  rollingOfJob,
  severeAhead,
  situationOf,
  unacceptedHazards,
} from '../src/job/index.js';
import type { Machine } from '../src/machine/index.js';
import { DEFAULT_RULES } from '../src/rules/index.js';
import { BATTERY_60, CAR, KIT } from './fixtures.js';
import { Log, situationIn } from './job-log.js';

const RECORD = { machine: CAR, donor: CAR, kit: KIT, earlierFlatCalls: 0 };

/** A car with a flat battery whose plan is this option of the van. */
function plannedFor(optionId: string): Log {
  const log = new Log();
  log.take('symptom.recorded', { symptom: 'one-click' });
  log.take('reading.taken', { kind: 'rest', volts: 11.6, battery: 0, tempC: -4, source: 'typed' });
  log.take('polarity.proved', { signs: ['mark', 'meter'] });
  const ranked = rankForJob(situationIn(log.job, CAR)).find(({ option }) => option.id === optionId)!;
  log.take('plan.chosen', planRecord(ranked)!);
  return log;
}

/** The same, its order worked through. */
function joinedTo(optionId: string): Log {
  const log = plannedFor(optionId);
  for (const { action, minutes } of plannedRescue(situationIn(log.job, CAR), log.job.plan)!.orders.hookup) {
    const [type, data] = entryOf(action);
    log.take(type, data as never, minutes ? minutes * 60 : 20);
  }
  return log;
}

/** The same, started with the donor's help, and its clamps still on. */
function helped(): Log {
  const log = joinedTo('donor+heavy');
  log.take('attempt.started', {});
  log.take('attempt.ended', { outcome: 'started', seconds: 3, lowestVolts: 9.6 });
  return log;
}

/** The same, and cleared: it runs by itself. */
function cleared(): Log {
  const log = helped();
  for (const { action } of plannedRescue(situationIn(log.job, CAR), log.job.plan)!.orders.clearing) {
    const [type, data] = entryOf(action);
    log.take(type, data as never, 20);
  }
  return log;
}

const charging = (
  log: Log,
  volts: number,
  kind: 'charging-idle' | 'charging-loaded' = 'charging-idle',
): Log => {
  log.take('reading.taken', { kind, volts, battery: 0, tempC: -4, source: 'typed' });
  return log;
};

describe('the situation of a job', () => {
  it('is that of a running engine after a helped start, from the whole log and from what is kept of it between taps', () => {
    const { job } = helped();
    const whole = situationIn(job, CAR);
    const kept = situationOf(readingsOf(job), RECORD, DEFAULT_RULES);
    expect(whole.casualtyRuns).toBeTrue();
    expect(kept.casualtyRuns).toBeTrue();
    const option = plannedOption(whole, job.plan)!;
    expect(hookupScene(kept, option).casualtyRuns).toBeTrue();
    // An engine charges: the free red clamp is at more volts than any battery. It shorts with more amps than the donor alone.
    const bump = { kind: 'detach', clamp: 'blackCasualty' } as const;
    const worst = (runs: boolean): number =>
      Math.max(
        0,
        ...hazardsOf(
          { ...hookupScene(kept, option), casualtyRuns: runs },
          job.hookup,
          bump,
          DEFAULT_RULES,
        ).map(({ amps }) => amps ?? 0),
      );
    expect(worst(true)).not.toBe(worst(false));
  });

  it('has the volts at the posts of a running engine that were read, not those of a sound alternator', () => {
    const postVolts = (log: Log): number => {
      const situation = situationOf(readingsOf(log.job), RECORD, DEFAULT_RULES);
      const scene = hookupScene(situation, plannedOption(situation, log.job.plan)!);
      const solution = solveDc(rescueCircuit(rescueOf(scene, log.job.hookup)));
      return voltsAcross(solution, 'casualty.battery0+', 'casualty.battery0-');
    };
    expect(postVolts(cleared())).toBeGreaterThan(13.2);
    // A dead alternator gives nothing: the battery stands at its own volts.
    expect(postVolts(charging(cleared(), 11.9))).toBeLessThan(12);
    expect(postVolts(charging(cleared(), 16.2))).toBeGreaterThan(15);
    const mended = charging(cleared(), 11.9);
    mended.take('repair.made', { kind: 'belt-tightened' });
    expect(postVolts(mended)).toBeGreaterThan(13.2);
  });

  it('stays the same object of readings while a tap tells nothing of the machine', () => {
    const log = helped();
    const before = JSON.stringify(readingsOf(log.job));
    log.take('clamp.detached', { clamp: 'blackCasualty' });
    expect(JSON.stringify(readingsOf(log.job))).toBe(before);
  });
});

describe('a rolling start', () => {
  const MANUAL: Machine = { ...CAR, gearbox: 'manual' };

  it('is refused at the choice while a clamp is on, not at the end of its ten steps', () => {
    const before = plannedFor('donor+heavy');
    expect(rollingOfJob(before.job, situationIn(before.job, MANUAL)).bars).not.toContain('clamps-on');
    before.take('clamp.attached', { clamp: 'redCasualty', pointId: 'plus' });
    const rolling = rollingOfJob(before.job, situationIn(before.job, MANUAL));
    expect(rolling.allowed).toBeFalse();
    expect(rolling.bars).toContain('clamps-on');
  });
});

describe('the road after a start', () => {
  it('sends nobody onto it before charging was shown to work', () => {
    const roadAfter = (log: Log) => roadOfJob(log.job, situationIn(log.job, CAR))!;
    expect(roadAfter(helped()).kind).toBe('read-charging');
    expect(roadAfter(charging(cleared(), 14.2)).kind).toBe('drive');
    // A dead alternator: less than the battery itself has at rest.
    expect(roadAfter(charging(cleared(), 11.9)).kind).toBe('do-not-drive');
    expect(roadAfter(charging(charging(cleared(), 13.4), 12.6, 'charging-loaded')).kind).toBe('do-not-drive');
    // Too much is as bad: it boils the battery.
    expect(roadAfter(charging(cleared(), 16.2)).kind).toBe('do-not-drive');
  });

  it('says nothing of the road while it stands still', () => {
    const { job } = joinedTo('donor+heavy');
    expect(roadOfJob(job, situationIn(job, CAR))).toBeNull();
    expect(chargingOfJob(job, situationIn(job, CAR))).toBe('unread');
  });

  it('counts the minutes on the battery alone, by hand', () => {
    // 60 Ah, four fifths of them in an hour or two, down to a fifth: 38.4 Ah. 130 + 140 W at 12 V: 22.5 A. 720 W: 60 A.
    expect(runDown(BATTERY_60, 'car', 1)).toEqual({ lampsMinutes: 102, allOnMinutes: 38 });
    expect(runDown(BATTERY_60, 'car', 0.2)).toEqual({ lampsMinutes: 0, allOnMinutes: 0 });
  });
});

describe('severe hazards', () => {
  it('are told before a way is chosen, need a reason at the step that meets them, and none to take off', () => {
    const log = plannedFor('donor+heavy');
    const situation = situationIn(log.job, CAR);
    expect(severeAhead(plannedRescue(situation, log.job.plan)!, situation)).toEqual([]);
    const severe = { code: 'will-reverse', severity: 'severe', amps: 900 } as never;
    const on = { kind: 'attach', clamp: 'redCasualty', pointId: 'minus' } as const;
    expect(unacceptedHazards(log.job, on, [severe])).toEqual([severe]);
    expect(unacceptedHazards({ accepted: ['reversed'] }, on, [severe])).toEqual([]);
    expect(unacceptedHazards({ accepted: ['dead-short'] } as never, on, [severe])).toEqual([severe]);
    expect(unacceptedHazards({}, { kind: 'detach', clamp: 'redCasualty' }, [severe])).toEqual([]);
  });
});

describe('a proposal', () => {
  const rest = [{ check: 'rest', found: 12.4 }] as const;

  it('asks for no amps before the rest volts, in frost with no meter at hand either', () => {
    for (const check of ['try-alone', 'crank', 'key-on', 'with-help', 'immobiliser-lamp'] as const) {
      expect(isPossibleNow(check, [], TOOLS))
        .withContext(check)
        .toBeFalse();
      expect(isPossibleNow(check, [], [], { mayFreeze: true }))
        .withContext(check)
        .toBeFalse();
      expect(isPossibleNow(check, rest, TOOLS))
        .withContext(check)
        .toBeTrue();
    }
  });

  it('is for a moment that is: nothing recovers before a try, nothing charges before it runs', () => {
    expect(isPossibleNow('recovery', rest, TOOLS)).toBeFalse();
    expect(isPossibleNow('recovery', [...rest, { check: 'try-alone', found: 'clicks' }], TOOLS)).toBeTrue();
    for (const check of ['charging', 'ripple'] as const) {
      expect(isPossibleNow(check, rest, TOOLS))
        .withContext(check)
        .toBeFalse();
      expect(isPossibleNow(check, rest, TOOLS, { runs: true }))
        .withContext(check)
        .toBeTrue();
    }
    expect(isPossibleNow('rest', [], TOOLS, { runs: true })).toBeFalse();
  });
});
