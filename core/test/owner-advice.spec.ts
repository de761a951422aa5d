import { type Advice, ownerAdvice } from '../src/job/index.js';
import type { Machine } from '../src/machine/index.js';
import type { VerdictRecord } from '../src/verdict/index.js';
import { DEFAULT_RULES } from '../src/rules/index.js';
import { CAR, EV, KIT } from './fixtures.js';
import { Log, situationIn } from './job-log.js';

const given = (verdict: VerdictRecord['verdict'], more: Partial<VerdictRecord> = {}): VerdictRecord => ({
  verdict,
  suspect: null,
  certainty: 'sure',
  followUps: [],
  ...more,
});

/** The advice to an owner after this verdict, and after the acts before it. */
function told(
  verdict: VerdictRecord | null,
  before: (log: Log) => void = () => undefined,
  machine: Machine = CAR,
  earlier = 0,
): readonly Advice[] {
  const log = new Log(machine);
  before(log);
  if (verdict) log.take('verdict.given', verdict);
  return ownerAdvice(log.job, situationIn(log.job, machine, KIT, DEFAULT_RULES, earlier));
}
const ids = (advice: readonly Advice[]): string[] => advice.map(({ id }) => id);
const says = (check: 'ask-use' | 'ask-left-on' | 'ask-flats', found: string) => (log: Log) =>
  log.take('finding.recorded', { check, found });

describe('advice for the owner', () => {
  it('is nothing before a verdict, and of what is unsafe only to leave it', () => {
    expect(told(null)).toEqual([]);
    const unsafe = given('unsafe', { followUps: [{ kind: 'workshop', days: 0 }] });
    expect(ids(told(unsafe, says('ask-use', 'short-trips')))).toEqual(['leave-it']);
  });

  it('says what to do now by what the verdict promised, with the figures of this battery', () => {
    const flat = given('charge-first', {
      suspect: 'drain',
      followUps: [
        { kind: 'charge', days: 0 },
        { kind: 'recheck', days: 2 },
        { kind: 'workshop', days: 0 },
      ],
    });
    const advice = told(flat, (log) =>
      log.take('reading.taken', { kind: 'rest', volts: 11.5, battery: 0, tempC: -4, source: 'typed' }),
    );
    expect(ids(advice)).toEqual(['charge-full', 'bring-back', 'workshop', 'unplug-gadgets', 'inspect']);
    // A tenth of 60 Ah.
    expect(advice[0]).toEqual(jasmine.objectContaining({ amps: 6 }));
    const replace = told(given('replace-soon', { followUps: [{ kind: 'replace', days: 14 }] }));
    expect(replace[0]).toEqual(jasmine.objectContaining({ id: 'replace', days: 14 }));
  });

  it('tells to drive on only when it runs by an engine, and an EV to stay awake', () => {
    const start = (log: Log): void => {
      log.take('attempt.started', {});
      log.take('attempt.ended', { outcome: 'started', seconds: 3, lowestVolts: 10.2 });
    };
    expect(ids(told(given('keep')))).toEqual(['inspect']);
    expect(told(given('keep'), start)[0]!.id).toBe('charging-unread');
    const charged = (volts: number) => (log: Log) => {
      start(log);
      log.take('reading.taken', { kind: 'charging-idle', volts, battery: 0, tempC: -4, source: 'meter' });
    };
    expect(told(given('keep'), charged(14.2))[0]!.id).toBe('drive-now');
    // An idling alternator that a flat battery holds down: read again before anybody drives.
    expect(told(given('keep'), charged(13.3))[0]!.id).toBe('charging-unread');
    expect(told(given('keep'), charged(12.3))[0]!.id).toBe('do-not-drive');
    const blamed = given('not-the-battery', {
      suspect: 'charging',
      followUps: [{ kind: 'workshop', days: 0 }],
    });
    expect(ids(told(blamed, start))).toEqual(['do-not-drive', 'workshop', 'inspect']);
    expect(ids(told(given('keep'), start, EV))[0]).toBe('keep-awake');
  });

  it('keeps it from happening again by what was told and found', () => {
    expect(ids(told(given('keep'), says('ask-use', 'short-trips')))).toContain('charge-monthly');
    expect(ids(told(given('keep'), says('ask-left-on', 'yes')))).toContain('switch-off-first');
    expect(ids(told(given('keep'), says('ask-flats', 'yes')))).toContain('flat-again');
    expect(ids(told(given('keep'), undefined, CAR, 1))).toContain('flat-again');
    const drained = told(given('keep'), (log) =>
      log.take('finding.recorded', { check: 'drain', found: 0.3 }),
    );
    expect(ids(drained)).toContain('unplug-gadgets');
    const deep = told(given('keep'), (log) =>
      log.take('reading.taken', { kind: 'rest', volts: 9.1, battery: 0, tempC: -4, source: 'typed' }),
    );
    expect(ids(deep)).toContain('deep-hurts');
  });

  it('takes minus off while parked only where nothing must be set again for it', () => {
    const parked = says('ask-use', 'stood-weeks');
    expect(ids(told(given('keep'), parked))).toEqual(['maintainer', 'minus-off', 'inspect']);
    const remembers = { ...CAR, resets: ['Radio code'] };
    expect(ids(told(given('keep'), parked, remembers))).toEqual(['maintainer', 'inspect']);
  });
});
