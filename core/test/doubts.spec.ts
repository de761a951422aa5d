import type { ReadingKind } from '../src/diagnosis/index.js';
import { batteryEntries, doubtOf, evidenceOfJob, withoutDoubts, toolsOfKit } from '../src/job/index.js';
import type { Machine } from '../src/machine/index.js';
import { CAR, EV, KIT } from './fixtures.js';
import { Log } from './job-log.js';

const reading = (kind: ReadingKind, volts: number, tempC = 5) =>
  ({ kind, volts, battery: 0, tempC, source: 'typed' }) as const;

const MILD = {
  place: 'yard',
  sloping: false,
  dark: false,
  enclosed: false,
  ambientC: 5,
  mainsNear: false,
} as const;

/** The doubt on the last reading. */
function lastDoubt(log: Log, machine: Machine = CAR) {
  const { job } = log;
  return doubtOf(job, machine, job.readings.at(-1)!);
}

describe('doubtOf', () => {
  it('questions a charging voltage of an engine that never ran, until it is read again', () => {
    const log = new Log();
    log.take('reading.taken', reading('charging-idle', 14.4));
    expect(lastDoubt(log)).toBe('charging-but-still');
    expect(evidenceOfJob(log.job, CAR, 0)).toEqual([]);
    log.take('reading.taken', reading('charging-idle', 14.38));
    expect(lastDoubt(log)).toBeNull();
    expect(evidenceOfJob(log.job, CAR, 0).map((e) => e.check)).toContain('charging');
  });

  it('questions rest volts that moved by themselves, and not those of a battery that was lifted between', () => {
    const byItself = new Log();
    byItself.take('reading.taken', reading('rest', 2.8));
    byItself.take('reading.taken', reading('rest', 11.2));
    expect(lastDoubt(byItself)).toBe('rest-moved');
    // Mild: in frost so flat a battery is ice, and no current may go through it.
    const lifted = new Log();
    lifted.take('scene.recorded', MILD);
    lifted.take('reading.taken', reading('rest', 2.8));
    lifted.take('battery.lifted', { battery: 0 });
    lifted.take('reading.taken', reading('rest', 11.2));
    expect(lastDoubt(lifted)).toBeNull();
    lifted.take('reading.taken', reading('rest', 12.4));
    expect(lastDoubt(lifted)).withContext('nothing lifted it a second time').toBe('rest-moved');
    expect(new Log().refuses('battery.lifted', { battery: 3 })).toBe('no-such-battery');
  });

  it('has no doubt of a converter, nor of an engine that ran', () => {
    const still = new Log();
    still.take('reading.taken', reading('charging-idle', 14.4));
    expect(lastDoubt(still, EV)).toBeNull();
    const ran = new Log();
    ran.take('attempt.started', {});
    ran.take('attempt.ended', { outcome: 'started', seconds: 2, lowestVolts: 10.4 });
    ran.take('reading.taken', reading('charging-idle', 14.4));
    expect(lastDoubt(ran)).toBeNull();
  });

  it('takes the charging volts of a machine that was found running, and questions its rest volts', () => {
    const log = new Log();
    log.take('circumstance.noted', { what: 'casualty-engine-runs', on: true });
    log.take('reading.taken', reading('charging-idle', 14.2));
    expect(lastDoubt(log)).toBeNull();
    expect(evidenceOfJob(log.job, CAR, 0).map((e) => e.check)).toEqual(['charging']);
    log.take('reading.taken', reading('rest', 12.6));
    expect(lastDoubt(log)).toBe('too-soon');
    // Stopped again: what is read then is its own.
    log.take('circumstance.noted', { what: 'casualty-engine-runs', on: false });
    log.take('reading.taken', reading('charging-idle', 14.3));
    expect(log.job.readings.at(-1)!.during.casualtyRunning).toBeFalse();
  });

  it('questions a crank above the rest volts', () => {
    const log = new Log();
    log.take('reading.taken', reading('rest', 11.9));
    log.take('reading.taken', reading('crank-minimum', 12.2));
    expect(lastDoubt(log)).toBe('above-rest');
  });

  it('questions rest volts that moved by themselves, and lets the second like reading stand', () => {
    const log = new Log();
    log.take('reading.taken', reading('rest', 12.5));
    log.take('reading.taken', reading('rest', 11.9));
    expect(lastDoubt(log)).toBe('rest-moved');
    expect(withoutDoubts(log.job, CAR).readings.map((r) => r.volts)).toEqual([12.5]);
    log.take('reading.taken', reading('rest', 11.92));
    expect(withoutDoubts(log.job, CAR).readings.at(-1)!.volts).toBe(11.92);
  });

  it('guards against surface charge: too soon after running, or too high to be rest', () => {
    const log = new Log();
    log.take('reading.taken', reading('rest', 13.3));
    expect(lastDoubt(log)).toBe('surface-charge');
    log.take('attempt.started', {});
    log.take('attempt.ended', { outcome: 'started', seconds: 2, lowestVolts: 10.4 });
    log.take('reading.taken', reading('rest', 12.6), 600);
    expect(lastDoubt(log)).toBe('too-soon');
    // Another at once proves nothing; one after the burn-off does.
    log.take('reading.taken', reading('rest', 12.58), 30);
    expect(lastDoubt(log)).toBe('too-soon');
    log.take('reading.taken', reading('rest', 12.55), 240);
    expect(lastDoubt(log)).toBeNull();
  });

  it('lets no doubted reading make another one doubtful: what was read after the burn-off stands in its place', () => {
    const log = new Log();
    log.take('reading.taken', reading('rest', 13.5));
    expect(lastDoubt(log)).toBe('surface-charge');
    log.take('reading.taken', reading('rest', 12.5), 240);
    expect(lastDoubt(log)).toBeNull();
    expect(withoutDoubts(log.job, CAR).readings.map((r) => r.volts)).toEqual([12.5]);
    // Nor does one that is too high make a crank doubtful that lies between the two.
    log.take('reading.taken', reading('crank-minimum', 12.6));
    expect(lastDoubt(log)).toBe('above-rest');
    // A figure that stands still makes the next one answer for itself.
    log.take('reading.taken', reading('rest', 11.7), 240);
    expect(lastDoubt(log)).toBe('rest-moved');
    log.take('reading.taken', reading('rest', 12.48), 240);
    expect(lastDoubt(log)).toBeNull();
  });

  it('withdraws a wrong reading, once', () => {
    const log = new Log();
    const wrong = log.take('reading.taken', reading('rest', 9));
    log.take('reading.withdrawn', { readingId: wrong.id });
    expect(log.job.readings).toEqual([]);
    expect(log.refuses('reading.withdrawn', { readingId: wrong.id })).toBe('no-such-reading');
  });
});

describe('batteryEntries', () => {
  it('holds rest, strength by tester and by crank, and jumps; not what is in doubt', () => {
    const log = new Log();
    log.take('reading.taken', reading('rest', 12.5));
    log.take('finding.recorded', { check: 'conductance', found: 0.72, source: 'meter', figures: [389] });
    log.take('reading.taken', reading('crank-minimum', 9.6));
    log.take('reading.taken', reading('charging-idle', 14.4));
    const entries = batteryEntries(log.job, CAR);
    expect(entries.map((e) => e.kind)).toEqual(['rest', 'strength', 'strength']);
    expect(entries[1]!.share).toBe(0.72);
    expect(entries[2]!.share!).toBeGreaterThan(0.2);
    expect(entries[2]!.share!).toBeLessThan(1);
  });

  it('says nothing of strength from the crank of a flat battery, and begins anew after a change', () => {
    const log = new Log();
    log.take('reading.taken', reading('rest', 11.9));
    log.take('reading.taken', reading('crank-minimum', 7));
    log.take('battery.replaced', { battery: 0, rating: CAR.batteries[0]!.rating });
    expect(batteryEntries(log.job, CAR).map((e) => e.kind)).toEqual(['rest', 'replaced']);
    expect(log.refuses('battery.replaced', { battery: 0, rating: CAR.batteries[0]!.rating })).toBe(
      'already-fitted',
    );
  });
});

describe('toolsOfKit', () => {
  it('counts a charger only where there is a socket', () => {
    expect(toolsOfKit(KIT)).not.toContain('charger');
    expect(toolsOfKit(KIT, true)).toContain('charger');
  });
});
