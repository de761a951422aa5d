import {
  type CrowdSteps,
  crowdNear,
  diagnose,
  type DiagnosisEvidence,
  type DiagnosisProfile,
  drawCrowd,
  effectiveNumber,
  type Repair,
  weigh,
} from '../src/diagnosis/index.js';
import { seededRandom } from '../src/quantities/index.js';
import { examine } from './exam.js';
import { crowdForTests } from './proof-share.js';
import { KINDS, strand, type Stranded } from './truth/world.js';

const profileOf = ({ machineClass, systemVolts, engine, rating, tempC }: Stranded): DiagnosisProfile => ({
  machineClass,
  systemVolts,
  engine,
  rating,
  tempC,
});

/** A stranded machine of a world drawn apart, with this many findings at least; the habits of technicians vary. */
function longCase(
  seed: number,
  findings: number,
): { profile: DiagnosisProfile; evidence: DiagnosisEvidence[] } {
  for (let n = seed; ; n++) {
    const random = seededRandom(n);
    const it = strand(random, KINDS[n % KINDS.length]!);
    const profile = profileOf(it);
    const { evidence } = examine(it, crowdForTests(profile), random);
    if (evidence.length >= findings) return { profile, evidence: [...evidence] };
  }
}

describe('a crowd after many findings', () => {
  const CASES = [longCase(1, 15), longCase(40, 15)];

  it('has four hundred machines that count, all of them different', () => {
    for (const { profile, evidence } of CASES) {
      const drawn = drawCrowd(profile);
      const starved = effectiveNumber(weigh(drawn, evidence));
      const crowd = crowdNear(drawn, [], evidence);
      const shares = weigh(crowd, evidence);
      expect(starved).toBeLessThan(200);
      expect(effectiveNumber(shares)).toBeGreaterThan(400);
      const heavy = crowd.machines.filter((_, i) => shares[i]! > 1e-5);
      const different = new Set(heavy.map((hidden) => JSON.stringify(hidden)));
      expect(different.size / heavy.length).toBeGreaterThan(0.75);
    }
  });

  it('says the same as a crowd of so many draws that it never starves', () => {
    const { profile, evidence } = CASES[1]!;
    const few = evidence.slice(0, 10);
    const many = drawCrowd(profile, seededRandom(99), 2000);
    expect(effectiveNumber(weigh(many, few))).toBeGreaterThan(400);
    const near = diagnose(crowdNear(drawCrowd(profile), [], few), few);
    for (const { cause, share } of diagnose(many, few))
      expect(Math.abs(near.find((one) => one.cause === cause)!.share - share))
        .withContext(cause)
        .toBeLessThan(0.04);
  });

  it('is the same whichever findings were weighed before it, and after one of them was taken back', () => {
    const { profile, evidence } = CASES[1]!;
    const drawn = drawCrowd(profile);
    const steps: CrowdSteps = [];
    for (let count = 1; count <= evidence.length; count++)
      crowdNear(drawn, [], evidence.slice(0, count), steps);
    const told = (by: CrowdSteps | undefined, found: readonly DiagnosisEvidence[]) =>
      diagnose(crowdNear(drawn, [], found, by), found).map(({ cause, share }) => [cause, share]);
    expect(told(steps, evidence)).toEqual(told(undefined, evidence));
    const without = evidence.filter((_, i) => i !== 7);
    expect(told(steps, without)).toEqual(told(undefined, without));
  });

  it('weighs what was found before a repair against machines as they stood then', () => {
    const { profile, evidence } = CASES[0]!;
    const drawn = drawCrowd(profile);
    const repairs: readonly Repair[] = [{ kind: 'belt-tightened' }];
    const again: DiagnosisEvidence = { check: 'look-belt', found: 'sound', repaired: 1 };
    const found: DiagnosisEvidence[] = [
      ...evidence.filter(({ check }) => check !== 'look-belt'),
      { check: 'look-belt', found: 'bad' },
      again,
    ];
    const crowd = crowdNear(drawn, repairs, found);
    expect(crowd.repairs).toEqual(repairs);
    const shares = weigh(crowd, found);
    expect(effectiveNumber(shares)).toBeGreaterThan(400);
    const was = crowd.before[0]!.machines.reduce(
      (sum, { beltBad }, i) => sum + (beltBad ? shares[i]! : 0),
      0,
    );
    const is = crowd.machines.reduce((sum, { beltBad }, i) => sum + (beltBad ? shares[i]! : 0), 0);
    expect(was).toBeGreaterThan(0.3);
    // A bad belt that charging does not suffer from stays bad.
    expect(is).toBeLessThan(was / 2);
  });
});
