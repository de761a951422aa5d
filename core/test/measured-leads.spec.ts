import { CLAMP_IDS } from '../src/circuit/index.js';
import { crankPoint } from '../src/crank/index.js';
import { kitMeasured, planRecord, rankForJob } from '../src/job/index.js';
import {
  factorOver,
  hasLost,
  type LeadSet,
  leadSetOhms,
  measuredFactor,
  type MeasuredFactor,
} from '../src/leads/index.js';
import { casualtyBatteries } from '../src/belief/index.js';
import { sourceOptions, type PlanCase, momentOf, planCase } from '../src/plan/index.js';
import { normal, seededRandom } from '../src/quantities/index.js';
import { DEFAULT_RULES } from '../src/rules/index.js';
import { type KitItem, leadsOf, type LeadSetKit } from '../src/sources/index.js';
import { CAR, JOINED, KIT } from './fixtures.js';
import { Log, situationIn } from './job-log.js';

const SET: LeadSet = { sectionMm2: 25, lengthM: 3.5, conductor: 'copper', contact: 'clean' };
const worn = (factor: number): LeadSet => ({ ...SET, ohmsFactor: factor });

describe('a lead set that its uses measure', () => {
  it('resists the volts between its ends over the amps, against a new one: by hand', () => {
    // New, 20 °C: 2 x 0.01724 x 3.5 / 25 + 4 x 0.0003 ohm = 6.03 mohm. 1.21 V at 200 A are 6.03 mohm.
    const asNew = measuredFactor({ sourceVolts: 12.9, casualtyVolts: 11.6946, amps: 200 }, SET, 20)!;
    expect(asNew.factor).toBeCloseTo(1, 2);
    const double = measuredFactor({ sourceVolts: 12.9, casualtyVolts: 10.4891, amps: 200 }, SET, 20)!;
    expect(double.factor).toBeCloseTo(2, 2);
    // Few amps tell little: 0.04 V of doubt at 20 A is 2 mohm, a third of the set.
    const doubtful = measuredFactor({ sourceVolts: 12.9, casualtyVolts: 12.78, amps: 20 }, SET, 20)!;
    expect(doubtful.spread).toBeGreaterThan(0.3);
    expect(doubtful.spread).toBeGreaterThan(4 * asNew.spread);
    expect(measuredFactor({ sourceVolts: 12.9, casualtyVolts: 12.8, amps: 4 }, SET, 20)).toBeNull();
    expect(measuredFactor({ sourceVolts: 12, casualtyVolts: 12.4, amps: 100 }, SET, 20)).toBeNull();
  });

  it('is weighed by its doubt, forgets what is long ago, and is as new while nobody measured it', () => {
    const use = (factor: number, spread = 0.05): MeasuredFactor => ({ factor, spread });
    expect(factorOver([])).toBeNull();
    const one = factorOver([use(1.6)])!;
    const three = factorOver([use(1.6), use(1.6), use(1.6)])!;
    expect(one.factor).toBeLessThan(three.factor);
    expect(three.spread).toBeLessThan(one.spread);
    expect(factorOver([use(1.6, 2)])!.factor)
      .withContext('a doubtful one')
      .toBeLessThan(1.2);
    const cleaned = [
      ...Array.from({ length: 6 }, () => use(2.5)),
      ...Array.from({ length: 6 }, () => use(1)),
    ];
    expect(factorOver(cleaned)!.factor).toBeCloseTo(1, 2);
    expect(hasLost(factorOver([use(1.35), use(1.35)])!))
      .withContext('it may be less')
      .toBeFalse();
    expect(hasLost(factorOver([use(1.8), use(1.8)])!)).toBeTrue();
  });

  it('is found within its doubt in rescues drawn apart, from the circuit with that set and meters that err', () => {
    const random = seededRandom(7);
    let within = 0;
    const DRAWN = 60;
    for (let i = 0; i < DRAWN; i++) {
      const truth = 0.8 + 2.2 * random();
      const uses = Array.from({ length: 4 }, () => {
        const seen = readingOf(worn(truth * (1 + normal(random, 0, 0.08))), 10 * random() - 5);
        return measuredFactor(
          {
            sourceVolts: seen.sourceVolts + normal(random, 0, 0.02),
            casualtyVolts: seen.casualtyVolts + normal(random, 0, 0.02),
            amps: seen.amps * (1 + normal(random, 0, 0.02)),
          },
          SET,
          seen.tempC,
        )!;
      });
      const { factor, spread } = factorOver(uses)!;
      if (Math.abs(factor - truth) <= 2 * spread) within++;
    }
    expect(within / DRAWN).toBeGreaterThan(0.85);
  });

  it('counts in the plan: a worn set gives the starter less, and the heavier loss is its own', () => {
    const kit = (uses: LeadSetKit['uses']): KitItem[] =>
      KIT.map((item) => (item.kind === 'lead-set' ? { ...item, ...(uses && { uses }) } : item));
    const voltsWith = (uses: LeadSetKit['uses']): number => {
      const batteries = casualtyBatteries(CAR, [11.8], 0);
      const option = sourceOptions(CAR, kit(uses), batteries, 0, DEFAULT_RULES).find((o) => o.leadSetId)!;
      const plan: PlanCase = planCase(CAR, option, batteries, 0, DEFAULT_RULES)!;
      return crankPoint(momentOf(plan, plan.beliefs).rescue, CAR.engine!).starterVolts;
    };
    const use = { jobId: 'j', at: '2027-01-01T00:00:00.000Z', factor: 3, spread: 0.05 };
    expect(voltsWith([use, use, use])).toBeLessThan(voltsWith(undefined) - 0.2);
    expect(leadSetOhms(leadsOf({ leads: SET, uses: [use, use, use] }), 0)).toBeGreaterThan(
      2 * leadSetOhms(SET, 0),
    );
  });

  it('is measured while all four clamps are on, kept with the set, and forgotten again when the reading is undone', () => {
    const log = new Log(CAR, KIT);
    const reading = { sourceVolts: 12.9, casualtyVolts: 10.9, amps: 180 };
    expect(log.refuses('leads.measured', reading)).toBe('leads-not-joined');
    log.take('polarity.proved', { signs: ['mark', 'meter'] });
    const ranked = rankForJob(situationIn(log.job, CAR));
    log.take(
      'plan.chosen',
      planRecord(ranked.find(({ option }) => option.leadSetId && option.sourceKind === 'donor')!)!,
    );
    for (const clamp of CLAMP_IDS) {
      expect(log.refuses('leads.measured', reading)).withContext(clamp).toBe('leads-not-joined');
      log.take('clamp.attached', { clamp, pointId: clamp.startsWith('red') ? 'plus' : 'ground' });
    }
    expect(log.refuses('leads.measured', { ...reading, casualtyVolts: 13.5 })).toBe('value-out-of-range');
    expect(log.refuses('leads.measured', { ...reading, amps: 9000 })).toBe('value-out-of-range');
    const event = log.take('leads.measured', reading);
    const [measured] = kitMeasured(log.job, situationIn(log.job, CAR));
    expect(measured!.uses!.map(({ jobId, at }) => [jobId, at])).toEqual([['job', event.at]]);
    const kit = KIT.map((item) => (item.id === measured!.id ? measured! : item));
    expect(kitMeasured(log.job, situationIn(log.job, CAR, kit))).toEqual([]);
    log.take('event.undone', { eventId: event.id });
    expect(kitMeasured(log.job, situationIn(log.job, CAR, kit))[0]!.uses).toEqual([]);
  });
});

/** The readings at both ends of this set, and through it, while a flat car cranks on a donor. */
function readingOf(leads: LeadSet, tempC: number) {
  const batteries = casualtyBatteries(CAR, [11.8], tempC);
  const option = sourceOptions(CAR, KIT, batteries, tempC, DEFAULT_RULES).find((o) => o.leadSetId)!;
  const plan = planCase(CAR, { ...option, leads }, batteries, tempC, DEFAULT_RULES)!;
  const moment = momentOf({ ...plan, rescue: { ...plan.rescue, clamps: JOINED } }, plan.beliefs);
  const point = crankPoint(moment.rescue, CAR.engine!);
  const amps = point.sourceAmps;
  return {
    sourceVolts: point.postVolts + amps * leadSetOhms(leads, tempC),
    casualtyVolts: point.postVolts,
    amps,
    tempC,
  };
}
