import {
  casualtyBatteries,
  copiesOf,
  crowdAfterTries,
  modelOf,
  type Odds,
  populationOf,
  startOdds,
  startShare,
  type TryMade,
} from '../src/belief/index.js';
import { aloneRescue, type Rescue } from '../src/circuit/index.js';
import {
  type Cause,
  crowdAfter,
  type DiagnosisEvidence,
  type DiagnosisProfile,
  shareOfAny,
  weigh,
} from '../src/diagnosis/index.js';
import { seededRandom } from '../src/quantities/index.js';
import { BATTERY_60, CAR, JOINED } from './fixtures.js';
import { crowdForTests } from './proof-share.js';

const REST_VOLTS = 11.6;
const TEMP_C = -4;
const ENGINE = CAR.engine!;
const PROFILE: DiagnosisProfile = {
  ...({ machineClass: 'car', systemVolts: 12 } as const),
  ...{ engine: ENGINE, rating: BATTERY_60, tempC: TEMP_C },
};
const READ: readonly DiagnosisEvidence[] = [
  { check: 'symptom', found: 'slow-crank' },
  { check: 'rest', found: REST_VOLTS },
  { check: 'look-joints', found: 'clean' },
];
const { beliefs } = casualtyBatteries(CAR, [REST_VOLTS], TEMP_C);

/** A source of so many ohms, leads and clamps as usual. */
function joinedTo(ohms: number): Rescue {
  return {
    ...aloneRescue(
      beliefs.map((belief) => modelOf(belief, TEMP_C)),
      TEMP_C,
    ),
    source: { openVolts: 12.6, ohms },
    sourceOn: true,
    leads: { sectionMm2: 25, lengthM: 3, conductor: 'copper', contact: 'clean' },
    clamps: { ...JOINED, redCasualty: { kind: 'plus', battery: 0 } },
  };
}

const GOOD = joinedTo(0.008);
const FEEBLE = joinedTo(0.08);

function tried(rescue: Rescue, outcome: TryMade['outcome'], lowestVolts: number | null = null): TryMade {
  return { at: 'try', repaired: 0, moment: { rescue, beliefs }, outcome, lowestVolts };
}

/** The odds of the good source after a try, of many draws, with the interval that each claims. */
function drawnOdds(made: TryMade, draws: number): Odds[] {
  const crowd = crowdForTests(PROFILE);
  const evidence = [...READ, { check: 'with-help', found: made.outcome, tried: [made.at] } as const];
  const findings = { profile: PROFILE, repairs: [], earlier: null, evidence, tries: [made] };
  return Array.from({ length: draws }, (_, n) => {
    const random = seededRandom(n + 1);
    const population = populationOf(copiesOf(crowd, findings, random), 1000, random);
    return startOdds({ rescue: GOOD, beliefs }, ENGINE, population)!;
  });
}

/** Share of these causes in the crowd, and in the population that a plan reads, after a try. */
function sharesAfter(made: TryMade, causes: readonly Cause[], repairs = [] as const) {
  const { diagnosis, plan, again } = heardAfter(made, repairs);
  return { diagnosis: diagnosis(causes), plan: plan(causes), again };
}

/** The same of any causes: a try is heard once. */
function heardAfter(made: TryMade, repairs = [] as const) {
  const crowd = crowdAfter(crowdForTests(PROFILE), repairs);
  const evidence = [...READ, { check: 'with-help', found: made.outcome, tried: [made.at] } as const];
  const random = seededRandom(5);
  const copies = copiesOf(
    crowd,
    { profile: PROFILE, repairs, earlier: null, evidence, tries: [made] },
    random,
  );
  const population = populationOf(copies, 1000, random);
  const heard = crowdAfterTries(crowd, copies);
  const shares = weigh(heard, evidence);
  const { machines } = population;
  return {
    diagnosis: (causes: readonly Cause[]): number => shareOfAny(heard, shares, causes),
    plan: (causes: readonly Cause[]): number =>
      machines.filter(({ hidden }) => causes.some((c) => hidden!.holds.includes(c))).length / machines.length,
    again: startShare({ rescue: GOOD, beliefs }, ENGINE, population),
  };
}

const STARTER = ['starter', 'seized'] as const;
/** Faults on the way of the amps: no source cures them. */
const ROAD = ['joint-positive', 'joint-negative', 'joint-loose', 'cable', ...STARTER] as const;

describe('a try is heard in its own circuit', () => {
  it('accuses the road of the amps after a good source failed, not after a feeble one', () => {
    const afterGood = sharesAfter(tried(GOOD, 'slow'), ROAD);
    const afterFeeble = sharesAfter(tried(FEEBLE, 'slow'), ROAD);
    expect(afterGood.diagnosis).toBeGreaterThan(2 * afterFeeble.diagnosis);
    expect(afterGood.plan).toBeGreaterThan(2 * afterFeeble.plan);
    expect(afterFeeble.again).toBeGreaterThan(1.5 * afterGood.again);
  });

  it('counts by the lowest volts: a starter that takes nothing leaves the posts high', () => {
    const high = sharesAfter(tried(GOOD, 'clicks', 12.3), ['starter']);
    const low = sharesAfter(tried(GOOD, 'clicks', 7), ['starter']);
    expect(high.diagnosis).toBeGreaterThan(2 * low.diagnosis);
  });

  it('claims no narrower an interval than its draws keep, also where few machines explain the try', () => {
    for (const [outcome, lowestVolts] of [
      ['slow', 8.2],
      ['slow', 9.4],
    ] as const) {
      const odds = drawnOdds(tried(GOOD, outcome, lowestVolts), 12);
      const mean = odds.reduce((sum, { start }) => sum + start, 0) / odds.length;
      const missed = odds.filter(({ low, high }) => mean < low || mean > high).length;
      expect(missed).withContext(`${outcome} ${lowestVolts}`).toBeLessThanOrEqual(2);
    }
  });

  it('is one answer in diagnosis and plan', () => {
    const families: (readonly Cause[])[] = [
      STARTER,
      ['joint-positive', 'joint-negative', 'joint-loose', 'cable'],
      ['worn', 'sulphated', 'dead-cell'],
      ['fuel', 'immobiliser', 'interlock', 'main-fuse'],
    ];
    for (const rescue of [GOOD, FEEBLE])
      for (const outcome of ['slow', 'clicks', 'brisk-no-fire', 'nothing'] as const) {
        const { diagnosis, plan } = heardAfter(tried(rescue, outcome));
        for (const causes of families)
          expect(Math.abs(diagnosis(causes) - plan(causes)))
            .withContext(`${outcome} ${causes.join()}: ${diagnosis(causes)} ${plan(causes)}`)
            .toBeLessThan(0.05);
      }
  });
});
