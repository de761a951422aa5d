import { CONSUMERS, leftOn } from '../src/charging/index.js';
import {
  CHECKS,
  diagnose,
  drawCrowd,
  drawHidden,
  lampsAtKey,
  proposals,
  TOOLS,
  VOLUNTEERED,
} from '../src/diagnosis/index.js';
import { seededRandom } from '../src/quantities/index.js';
import { BATTERY_60, CAR } from './fixtures.js';
import { Log } from './job-log.js';

const PROFILE = {
  machineClass: 'car',
  systemVolts: 12,
  engine: CAR.engine,
  rating: BATTERY_60,
  tempC: 8,
} as const;
const CROWD = drawCrowd(PROFILE, seededRandom(7), 60);
const shareOf = (evidence: Parameters<typeof diagnose>[1], ...causes: string[]): number =>
  diagnose(CROWD, evidence)
    .filter(({ cause }) => causes.includes(cause))
    .reduce((sum, { share }) => sum + share, 0);

describe('what the driver says', () => {
  it('is never proposed, and weighs once it is told', () => {
    expect(proposals(CROWD, [], TOOLS).filter(({ check }) => VOLUNTEERED.includes(check))).toEqual([]);
    expect(VOLUNTEERED.length).toBe(6);
    for (const id of VOLUNTEERED) expect(CHECKS.find((c) => c.id === id)!.outcomes.length).toBeGreaterThan(1);
  });

  it('tells silence with bright lamps from silence with a dead dash', () => {
    const dark = [{ check: 'symptom', found: 'silence' }] as const;
    const bright = [{ check: 'symptom', found: 'silence-bright' }] as const;
    expect(shareOf(bright, 'starter', 'interlock')).toBeGreaterThan(
      1.3 * shareOf(dark, 'starter', 'interlock'),
    );
    expect(shareOf(dark, 'main-fuse')).toBeGreaterThan(2 * shareOf(bright, 'main-fuse'));
  });

  it('has warnings of an electric machine point to what wears or fails to charge, not to what was left on', () => {
    const ev = { ...PROFILE, machineClass: 'ev', engine: null } as const;
    const crowd = drawCrowd(ev, seededRandom(7), 60);
    const share = (found: 'yes' | 'no', ...causes: string[]): number =>
      diagnose(crowd, [{ check: 'ask-warned', found }])
        .filter(({ cause }) => causes.includes(cause))
        .reduce((sum, each) => sum + each.share, 0);
    expect(share('yes', 'worn', 'converter')).toBeGreaterThan(1.5 * share('no', 'worn', 'converter'));
    expect(share('no', 'left-on')).toBeGreaterThan(share('yes', 'left-on'));
  });

  it('points where it should: a squeal to charging, a lit lamp to charging, slow lately away from what was left on', () => {
    const rest = { check: 'rest', found: 11.9 } as const;
    const at = (check: (typeof VOLUNTEERED)[number], found: string, cause: string): number =>
      shareOf([rest, { check, found }], cause) / shareOf([rest], cause);
    expect(at('ask-noise', 'squeal', 'charging')).toBeGreaterThan(1.5);
    expect(at('ask-charge-lamp', 'was-lit', 'charging')).toBeGreaterThan(3);
    expect(at('ask-slow-lately', 'yes', 'worn')).toBeGreaterThan(1.3);
    expect(at('ask-slow-lately', 'yes', 'left-on')).toBeLessThan(0.9);
    expect(at('ask-helped', 'flat-again', 'drain')).toBeGreaterThan(1.5);
  });

  it('sees the lamps behind the joints: a bad joint dims them on a full battery', () => {
    const sound = drawHidden('none', PROFILE, seededRandom(2));
    expect(lampsAtKey(sound, PROFILE)).toBe('stay-bright');
    expect(lampsAtKey({ ...sound, open: true }, PROFILE)).toBe('go-out');
    expect(lampsAtKey({ ...sound, crank: null }, PROFILE)).toBe('stay-bright');
    // 200 A over 20 mOhm are 4 V.
    const crank = { ...sound.crank!, starterAmps: 200, postVolts: 11.5 };
    expect(lampsAtKey({ ...sound, crank, minusOhms: 0.02 }, PROFILE)).toBe('dim');
    expect(lampsAtKey({ ...sound, crank, minusOhms: 0.03 }, PROFILE)).toBe('go-out');
  });

  it('is taken back by its own event, and by none that has nothing to take back', () => {
    const log = new Log();
    expect(log.refuses('finding.withdrawn', { check: 'ask-use' })).toBe('no-such-finding');
    log.take('finding.recorded', { check: 'ask-use', found: 'stood-weeks' });
    log.take('finding.withdrawn', { check: 'ask-use' });
    expect(log.job.findings).toEqual({});
  });
});

describe('what was left on', () => {
  const CAR_12 = { machineClass: 'car', systemVolts: 12 } as const;

  it('leaves something in the 14 Ah of a motorcycle whose one headlamp burned for an hour', () => {
    // 140 W of a car, two fifths of it here: 4.7 A, from the 11.9 Ah that stood in it.
    const left = leftOn({ capacityAh: 14 }, { ...CAR_12, machineClass: 'motorcycle' }, 'headlamps', 1);
    expect(left.takenAh).toBeCloseTo(4.67, 2);
    expect(left.emptyAfterHours).toBeCloseTo(2.55, 2);
  });

  it('takes its amps for its hours, and no more than is there', () => {
    // 140 W at 12 V are 11.7 A: 35 Ah in three hours of the 51 Ah in a parked battery of 60.
    const three = leftOn(BATTERY_60, CAR_12, 'headlamps', 3);
    expect(three.takenAh).toBeCloseTo(35, 1);
    expect(three.socLeft).toBeCloseTo(0.267, 3);
    expect(three.emptyAfterHours).toBeCloseTo(51 / (140 / 12), 3);
    const night = leftOn(BATTERY_60, CAR_12, 'headlamps', 14);
    expect(night.takenAh).toBe(51);
    expect(night.socLeft).toBeCloseTo(0, 9);
  });

  it('takes half the amps of a 24 V machine, and something of every consumer', () => {
    for (const consumer of CONSUMERS) {
      const [low, high] = ([12, 24] as const).map(
        (systemVolts) => leftOn(BATTERY_60, { ...CAR_12, systemVolts }, consumer, 1).takenAh,
      );
      expect(low).toBeCloseTo(2 * high!, 9);
      expect(low).toBeGreaterThan(0);
    }
  });
});
