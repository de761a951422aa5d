import fc from 'fast-check';
import { batteryBar, CHEMISTRIES, type Chemistry } from '../src/battery/index.js';
import { revive } from '../src/charging/index.js';
import { restMeaning, TOOLS } from '../src/diagnosis/index.js';
import { hazardsOf, type HandAction, type HookupScene, NOTHING_CONNECTED } from '../src/hookup/index.js';
import type { Machine } from '../src/machine/index.js';
import { chargeChoices, chargePlanOfJob, hookupScene, rankForJob } from '../src/job/index.js';
import { casualtyBatteries } from '../src/belief/index.js';
import { rankOptions, sourceOptions } from '../src/plan/index.js';
import { seededRandom } from '../src/quantities/index.js';
import { DEFAULT_RULES } from '../src/rules/index.js';
import { chargePlan, conclude } from '../src/verdict/index.js';
import { BATTERY_60, CAR, KIT, TRUCK } from './fixtures.js';
import { Log, situationIn } from './job-log.js';
import { crowdForTests, PROVES } from './proof-share.js';
import { sweep } from './sweep.js';

/** Of all batteries at all temperatures so many in `npm test`. */
const USUAL_SHARE = 0.3;

const withChemistry = (machine: Machine, chemistry: Chemistry): Machine => ({
  ...machine,
  batteries: machine.batteries.map((b) => ({ ...b, rating: { ...b.rating, chemistry } })),
});

describe('a battery that no current may go through', () => {
  it('is told from volts and cold, by hand-checked figures of the freezing table', () => {
    const cases: readonly (readonly [Chemistry, number, number, ReturnType<typeof batteryBar>])[] = [
      // Nearly water: freezes at about -1 from 8 V down, at about -3.6 at 9 V, at -11 on the flat line; two degrees are left for doubt.
      ['flooded', 8, -1, 'frozen'],
      ['flooded', 8, 0, null],
      ['flooded', 9, -4, 'frozen'],
      ['flooded', 9, -3, 'frozen'],
      ['flooded', 9, -1, null],
      ['agm', 2, -2, 'frozen'],
      ['flooded', 11.6, -12, 'frozen'],
      ['flooded', 11.7, -8, null],
      ['flooded', 12.65, -40, null],
      ['lfp', 9, -30, null],
      // Backwards from three tenths below zero: less is a meter that is off by a digit.
      ['flooded', -0.4, 20, 'reversed'],
      ['flooded', -0.2, 20, null],
      ['flooded', -12, -30, 'reversed'],
      ['lfp', -2, 20, 'reversed'],
      ['flooded', 0.1, 20, null],
    ];
    for (const [chemistry, volts, tempC, bar] of cases)
      expect(batteryBar(chemistry, volts, tempC))
        .withContext(`${chemistry} ${volts} V ${tempC} °C`)
        .toBe(bar);
    expect(batteryBar('flooded', null, -40)).toBeNull();
  });

  it('grows no safer with cold or with fewer volts', () => {
    const rank = (bar: ReturnType<typeof batteryBar>): number => (bar === null ? 0 : 1);
    fc.assert(
      fc.property(
        fc.constantFrom('flooded', 'efb', 'agm', 'gel'),
        fc.double({ min: -14, max: 13, noNaN: true }),
        fc.double({ min: -40, max: 30, noNaN: true }),
        fc.double({ min: 0, max: 5, noNaN: true }),
        (chemistry, volts, tempC, less) => {
          const bar = rank(batteryBar(chemistry as Chemistry, volts, tempC));
          expect(rank(batteryBar(chemistry as Chemistry, volts, tempC - less))).toBeGreaterThanOrEqual(bar);
        },
      ),
      { seed: 3, numRuns: 300 },
    );
  });

  sweep(
    'is refused alike by reading, plan, hook-up, crank, charge, revival and verdict, whichever battery of a string it is',
    () => {
      const crowd = crowdForTests({
        machineClass: 'car',
        systemVolts: 12,
        engine: CAR.engine,
        rating: BATTERY_60,
        tempC: 10,
      });
      const random = seededRandom(12);
      for (const chemistry of CHEMISTRIES)
        for (const volts of [-9, -1, 0.5, 4, 8.5, 9.5, 10.6, 11.5, 12.2, 12.7])
          for (const tempC of [-25, -12, -4, 2, 20]) {
            if (!PROVES && random() > USUAL_SHARE) continue;
            const about = `${chemistry} ${volts} V ${tempC} °C`;
            const bar = batteryBar(chemistry, volts, tempC);
            for (const [base, rest] of [
              [CAR, [volts]],
              [TRUCK, [12.7, volts]],
              [TRUCK, [volts, 12.7]],
            ] as const) {
              const machine = withChemistry(base, chemistry);
              const batteries = casualtyBatteries(machine, rest, tempC);
              const ranked = rankOptions(machine, KIT, batteries, tempC, DEFAULT_RULES, {
                mainsNear: true,
                donorMetres: null,
              });
              expect(ranked.every((r) => r.unfit?.code === 'battery-bar'))
                .withContext(about)
                .toBe(bar !== null);
              const option = sourceOptions(machine, KIT, batteries, tempC, DEFAULT_RULES)[0]!;
              const scene: HookupScene = {
                machine,
                donor: CAR,
                option,
                batteries,
                tempC,
                enclosed: false,
                casualtyRuns: false,
              };
              const red = machine.points.find((p) => p.kind === 'red-post' || p.kind === 'battery-positive')!;
              const acts: HandAction[] = [
                { kind: 'attach', clamp: 'redCasualty', pointId: red.id },
                { kind: 'crank' },
              ];
              for (const action of acts) {
                const codes: string[] = hazardsOf(scene, NOTHING_CONNECTED, action, DEFAULT_RULES)
                  .filter((h) => h.severity === 'severe')
                  .map((h) => h.code);
                expect(codes.some((c) => c === 'battery-frozen' || c === 'battery-reversed'))
                  .withContext(`${about} ${action.kind}`)
                  .toBe(bar !== null);
              }
            }
            const rating = { ...BATTERY_60, chemistry };
            const stops = restMeaning(chemistry, volts, tempC, DEFAULT_RULES).tone === 'stop';
            expect(stops)
              .withContext(about)
              .toBe(bar !== null);
            expect(chargePlan({ ...CAR.batteries[0]!, rating }, 0.2, volts, tempC, KIT, DEFAULT_RULES).bar)
              .withContext(about)
              .toBe(bar);
            if (chemistry !== 'lfp')
              expect(revive(rating, volts, 12.8, 8, 1, tempC).refused)
                .withContext(about)
                .toBe(bar);
            const verdict = conclude(
              crowd,
              [{ check: 'symptom', found: 'slow-crank' }],
              {
                chemistry,
                wakes: false,
                tempC,
                stops: [],
                restVolts: [volts],
                earlierFlatCalls: 0,
                diedInService: false,
              },
              TOOLS,
              DEFAULT_RULES,
            );
            expect(verdict.verdict === 'unsafe')
              .withContext(about)
              .toBe(bar !== null);
          }
    },
  );

  it('keeps its sign: what reads backwards drives the circuit backwards', () => {
    const { models } = casualtyBatteries(CAR, [-9], 20);
    expect(models[0]!.openVolts).toBeCloseTo(-9, 6);
    expect(models[0]!.ohms).toBeGreaterThan(0);
  });

  describe('whose rest volts were typed wrongly', () => {
    /** A car at -20 °C whose battery was noted as full; `posts` is what a turn of the key left, and `recovery` the volts a minute after. */
    function silentTurn(
      { posts, recovery, tried }: { posts?: number; recovery?: number; tried?: number },
      symptom: 'silence' | 'slow-crank' = 'silence',
    ): Log {
      const log = new Log(CAR, KIT);
      log.take('scene.recorded', {
        place: 'yard',
        sloping: false,
        dark: true,
        enclosed: false,
        ambientC: -20,
        mainsNear: true,
      });
      log.take('symptom.recorded', { symptom });
      const rest = { kind: 'rest', battery: 0, tempC: -20, source: 'meter' } as const;
      log.take('reading.taken', { ...rest, volts: 12.7 });
      if (posts !== undefined) log.take('reading.taken', { ...rest, kind: 'crank-minimum', volts: posts });
      if (recovery !== undefined)
        log.take('finding.recorded', { check: 'recovery', found: recovery, source: 'meter' });
      if (tried !== undefined) {
        log.take('attempt.started', {});
        log.take('attempt.ended', { outcome: 'nothing', seconds: 2, lowestVolts: tried });
      }
      return log;
    }
    const barOfLog = (log: Log) => situationIn(log.job, CAR).batteries.beliefs[0]!.bar ?? null;

    it('is told by what a silent turn of the key left at its posts, to plan, hook-up and charger alike', () => {
      for (const told of [{ posts: 11.4 }, { recovery: 10.9 }, { tried: 11.4 }]) {
        const log = silentTurn(told);
        const about = JSON.stringify(told);
        expect(barOfLog(log)).withContext(about).toBe('frozen');
        const ranked = rankForJob(situationIn(log.job, CAR));
        expect(ranked.every(({ unfit }) => unfit?.code === 'battery-bar'))
          .withContext(about)
          .toBeTrue();
        expect(chargePlanOfJob(situationIn(log.job, CAR)).bar).toBe('frozen');
        for (const { unfit } of chargeChoices(situationIn(log.job, CAR)))
          expect(unfit).toEqual({ code: 'bar', bar: 'frozen' });
        const scene = hookupScene(situationIn(log.job, CAR), ranked[0]!.option);
        const hazards = hazardsOf(
          scene,
          NOTHING_CONNECTED,
          { kind: 'attach', clamp: 'redCasualty', pointId: 'plus' },
          DEFAULT_RULES,
        );
        expect(hazards.map(({ code }) => code))
          .withContext(about)
          .toContain('battery-frozen');
      }
    });

    it('is told the same when the air has warmed since: ice does not thaw with the air', () => {
      for (const told of [{ posts: 11.4 }, { tried: 11.4 }]) {
        const log = silentTurn(told);
        log.take('scene.recorded', { ...log.job.scene!, ambientC: 0 });
        expect(barOfLog(log)).withContext(JSON.stringify(told)).toBe('frozen');
      }
    });

    it('is not told by posts that stayed up, by a crank that drew, or by a symptom that draws', () => {
      expect(barOfLog(silentTurn({ posts: 12.5 }))).toBeNull();
      expect(barOfLog(silentTurn({ posts: 9.8 }))).toBeNull();
      expect(barOfLog(silentTurn({ posts: 11.4 }, 'slow-crank'))).toBeNull();
    });
  });
});
