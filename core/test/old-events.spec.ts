import { readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import {
  batteryEntries,
  evidenceOfJob,
  foldJob,
  type Job,
  sheetOfJob,
  type StoredEvent,
  upgradeEvent,
  upgradeLog,
} from '../src/job/index.js';
import { CAR, TRUCK } from './fixtures.js';

/** Six jobs as the program before December 2026 wrote them: one worked by hand through every renamed word, and one for each kind of source. */
const OLD = JSON.parse(
  readFileSync(fileURLToPath(new URL('../../test/data/logs-before-2026-12.json', import.meta.url)), 'utf8'),
) as readonly (readonly StoredEvent[])[];
const BY_HAND = OLD.find((log) => log.some((e) => e.type === 'block.replaced'))!;
const folded = (log: readonly StoredEvent[]): Job => foldJob(upgradeLog(log))!;

describe('an old log', () => {
  it('is read whole: only the stages on a screen are left out', () => {
    for (const log of OLD) {
      const said = log.filter((e) => e.type !== 'stage.opened');
      expect(upgradeLog(log).map((e) => e.id)).toEqual(said.map((e) => e.id));
    }
  });

  it('has none of the old words in it any more', () => {
    expect(JSON.stringify(OLD)).toMatch(/"block"|"probe"|"recheck"|"gravity"|block-plus/);
    const now = JSON.stringify(OLD.map(upgradeLog));
    for (const word of ['block', 'probe', 'machineId', '"gravity"', 'check.recorded', 'stage.opened'])
      expect(now).withContext(word).not.toContain(word);
    // The follow-up of that name stays; the verdict is another word.
    expect(now).toContain('"kind":"recheck"');
    expect(now).not.toContain('"verdict":"recheck"');
  });

  it('tells the same job: readings by battery, looks as findings, the verdict, the changed battery', () => {
    const job = folded(BY_HAND);
    expect(job.readings.map(({ battery, volts }) => [battery, volts])).toEqual([
      [0, 12.6],
      [1, 11.2],
    ]);
    expect(job.findings['look-joints']).toBe('deposits');
    expect(job.findings['both-batteries']).toBe('clear');
    expect(job.findings['specific-gravity']).toBe('one-cell-low');
    expect(job.findings['key-on']).toBeUndefined();
    expect(job.verdict!.verdict).toBe('charge-first');
    expect(job.verdict!.deciding).toEqual({ check: 'specific-gravity', chance: 0.3 });
    expect(job.fitting).toEqual([{ battery: 1, step: 'negative-off' }]);
    expect(job.replaced[0]!.battery).toBe(1);
    expect(job.modelId).toBe('hulvane-cornice-9');
    expect(job.closedAt).not.toBeNull();
  });

  it('can be weighed, put on a sheet and into the battery record', () => {
    for (const log of OLD) {
      const job = folded(log);
      const machine = job.readings.some((r) => r.battery === 1) ? TRUCK : CAR;
      expect(() => evidenceOfJob(job, machine, 0)).not.toThrow();
      expect(() => sheetOfJob(job, machine, 0)).not.toThrow();
      expect(() => batteryEntries(job, machine)).not.toThrow();
      expect(job.attempts.length).toBe(log.filter((e) => e.type === 'attempt.ended').length);
    }
  });

  it('is left as it is when it is read a second time', () => {
    for (const log of OLD) {
      const once = upgradeLog(log);
      expect(upgradeLog(once)).toEqual(once);
      for (const event of once) expect(upgradeEvent(event)).toEqual(event);
    }
  });
});
