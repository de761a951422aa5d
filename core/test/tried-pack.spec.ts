import { crankPoint } from '../src/crank/index.js';
import { kitMeasured, planRecord, rankForJob } from '../src/job/index.js';
import { factorOver } from '../src/leads/index.js';
import { casualtyBatteries, type CrankMoment, cranksIn, drawUnknowns } from '../src/belief/index.js';
import { momentOf, planCase, sourceFactor, sourceOptions } from '../src/plan/index.js';
import { normal, seededRandom } from '../src/quantities/index.js';
import { DEFAULT_RULES } from '../src/rules/index.js';
import type { KitItem, LithiumPackKit } from '../src/sources/index.js';
import { CAR, KIT } from './fixtures.js';
import { Log, situationIn } from './job-log.js';

const ENGINE = CAR.engine!;

function momentWith(kit: readonly KitItem[], restVolts = 11.6, tempC = 0): CrankMoment {
  const batteries = casualtyBatteries(CAR, [restVolts], tempC);
  const option = sourceOptions(CAR, kit, batteries, tempC, DEFAULT_RULES).find((o) => o.id === 'lithium@12')!;
  const plan = planCase(CAR, option, batteries, tempC, DEFAULT_RULES)!;
  return momentOf(plan, plan.beliefs);
}

/** The same moment with a pack of so many times the resistance of its rating. */
const worn = ({ rescue, beliefs }: CrankMoment, factor: number): CrankMoment => ({
  rescue: { ...rescue, source: { ...rescue.source!, ohms: rescue.source!.ohms * factor } },
  beliefs,
});

describe('a pack that its tries measure', () => {
  it('is found as it is where everything else is as believed', () => {
    const rated = momentWith(KIT);
    for (const truth of [0.6, 1, 1.7, 3]) {
      const { postVolts } = crankPoint(worn(rated, truth).rescue, ENGINE);
      expect(sourceFactor(rated, ENGINE, 'started', postVolts)!.factor).toBeCloseTo(truth, 3);
    }
  });

  it('is not told of by a try in which nothing turned, or nothing lent', () => {
    const rated = momentWith(KIT);
    expect(sourceFactor(rated, ENGINE, 'clicks', 6)).toBeNull();
    expect(sourceFactor(rated, ENGINE, 'nothing', 12)).toBeNull();
    const alone = { ...rated, rescue: { ...rated.rescue, source: null } };
    expect(sourceFactor(alone, ENGINE, 'started', 9.5)).toBeNull();
  });

  it('is known within its doubt after six tries, though drag, batteries and clamps are none of them as believed', () => {
    const random = seededRandom(17);
    const DRAWN = 40;
    let within = 0;
    let told = 0;
    for (let i = 0; i < DRAWN; i++) {
      const truth = 0.8 + 1.7 * random();
      const uses = Array.from({ length: 6 }, () => {
        const rated = momentWith(KIT, 11.2 + random(), -8 + 14 * random());
        const moment = { rescue: worn(rated, truth).rescue, beliefs: rated.beliefs };
        const point = cranksIn(moment, ENGINE)({ hidden: null, draw: drawUnknowns(random) });
        if (!point?.turns) return [];
        const found = sourceFactor(rated, ENGINE, 'slow', point.postVolts + normal(random, 0, 0.15));
        return found ? [found] : [];
      }).flat();
      const known = factorOver(uses);
      if (!known) continue;
      told++;
      if (Math.abs(known.factor - truth) <= 2 * known.spread) within++;
    }
    expect(told).toBeGreaterThan(30);
    expect(within / told).toBeGreaterThan(0.85);
  });

  it('counts in the plan, is kept with the pack, and is forgotten when the try is undone', () => {
    const log = new Log(CAR, KIT);
    log.take('reading.taken', { kind: 'rest', volts: 11.6, battery: 0, tempC: 0, source: 'typed' });
    log.take('polarity.proved', { signs: ['mark', 'meter'] });
    const ranked = rankForJob(situationIn(log.job, CAR));
    const pack = ranked.find(({ option }) => option.id === 'lithium@12')!;
    log.take('plan.chosen', planRecord(pack)!);
    log.take('clamp.attached', { clamp: 'redCasualty', pointId: 'plus' });
    log.take('clamp.attached', { clamp: 'blackCasualty', pointId: 'ground' });
    log.take('pack.switched', { on: true });
    expect(kitMeasured(log.job, situationIn(log.job, CAR))).toEqual([]);
    log.take('attempt.started', {});
    const event = log.take('attempt.ended', {
      outcome: 'slow',
      seconds: 4,
      lowestVolts: pack.crank!.postVolts - 1.6,
    });
    // A second try of the same job that looks worse tells of its joints and battery: both tries had them.
    const worse = { outcome: 'slow', seconds: 4, lowestVolts: pack.crank!.postVolts - 3 } as const;
    const first = kitMeasured(log.job, situationIn(log.job, CAR));
    const twice = { ...log.job, attempts: [...log.job.attempts, { ...log.job.attempts[0]!, ...worse }] };
    expect(kitMeasured(twice, situationIn(twice, CAR))).toEqual(first);
    const measured = kitMeasured(log.job, situationIn(log.job, CAR)) as LithiumPackKit[];
    expect(measured.map(({ id }) => id)).toEqual(['lithium']);
    expect(measured[0]!.uses![0]!.factor).toBeGreaterThan(1.3);
    const kit = KIT.map((item) => (item.id === 'lithium' ? measured[0]! : item));
    // Against its rating each time: what is known already does not count twice.
    expect(kitMeasured(log.job, situationIn(log.job, CAR, kit))).toEqual([]);
    const volts = (of: readonly KitItem[]): number => crankPoint(momentWith(of).rescue, ENGINE).postVolts;
    expect(volts(kit)).toBeLessThan(volts(KIT));
    log.take('event.undone', { eventId: event.id });
    expect((kitMeasured(log.job, situationIn(log.job, CAR, kit))[0] as LithiumPackKit).uses).toEqual([]);
  });
});
