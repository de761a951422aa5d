import { carriedInto, type EarlierBelief } from '../src/belief/index.js';
import { strengthShare } from '../src/battery/index.js';
import { type Cause, type DiagnosisProfile, shareOfAny, weigh } from '../src/diagnosis/index.js';
import { CAR, BATTERY_60 } from './fixtures.js';
import { crowdForTests } from './proof-share.js';

const PROFILE: DiagnosisProfile = {
  ...({ machineClass: 'car', systemVolts: 12 } as const),
  ...{ engine: CAR.engine, rating: BATTERY_60, tempC: 4 },
};
const CROWD = crowdForTests(PROFILE);
const NOTHING: EarlierBelief = { closedAt: null, days: 0, causes: [], strengths: [] };
const shareAfter = (earlier: Partial<EarlierBelief>, cause: Cause): number => {
  const crowd = carriedInto(CROWD, { ...NOTHING, ...earlier });
  return shareOfAny(crowd, crowd.shares, [cause]);
};
const USUAL = shareOfAny(CROWD, CROWD.shares, ['drain']);

describe('what earlier jobs left', () => {
  it('keeps a part at fault suspected, the less the longer ago: by hand on the day after', () => {
    const left = [{ cause: 'drain', share: 0.8 }] as const;
    // Six in ten still stand: 0.6 of 0.8, and 0.4 of the usual share.
    const held = 0.6 * 0.8 + 0.4 * USUAL;
    expect(shareAfter({ causes: left }, 'drain')).toBeCloseTo(held, 9);
    // After 120 days three in ten.
    expect(shareAfter({ causes: left, days: 120 }, 'drain')).toBeCloseTo(0.3 * 0.8 + 0.7 * USUAL, 9);
    expect(shareAfter({ causes: left, days: 3650 }, 'drain')).toBeCloseTo(USUAL, 4);
  });

  it('clears a part that was found sound, and says nothing of what is of the day', () => {
    expect(shareAfter({ causes: [{ cause: 'drain', share: 0 }] }, 'drain')).toBeCloseTo(0.4 * USUAL, 9);
    const before = shareOfAny(CROWD, CROWD.shares, ['left-on']);
    expect(shareAfter({ causes: [{ cause: 'left-on', share: 0.9 }] }, 'left-on')).toBeCloseTo(before, 12);
  });

  it('starts a battery at the strength of its record, and leaves room for one that was changed', () => {
    const strengthAfter = (share: number): number => {
      const { machines, shares } = carriedInto(CROWD, { ...NOTHING, strengths: [{ share, spread: 0.03 }] });
      return machines.reduce((sum, m, i) => sum + shares[i]! * strengthShare(m.batteries[0]!.ageing), 0);
    };
    expect(strengthAfter(0.9)).toBeGreaterThan(strengthAfter(0.7));
    expect(Math.abs(strengthAfter(0.7) - 0.7)).toBeLessThan(0.07);
    const worn = (share: number): number => shareAfter({ strengths: [{ share, spread: 0.03 }] }, 'worn');
    expect(worn(0.5)).toBeGreaterThan(3 * worn(0.9));
    // One in ten was changed and nobody told.
    expect(worn(0.5)).toBeLessThan(0.97);
    expect(worn(0.9)).toBeGreaterThan(0);
  });

  it('law: nothing left changes nothing, and shares stay shares', () => {
    const { shares } = carriedInto(CROWD, NOTHING);
    shares.forEach((share, i) => {
      expect(share).toBeCloseTo(CROWD.shares[i]!, 12);
    });
    const causes = (['drain', 'charging', 'starter', 'cable'] as const).map((cause) => ({
      cause,
      share: 0.9,
    }));
    const carried = carriedInto(CROWD, {
      ...NOTHING,
      causes,
      strengths: [{ share: 0.4, spread: 0.01 }, null],
    });
    expect(carried.shares.reduce((a, b) => a + b, 0)).toBeCloseTo(1, 9);
    expect(carried.shares.every((share) => share >= 0)).toBeTrue();
  });

  it('is outweighed by what is found today', () => {
    const crowd = carriedInto(CROWD, { ...NOTHING, causes: [{ cause: 'drain', share: 0.8 }] });
    const found = weigh(crowd, [
      { check: 'rest', found: 12.6 },
      { check: 'drain', found: 0.02 },
      { check: 'symptom', found: 'brisk-no-fire' },
    ]);
    expect(shareOfAny(crowd, found, ['drain'])).toBeLessThan(0.1);
  });
});
