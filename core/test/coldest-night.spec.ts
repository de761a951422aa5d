import { restMeaning } from '../src/diagnosis/index.js';
import { caseOfJob, coldestTempC } from '../src/job/index.js';
import { DEFAULT_RULES } from '../src/rules/index.js';
import { barOf, chargePlan } from '../src/verdict/index.js';
import { revive } from '../src/charging/index.js';
import { CAR, KIT } from './fixtures.js';
import { Log, situationIn } from './job-log.js';

const SCENE = {
  ambientC: 3,
  place: 'verge',
  sloping: false,
  dark: false,
  enclosed: false,
  mainsNear: false,
} as const;
/** A battery at 11.5 V freezes at about -10 degC by the table: not at +3, but in a night at -12. */
const VOLTS = 11.5;

function jobAfter(coldestC?: number) {
  const log = new Log();
  log.take('scene.recorded', coldestC === undefined ? SCENE : { ...SCENE, coldestC });
  log.take('reading.taken', { kind: 'rest', volts: VOLTS, battery: 0, tempC: 3, source: 'typed' });
  return log.job;
}

describe('the coldest night', () => {
  it('is the air now where nothing colder is known, and never warmer than it', () => {
    expect(coldestTempC(jobAfter())).toBe(3);
    expect(coldestTempC(jobAfter(-12))).toBe(-12);
    expect(coldestTempC(jobAfter(9))).toBe(3);
  });

  it('leaves a flat battery frozen in a mild morning, for plan, hook-up, verdict, charge, revival and reading alike', () => {
    const [battery] = CAR.batteries;
    const { chemistry } = battery!.rating;
    const barsAfter = (night: number) => {
      const job = jobAfter(night);
      const revival = revive(battery!.rating, VOLTS, 12.6, 8, 2.6, coldestTempC(job));
      return [
        situationIn(job, CAR).batteries.beliefs[0]!.bar ?? null,
        barOf(caseOfJob(job, CAR, 0)),
        chargePlan(battery!, 0, VOLTS, 3, KIT, DEFAULT_RULES, coldestTempC(job)).bar,
        revival.refused,
      ];
    };
    expect(barsAfter(3)).toEqual([null, null, null, null]);
    expect(barsAfter(-12)).toEqual(['frozen', 'frozen', 'frozen', 'frozen']);
    expect(restMeaning(chemistry, VOLTS, 3, DEFAULT_RULES, -12).code).toBe('frozen');
    expect(restMeaning(chemistry, VOLTS, 3, DEFAULT_RULES).code).toBe('flat');
  });

  it('spares a charged battery however cold it was', () => {
    expect(restMeaning('flooded', 12.6, 3, DEFAULT_RULES, -25).code).not.toBe('frozen');
  });
});
