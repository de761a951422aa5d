import {
  type CrankHeat,
  leadCoolsSeconds,
  leadTryRiseC,
  restNeed,
  starterRiseC,
} from '../src/crank/index.js';
import { tryLimitSeconds } from '../src/job/index.js';
import { leadSetOhms } from '../src/leads/index.js';
import { DEFAULT_RULES } from '../src/rules/index.js';
import { CAR } from './fixtures.js';

const LEADS = { sectionMm2: 10, lengthM: 3, conductor: 'copper', contact: 'clean' } as const;
const HEAT: CrankHeat = {
  engine: { fuel: 'diesel', displacementL: 3, cylinders: 6, systemVolts: 12 },
  starterAmps: 380,
  leads: LEADS,
  leadAmps: 300,
  tempC: 20,
};

describe('the limit of a try', () => {
  const engineOf = (displacementL: number, fuel: 'petrol' | 'diesel') => ({
    engine: { ...CAR.engine!, displacementL, fuel },
  });
  const rules = {
    ...DEFAULT_RULES,
    crankSecondsMaxSmall: 4,
    crankSecondsMax: 9,
    crankSecondsMaxBigDiesel: 14,
  };

  it('is by the engine, by the source where its peak lasts less, and none for a machine that wakes', () => {
    expect(tryLimitSeconds(engineOf(0.45, 'petrol'), rules, null)).toBe(4);
    expect(tryLimitSeconds(engineOf(1.4, 'diesel'), rules, null)).toBe(9);
    expect(tryLimitSeconds(engineOf(12, 'diesel'), rules, null)).toBe(14);
    expect(tryLimitSeconds(engineOf(12, 'petrol'), rules, null)).toBe(9);
    expect(tryLimitSeconds(engineOf(1.4, 'petrol'), rules, { maxSeconds: 3 })).toBe(3);
    expect(tryLimitSeconds(engineOf(1.4, 'petrol'), rules, {})).toBe(9);
    expect(tryLimitSeconds({ engine: null }, rules, { maxSeconds: 3 })).toBeNull();
  });
});

describe('restNeed', () => {
  it('warms the leads by the current squared over the heat they hold', () => {
    // 10 mm2 x 3 m x 2 = 60 cm3 of copper at 3.45 J/cm3 = 207 J/K; 300 A squared x ohms x 10 s.
    const joules = 300 ** 2 * leadSetOhms(LEADS, 20) * 10;
    expect(leadTryRiseC(LEADS, 300, 10, 20)).toBeCloseTo(joules / 207, 6);
  });

  it('cools thick leads more slowly than thin ones', () => {
    expect(leadCoolsSeconds({ ...LEADS, sectionMm2: 50 })).toBeGreaterThan(leadCoolsSeconds(LEADS));
    // 34.5 J/(m K) over 15 W x pi x (3.57 + 4) mm = 0.357 W/(m K).
    expect(leadCoolsSeconds(LEADS)).toBeCloseTo(34.5 / (15 * Math.PI * 0.0075682), 0);
  });

  it('is the house’s least for a light try, and longer when leads or starter are hot', () => {
    const light = restNeed(
      { ...HEAT, leads: null, starterAmps: 90 },
      [{ seconds: 3, agoSeconds: 0 }],
      DEFAULT_RULES,
    );
    expect(light.seconds).toBe(DEFAULT_RULES.crankRestSeconds);
    expect(light.decidedBy).toBe('rule');
    const thin = restNeed(HEAT, [{ seconds: 10, agoSeconds: 0 }], DEFAULT_RULES);
    expect(thin.seconds).toBeGreaterThan(DEFAULT_RULES.crankRestSeconds);
    expect(thin.decidedBy).toBe('leads');
    const tired = restNeed(
      { ...HEAT, leads: { ...LEADS, sectionMm2: 70 }, leadAmps: 100, starterAmps: 650 },
      [
        { seconds: 10, agoSeconds: 0 },
        { seconds: 10, agoSeconds: 70 },
        { seconds: 10, agoSeconds: 140 },
      ],
      DEFAULT_RULES,
    );
    expect(tired.decidedBy).toBe('starter');
  });

  it('law: after that rest one more try of the same length stays within the limits', () => {
    const tries = [
      { seconds: 8, agoSeconds: 0 },
      { seconds: 8, agoSeconds: 70 },
    ];
    const need = restNeed({ ...HEAT, leadAmps: 180 }, tries, DEFAULT_RULES);
    const later = tries.map((t) => ({ ...t, agoSeconds: t.agoSeconds + need.seconds }));
    const now = restNeed({ ...HEAT, leadAmps: 180 }, later, DEFAULT_RULES);
    expect(now.leadRiseC + leadTryRiseC(LEADS, 180, 8, 20)).toBeLessThanOrEqual(
      DEFAULT_RULES.leadRestRiseC + 0.5,
    );
    expect(now.starterRiseC + starterRiseC(HEAT, 8)).toBeLessThanOrEqual(
      DEFAULT_RULES.starterRestRiseC + 0.5,
    );
  });

  it('law: more tries never need less rest', () => {
    const one = restNeed(HEAT, [{ seconds: 6, agoSeconds: 0 }], DEFAULT_RULES);
    const two = restNeed(
      HEAT,
      [
        { seconds: 6, agoSeconds: 0 },
        { seconds: 6, agoSeconds: 60 },
      ],
      DEFAULT_RULES,
    );
    expect(two.seconds).toBeGreaterThanOrEqual(one.seconds);
  });
});
