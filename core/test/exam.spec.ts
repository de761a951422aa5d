import { REPLACE_CAUSES } from '../src/diagnosis/index.js';
import { seededRandom } from '../src/quantities/index.js';
import { chartSays, examine, type Examined, reportOf } from './exam.js';
import { crowdForTests, shareOf } from './proof-share.js';
import { reliabilityLines } from './reliability.js';
import { isSound, KINDS, strand } from './truth/world.js';

const EDGES = [0, 0.4, 0.6, 0.75, 0.85, 0.95, 1];
/** Crowds are drawn for each temperature to this many degrees: a crowd costs more than a case. The verdict knows the true one. */
const STEP_C = 12;

describe('diagnosis against truth drawn apart', () => {
  it('names the fault, spares sound batteries and misses nothing unsafe', () => {
    const count = Math.round(6000 * shareOf(12 / 6000));
    const random = seededRandom(2027);
    const all: Examined[] = [];
    let chartNeedless = 0;
    let chartRight = 0;
    for (let n = 0; n < count; n++) {
      const kind = KINDS[n % KINDS.length]!;
      const it = strand(random, kind);
      const tempC = Math.round(it.tempC / STEP_C) * STEP_C;
      const crowd = crowdForTests({
        machineClass: it.machineClass,
        systemVolts: it.systemVolts,
        engine: it.engine,
        rating: it.rating,
        tempC,
      });
      all.push(examine(it, crowd, random));
      const said = chartSays(it, random);
      if (it.faults.includes(said)) chartRight++;
      if (isSound(it) && REPLACE_CAUSES.includes(said)) chartNeedless++;
    }
    const report = reportOf(all, EDGES);
    const percent = (x: number): string => `${(100 * x).toFixed(1)} %`;
    process.stdout.write(
      [
        `truth apart: ${report.cases} cases, first ${percent(report.first)}, first two ${percent(report.firstTwo)}, ` +
          `sound condemned ${percent(report.soundCondemned)}, spent kept ${percent(report.spentKept)}, ` +
          `unsafe missed ${report.unsafeMissed}, called unsafe in vain ${percent(report.soundCalledUnsafe)}, Brier ${report.brier.toFixed(3)}`,
        `fixed chart: first ${percent(chartRight / count)}, sound condemned ${percent(chartNeedless / all.filter(({ it }) => isSound(it)).length)}`,
        `strings, battery by battery: ${percent(report.eachRight)} of ${report.each} told right`,
        ...reliabilityLines(report.reliability),
        '',
      ].join('\n'),
    );
    // The spread of chance over so many cases, at three in a thousand.
    const least = (target: number, of: number): number =>
      target - 2.75 * Math.sqrt((target * (1 - target)) / of);
    const sound = all.filter(({ it }) => isSound(it)).length;
    expect(report.firstTwo).toBeGreaterThan(least(0.93, count));
    expect(report.soundCondemned).toBeLessThan(1 - least(0.995, sound));
    expect(report.unsafeMissed).toBe(0);
    expect(report.eachRight).toBeGreaterThan(least(0.8, report.each));
    expect(report.firstTwo).toBeGreaterThan(chartRight / count);
    for (const { from, claimed, met, count: n } of report.reliability)
      if (from >= 0.85)
        expect(met)
          .withContext(`claimed ${claimed}`)
          .toBeGreaterThan(least(claimed - 0.07, n));
  }, 2_400_000);
});
