import { type CheckId, type DiagnosisEvidence, misfitOf } from '../src/diagnosis/index.js';
import { seededRandom } from '../src/quantities/index.js';
import { BATTERY_60, CAR } from './fixtures.js';
import { crowdForTests } from './proof-share.js';
import { findingFor, technician } from './truth/technician.js';
import { KINDS, strand } from './truth/world.js';

const CROWD = crowdForTests({
  machineClass: 'car',
  systemVolts: 12,
  engine: CAR.engine,
  rating: BATTERY_60,
  tempC: 8,
});

describe('misfitOf', () => {
  it('names the rest volts that no machine shows beside a brisk crank', () => {
    const others: DiagnosisEvidence[] = [
      { check: 'symptom', found: 'brisk-no-fire' },
      { check: 'try-alone', found: 'brisk-no-fire' },
      { check: 'crank', found: 1.5 },
    ];
    expect(misfitOf(CROWD, [...others, { check: 'rest', found: 4.2 }])?.check).toBe('rest');
    expect(misfitOf(CROWD, [...others, { check: 'rest', found: 12.6 }])).toBeNull();
  });

  it('doubts nothing of what is rare by itself, nor of two findings', () => {
    expect(
      misfitOf(CROWD, [
        { check: 'rest', found: -11 },
        { check: 'symptom', found: 'silence' },
      ]),
    ).toBeNull();
    expect(
      misfitOf(CROWD, [
        { check: 'rest', found: -11 },
        { check: 'symptom', found: 'silence' },
        { check: 'look-joints', found: 'clean' },
      ]),
    ).toBeNull();
  });

  it('seldom doubts a careful hand, and finds half of the gross slips', () => {
    const checks: CheckId[] = ['symptom', 'rest', 'look-joints', 'crank', 'key-on', 'try-alone'];
    const random = seededRandom(9);
    let [doubted, slips, found] = [0, 0, 0];
    for (let i = 0; i < 60; i++) {
      let it = strand(random, KINDS[0]!);
      // The crowd is of this cold.
      while (Math.abs(it.tempC - CROWD.profile.tempC) > 6) it = strand(random, KINDS[0]!);
      const who = { ...technician(random), sloppy: 0 };
      const evidence = checks.flatMap((check): DiagnosisEvidence[] => {
        const finding = findingFor(check, it, who, random);
        return finding === null ? [] : [{ check, found: finding }];
      });
      if (misfitOf(CROWD, evidence)) doubted++;
      const slipped = evidence.map((e) =>
        e.check === 'rest' ? { ...e, found: (e.found as number) > 12 ? 4.2 : 12.6 } : e,
      );
      slips++;
      if (misfitOf(CROWD, slipped)?.check === 'rest') found++;
    }
    expect(doubted).toBeLessThan(6);
    expect(found / slips).toBeGreaterThan(0.4);
  });
});
