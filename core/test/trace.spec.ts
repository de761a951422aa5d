import {
  batteryOhms,
  batteryOpenVolts,
  type BatteryRating,
  type BatteryState,
  strengthShare,
} from '../src/battery/index.js';
import { aloneRescue } from '../src/circuit/index.js';
import { type CrankCase, simulateCrank, toSpice } from '../src/crank/index.js';
import type { Engine } from '../src/engine/index.js';
import { type RecordedTry, recordTry } from '../src/practice/index.js';
import { seededRandom } from '../src/quantities/index.js';
import { analyseTrace, evened, gapsOf, type Recording, strengthFromCrank } from '../src/trace/index.js';
import { BATTERY_60, BATTERY_95 } from './fixtures.js';
import { runNgspice } from './ngspice.js';

const FOUR: Engine = { fuel: 'petrol', displacementL: 1.6, cylinders: 4, systemVolts: 12 };
const THREE: Engine = { fuel: 'petrol', displacementL: 1, cylinders: 3, systemVolts: 12 };
const SIX: Engine = { fuel: 'diesel', displacementL: 3, cylinders: 6, systemVolts: 12 };
const TRUCK: Engine = { fuel: 'diesel', displacementL: 6.7, cylinders: 6, systemVolts: 24 };

function crankOf(engine: Engine, rating: BatteryRating, state: BatteryState, seconds = 3): CrankCase {
  const model = { openVolts: batteryOpenVolts(rating, state), ohms: batteryOhms(rating, state) };
  const batteries = Array.from({ length: engine.systemVolts / 12 }, () => ({ rating, state }));
  return {
    engine,
    batteries,
    seconds,
    rescue: aloneRescue(
      batteries.map(() => model),
      state.tempC,
    ),
  };
}

const GOOD: BatteryState = { soc: 0.85, tempC: 5, ageing: 1.2 };
const WEAK: BatteryState = { soc: 0.8, tempC: 5, ageing: 3 };

const tryOf = (crank: CrankCase, more: Partial<RecordedTry> = {}): RecordedTry => ({
  crank,
  restSeconds: 2,
  keyOnAmps: 12,
  keyOnSeconds: 1.5,
  afterSeconds: 12,
  chargingVolts: null,
  stepSeconds: 0.001,
  ...more,
});
const meter = (seed: number) => ({ random: seededRandom(seed), volts: 0.01, voltsStep: 0.005 });
const subject = ({ systemVolts, cylinders }: Engine) => ({ systemVolts, cylinders });
const withoutAmps = ({ seconds, volts }: Recording): Recording => ({ seconds, volts, amps: null });

describe('analyseTrace', () => {
  const CASES: [string, CrankCase][] = [
    ['four cylinders, good battery', crankOf(FOUR, BATTERY_60, GOOD)],
    ['four cylinders, worn battery', crankOf(FOUR, BATTERY_60, WEAK)],
    ['three cylinders', crankOf(THREE, BATTERY_60, GOOD)],
    ['six-cylinder diesel', crankOf(SIX, BATTERY_95, GOOD)],
    ['24 V string', crankOf(TRUCK, BATTERY_95, GOOD)],
  ];

  for (const [name, crank] of CASES) {
    it(`finds in a noisy log of volts what the simulator did: ${name}`, () => {
      const truth = simulateCrank(crank);
      const found = analyseTrace(withoutAmps(recordTry(tryOf(crank), meter(3))), subject(crank.engine));
      const open = crank.rescue.casualty.reduce((sum, b) => sum + b.openVolts, 0);
      const ohms = crank.rescue.casualty.reduce((sum, b) => sum + b.ohms, 0);
      expect(found.restVolts).toBeCloseTo(open, 1);
      expect(found.keyOnDropVolts).toBeCloseTo(12 * ohms, 1);
      expect(found.crank!.fromSeconds).toBeCloseTo(3.5, 1);
      expect(found.crank!.toSeconds).toBeCloseTo(6.5, 1);
      expect(Math.abs(found.crank!.inrushVolts - truth.dipVolts)).toBeLessThan(0.08);
      const lowest = Math.min(...truth.postVolts.slice(250));
      expect(Math.abs(found.crank!.minimumVolts - lowest)).toBeLessThan(0.1);
      const rpm = truth.rpm.slice(500, 2900).reduce((a, b) => a + b, 0) / 2400;
      expect(Math.abs(found.crank!.rpm! / rpm - 1))
        .withContext('rpm')
        .toBeLessThan(0.04);
      expect(found.recovery!.afterSeconds).toBeCloseTo(10, 1);
      expect(found.charging).toBeNull();
      expect(found.notes).toEqual([]);
    });
  }

  it('finds the charging come in after a start', () => {
    const crank = crankOf(FOUR, BATTERY_60, GOOD, 1.5);
    const found = analyseTrace(
      recordTry(tryOf(crank, { afterSeconds: 5, chargingVolts: 14.2 }), meter(4)),
      subject(FOUR),
    );
    expect(found.crank!.toSeconds).toBeCloseTo(5, 1);
    expect(found.charging!.volts).toBeCloseTo(14.2, 1);
    expect(found.charging!.atSeconds).toBeGreaterThan(5);
    expect(found.charging!.atSeconds).toBeLessThan(6);
    expect(found.recovery).toBeNull();
  });

  it('tells an uneven compression from an even one, by volts as by amps', () => {
    const even = crankOf(FOUR, BATTERY_60, GOOD, 4);
    const uneven = { ...even, compression: [1, 1, 0.2, 1] };
    for (const asLogged of [withoutAmps, (r: Recording) => r]) {
      const share = (crank: CrankCase): number =>
        analyseTrace(asLogged(recordTry(tryOf(crank), meter(5))), subject(FOUR)).crank!.unevenShare!;
      expect(share(even)).toBeLessThan(0.15);
      expect(share(uneven)).toBeGreaterThan(0.35);
    }
  });

  it('keeps the right speed with a dead cylinder, and says what share it lacks', () => {
    for (const [engine, rating, dead] of [
      [FOUR, BATTERY_60, [1, 1, 0, 1]],
      [THREE, BATTERY_60, [1, 0, 1]],
      [SIX, BATTERY_95, [1, 1, 1, 1, 0, 1]],
      [{ fuel: 'petrol', displacementL: 0.7, cylinders: 2, systemVolts: 12 }, BATTERY_60, [1, 0]],
    ] as const) {
      const crank: CrankCase = { ...crankOf(engine, rating, GOOD, 4), compression: dead };
      const truth = simulateCrank(crank);
      const rpm = truth.rpm.slice(500, 3900).reduce((a, b) => a + b, 0) / 3400;
      for (const asLogged of [withoutAmps, (r: Recording) => r]) {
        const found = analyseTrace(asLogged(recordTry(tryOf(crank), meter(6))), subject(engine)).crank!;
        expect(Math.abs(found.rpm! / rpm - 1))
          .withContext(`${engine.cylinders} cylinders, ${found.rpm} against ${rpm}`)
          .toBeLessThan(0.05);
        expect(found.unevenShare).withContext(`${engine.cylinders} cylinders`).toBeGreaterThan(0.6);
      }
    }
  });

  /** A log in steps of a millisecond, from volts by time. */
  const logOf = (seconds: number, volts: (t: number) => number, amps?: (t: number) => number): Recording => {
    const grid = Float64Array.from({ length: Math.round(seconds * 1000) }, (_, i) => i / 1000);
    const noise = seededRandom(9);
    return {
      seconds: grid,
      volts: grid.map((t) => volts(t) + (noise() - 0.5) * 0.02),
      amps: amps ? grid.map(amps) : null,
    };
  };

  it('tells a solenoid that chatters from a crank, and counts it', () => {
    for (const perSecond of [5, 9, 14]) {
      const isDrawn = (t: number): boolean => t > 2 && t < 5 && ((t - 2) * perSecond) % 1 < 0.6;
      const found = analyseTrace(
        logOf(7, (t) => (isDrawn(t) ? 8.1 : 11.9)),
        subject(FOUR),
      );
      expect(found.notes).withContext(`${perSecond}`).toContain('chatters');
      expect(Math.abs(found.crank!.chatterPerSecond! - perSecond)).toBeLessThan(1);
      expect(found.crank!.rpm).toBeNull();
    }
    for (const engine of [FOUR, THREE, SIX]) {
      const turned = analyseTrace(
        recordTry(tryOf(crankOf(engine, BATTERY_95, GOOD)), meter(2)),
        subject(engine),
      );
      expect(turned.crank!.chatterPerSecond).toBeNull();
      expect(turned.notes).not.toContain('chatters');
    }
    const single: Engine = { fuel: 'petrol', displacementL: 0.45, cylinders: 1, systemVolts: 12 };
    const small: BatteryRating = { chemistry: 'agm', capacityAh: 8, ccaAmps: 120, ccaStandard: 'SAE' };
    const alone = analyseTrace(recordTry(tryOf(crankOf(single, small, GOOD)), meter(2)), subject(single));
    expect(alone.crank!.chatterPerSecond).toBeNull();
  });

  it('gives what it can of a recording that begins or ends in the crank, and says so', () => {
    const crank = crankOf(FOUR, BATTERY_60, GOOD);
    const whole = recordTry(tryOf(crank), meter(3));
    const cut = (from: number, to: number): Recording => ({
      seconds: whole.seconds.slice(from, to),
      volts: whole.volts.slice(from, to),
      amps: null,
    });
    const rpm = analyseTrace(withoutAmps(whole), subject(FOUR)).crank!.rpm!;
    const late = analyseTrace(cut(4200, 12_000), subject(FOUR));
    expect(late.notes).toContain('starts-in-crank');
    expect(late.restVolts).toBeNull();
    expect(late.crank!.toSeconds).toBeCloseTo(2.3, 1);
    expect(Math.abs(late.crank!.rpm! / rpm - 1)).toBeLessThan(0.05);
    expect(late.recovery).not.toBeNull();
    const early = analyseTrace(cut(0, 5400), subject(FOUR));
    expect(early.notes).toContain('ends-in-crank');
    expect(early.restVolts).not.toBeNull();
    expect(Math.abs(early.crank!.rpm! / rpm - 1)).toBeLessThan(0.05);
  });

  it('turns round what was logged the wrong way round, leaves lone leaps out, and says so', () => {
    const logged = recordTry(tryOf(crankOf(FOUR, BATTERY_60, GOOD)), meter(3));
    const base = analyseTrace(logged, subject(FOUR));
    const alike = (recording: Recording, note: string): void => {
      const found = analyseTrace(recording, subject(FOUR));
      expect(found.notes as readonly string[]).toEqual([note]);
      expect(found.restVolts).toBeCloseTo(base.restVolts!, 2);
      expect(found.crank!.meanVolts).toBeCloseTo(base.crank!.meanVolts, 1);
      expect(found.crank!.meanAmps!).toBeCloseTo(base.crank!.meanAmps!, -1);
      expect(found.crank!.minimumVolts).toBeCloseTo(base.crank!.minimumVolts, 1);
    };
    alike({ ...logged, volts: logged.volts.map((v) => -v) }, 'probes-reversed');
    alike({ ...logged, amps: logged.amps!.map((a) => -a) }, 'clamp-reversed');
    const leaping = Float64Array.from(logged.volts);
    for (const [at, by] of [
      [700, 30],
      [4100, -9],
      [4101, -9],
      [5200, 12],
      [9000, -20],
    ] as const)
      leaping[at]! += by;
    alike({ ...logged, volts: leaping }, 'spikes');
    expect(base.notes).toEqual([]);
  });

  it('says when the lowest volts are the floor of the logger', () => {
    const logged = withoutAmps(recordTry(tryOf(crankOf(FOUR, BATTERY_60, WEAK)), meter(3)));
    const { meanVolts } = analyseTrace(logged, subject(FOUR)).crank!;
    const floored = { ...logged, volts: logged.volts.map((v) => Math.max(v, meanVolts)) };
    expect(analyseTrace(floored, subject(FOUR)).notes).toContain('clipped');
    expect(analyseTrace(logged, subject(FOUR)).notes).not.toContain('clipped');
  });

  it('finds the same in a slower log, another zero of time, and a faster one', () => {
    const crank = crankOf(FOUR, BATTERY_60, GOOD);
    const base = analyseTrace(recordTry(tryOf(crank)), subject(FOUR));
    for (const stepSeconds of [0.005, 0.0001]) {
      const logged = recordTry(tryOf(crank, { stepSeconds }));
      const found = analyseTrace({ ...logged, seconds: logged.seconds.map((t) => t + 4000) }, subject(FOUR));
      expect(found.crank!.meanVolts).toBeCloseTo(base.crank!.meanVolts, 1);
      expect(found.crank!.minimumVolts).toBeCloseTo(base.crank!.minimumVolts, 1);
      expect(Math.abs(found.crank!.rpm! / base.crank!.rpm! - 1)).toBeLessThan(0.03);
    }
  });

  it('says what it could not see', () => {
    const logged = recordTry(tryOf(crankOf(FOUR, BATTERY_60, GOOD)));
    const part = (from: number, to: number): Recording => ({
      seconds: logged.seconds.slice(from, to),
      volts: logged.volts.slice(from, to),
      amps: null,
    });
    expect(analyseTrace(part(0, 3000), subject(FOUR)).notes).toEqual(['no-crank']);
    expect(analyseTrace(part(0, 5500), subject(FOUR)).notes).toEqual(['ends-in-crank']);
    const holed = {
      seconds: Float64Array.from([...logged.seconds.slice(0, 1000), ...logged.seconds.slice(1400)]),
      volts: Float64Array.from([...logged.volts.slice(0, 1000), ...logged.volts.slice(1400)]),
      amps: null,
    };
    expect(gapsOf(holed).length).toBe(1);
    expect(analyseTrace(holed, subject(FOUR)).notes).toEqual(['gap']);
    expect(analyseTrace(holed, subject(FOUR)).crank!.fromSeconds).toBeCloseTo(3.5, 1);
  });

  it('finds both cranks of two, and describes the longer', () => {
    const short = recordTry(tryOf(crankOf(FOUR, BATTERY_60, GOOD, 1), { afterSeconds: 6 }));
    const long = recordTry(tryOf(crankOf(FOUR, BATTERY_60, GOOD, 3), { restSeconds: 0.5 }));
    const shift = short.seconds.length * 0.001;
    const both = {
      seconds: Float64Array.from([...short.seconds, ...long.seconds.map((t) => t + shift)]),
      volts: Float64Array.from([...short.volts, ...long.volts]),
      amps: null,
    };
    const found = analyseTrace(both, subject(FOUR));
    expect(found.notes).toContain('more-cranks');
    expect(found.crank!.toSeconds - found.crank!.fromSeconds).toBeCloseTo(3, 1);
  });

  it('finds in what ngspice solved what it finds in our own transient', () => {
    const crank = crankOf(FOUR, BATTERY_60, WEAK);
    const vectors = runNgspice(toSpice(crank));
    const times = vectors.get('time')!;
    const posts = vectors
      .get('v(casualty_battery0_plus)')
      ?.map((v, i) => v - vectors.get('v(casualty_battery0_minus)')![i]!);
    expect(posts)
      .withContext([...vectors.keys()].join(' '))
      .toBeDefined();
    const rest = Array.from({ length: 500 }, (_, i) => i * 0.001);
    const open = crank.rescue.casualty[0]!.openVolts;
    const spice = analyseTrace(
      {
        seconds: Float64Array.from([...rest, ...times.map((t) => t + 0.5)]),
        volts: Float64Array.from([...rest.map(() => open), ...posts!]),
        amps: null,
      },
      subject(FOUR),
    );
    const ours = analyseTrace(
      withoutAmps(
        recordTry(tryOf(crank, { restSeconds: 0.5, keyOnAmps: 0, keyOnSeconds: 0, afterSeconds: 0 })),
      ),
      subject(FOUR),
    );
    expect(Math.abs(spice.crank!.meanVolts - ours.crank!.meanVolts)).toBeLessThan(0.02);
    expect(Math.abs(spice.crank!.minimumVolts - ours.crank!.minimumVolts)).toBeLessThan(0.05);
    expect(Math.abs(spice.crank!.rpm! / ours.crank!.rpm! - 1)).toBeLessThan(0.01);
  });
});

describe('evened', () => {
  it('averages what falls into one step and bridges what none falls into', () => {
    const even = evened({
      seconds: Float64Array.from([0, 0.001, 0.002, 0.003, 0.006, 0.007]),
      volts: Float64Array.from([1, 1, 1, 1, 4, 4]),
      amps: null,
    });
    expect([...even.volts]).toEqual([1, 1, 1, 1, 2, 3, 4, 4]);
    expect(() =>
      evened({ seconds: new Float64Array(1), volts: new Float64Array(1), amps: null }),
    ).toThrowError(RangeError);
  });
});

describe('strengthFromCrank', () => {
  it('finds the ageing that the simulator was given, closely with amps and roughly without', () => {
    for (const ageing of [1, 1.5, 2.5, 4]) {
      const crank = crankOf(FOUR, BATTERY_60, { ...GOOD, ageing });
      const logged = recordTry(tryOf(crank), meter(6));
      const with_ = analyseTrace(logged, subject(FOUR));
      const strength = strengthFromCrank(with_.crank!, with_.restVolts!, BATTERY_60, FOUR, GOOD.tempC)!;
      expect(Math.abs(strength.ageing / ageing - 1))
        .withContext(`${ageing} with amps`)
        .toBeLessThan(0.12);
      expect(strength.share).toBeCloseTo(strengthShare(strength.ageing), 9);
      expect(strength.low).toBeLessThan(strength.share);
      expect(strength.high).toBeGreaterThan(strength.share);
      const blind = analyseTrace(withoutAmps(logged), subject(FOUR));
      const guess = strengthFromCrank(blind.crank!, blind.restVolts!, BATTERY_60, FOUR, GOOD.tempC)!;
      expect(Math.abs(guess.ageing / ageing - 1))
        .withContext(`${ageing} without`)
        .toBeLessThan(0.3);
    }
  });

  it('tells nothing from a crank that hardly drew', () => {
    const crank = { fromSeconds: 0, toSeconds: 2, meanVolts: 12.55, meanAmps: null };
    expect(strengthFromCrank(crank, 12.6, BATTERY_60, FOUR, 5)).toBeNull();
  });
});
