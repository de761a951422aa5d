import { outlookOn, type StandingVehicle } from '../src/belief/index.js';
import { seededRandom } from '../src/quantities/index.js';
import { DEFAULT_RULES } from '../src/rules/index.js';
import { CAR } from './fixtures.js';
import { shareOf } from './proof-share.js';
import { calibrationError, type Claim, deciles, reliabilityLines } from './reliability.js';
import { liveWinter, lowsOf } from './truth/winter.js';

const NOBODY: StandingVehicle = {
  machine: CAR,
  earlier: null,
  years: [],
  use: 'regular',
  left: null,
  found: null,
};
const BAR = 0.9;
const at = (vehicle: StandingVehicle, lowC: number, daysAhead = 1) =>
  outlookOn(vehicle, [{ lowC, daysAhead }], BAR, DEFAULT_RULES, seededRandom(3));
const strength = (share: number) => ({
  closedAt: null,
  days: 5,
  causes: [],
  strengths: [{ share, spread: 0.03 }],
});

describe('a watch before the frost', () => {
  it('asks about the coldest of several nights', () => {
    const nights = [-2, -19, -8].map((lowC, i) => ({ lowC, daysAhead: i + 1 }));
    const worn = { ...NOBODY, earlier: strength(0.45) };
    const outlook = outlookOn(worn, nights, BAR, DEFAULT_RULES, seededRandom(3));
    expect(outlook.night).toBe(1);
    expect(outlook.start).toBeLessThan(at(worn, -2).start);
  });

  it('trusts a sound car in use, and never a colder night more', () => {
    const sound = { ...NOBODY, earlier: strength(0.95) };
    expect(at(sound, -10).start).toBeGreaterThan(0.95);
    expect(at(sound, -10).reason).toBeNull();
    const shares = [5, -5, -15, -25].map((lowC) => at({ ...NOBODY, earlier: strength(0.5) }, lowC).start);
    expect(shares).toEqual([...shares].sort((a, b) => b - a));
  });

  it('names a weak battery, and changes it', () => {
    const { start, reason, cure } = at({ ...NOBODY, earlier: strength(0.3) }, -15);
    expect(start).toBeLessThan(0.6);
    expect(reason).toBe('battery');
    expect(cure?.kind).toBe('replace');
    expect(cure?.start).toBeGreaterThan(0.9);
  });

  it('keeps a machine that stands on a maintainer, and the longer it stood the less it starts', () => {
    const stood = (days: number) =>
      at({ ...NOBODY, use: 'stood-weeks', earlier: strength(0.8), left: { soc: 0.6, days } }, -12);
    expect(stood(20).start).toBeGreaterThan(stood(45).start);
    expect(stood(45).reason).toBe('charge');
    expect(stood(45).cure?.kind).toBe('maintainer');
  });

  it('tightens a joint that the last job named, and believes it less half a year on', () => {
    const named = (days: number): StandingVehicle => ({
      ...NOBODY,
      earlier: { ...strength(0.9), days, causes: [{ cause: 'joint-positive', share: 0.95 }] },
    });
    const soon = at(named(3), -12);
    expect(soon.reason).toBe('joint');
    expect(soon.cure?.kind).toBe('tighten');
    expect(at(named(200), -12).start).toBeGreaterThan(soon.start);
  });

  it('sends a car whose alternator gives nothing to a workshop', () => {
    const outlook = at(
      { ...NOBODY, earlier: { ...strength(0.85), causes: [{ cause: 'charging', share: 0.98 }] } },
      -10,
      6,
    );
    expect(outlook.reason).toBe('charging');
  });

  it('asks a machine that wakes for its volts', () => {
    const wakes = { ...NOBODY, machine: { ...CAR, machineClass: 'ev' as const, engine: null } };
    expect(at(wakes, -10).start).toBeGreaterThan(0.9);
    const flat = { ...wakes, use: 'stood-weeks' as const, left: { soc: 0.12, days: 6 } };
    expect(at(flat, -10).start).toBeLessThan(0.2);
  });

  it('needs a night', () => {
    expect(() => outlookOn(NOBODY, [], BAR, DEFAULT_RULES, seededRandom(1))).toThrowError(RangeError);
  });
});

/** Winters of 400 vehicles in the whole proof. */
const WINTERS = 20;

describe('a watch against winters of a world drawn apart', () => {
  it('has three times as many of those that strand in its first tenth as chance, and odds that hold', () => {
    const random = seededRandom(2611);
    const winters = Math.max(1, Math.round(WINTERS * shareOf(1 / WINTERS)));
    // A part of them strays by chance.
    const isWhole = winters === WINTERS;
    const claims: Claim[] = [];
    let [stranded, listed] = [0, 0];
    for (let winter = 0; winter < winters; winter++) {
      const lows = lowsOf(random);
      const nights = lows.slice(-7).map((low, i) => ({ lowC: low, daysAhead: i + 1 }));
      const lived = Array.from({ length: 400 }, () => liveWinter(lows, random)).map((vehicle) => ({
        ...vehicle,
        outlook: outlookOn(vehicle.known, nights, BAR, DEFAULT_RULES, random),
      }));
      for (const { outlook, starts } of lived)
        claims.push({ claim: outlook.start, isMet: starts[outlook.night]! });
      const worstFirst = [...lived].sort((a, b) => a.outlook.start - b.outlook.start);
      stranded += lived.filter(({ strands }) => strands).length;
      listed += worstFirst.slice(0, lived.length / 10).filter(({ strands }) => strands).length;
    }
    process.stdout.write(
      [
        `winter watch: ${claims.length} vehicles, ${stranded} stranded, ${listed} of them in the first tenth; ` +
          `calibration error ${calibrationError(claims).toFixed(3)}`,
        ...reliabilityLines(deciles(claims)),
        '',
      ].join('\n'),
    );
    expect(stranded).toBeGreaterThan(0);
    expect(listed / stranded).toBeGreaterThanOrEqual(isWhole ? 0.3 : 0.2);
    expect(calibrationError(claims)).toBeLessThan(isWhole ? 0.05 : 0.08);
  }, 120_000);
});
