import type { DiagnosisEvidence } from '../src/diagnosis/index.js';
import { DEFAULT_RULES } from '../src/rules/index.js';
import { type Case, conclude, type VerdictRecord } from '../src/verdict/index.js';
import { BATTERY_60, CAR } from './fixtures.js';
import { crowdForTests } from './proof-share.js';

/** A car that starts, whose owner wants its battery looked at. */
function verdictOn(restVolts: number, tested: number, crank: number): VerdictRecord {
  const crowd = crowdForTests({
    ...{ machineClass: 'car', systemVolts: 12, engine: CAR.engine, rating: BATTERY_60, tempC: 5 },
  });
  const evidence: DiagnosisEvidence[] = [
    { check: 'try-alone', found: 'started' },
    { check: 'rest', found: restVolts },
    { check: 'conductance', found: tested },
    { check: 'crank', found: crank },
  ];
  const facts: Case = {
    ...{ chemistry: 'flooded', wakes: false, tempC: 5, stops: [], restVolts: [restVolts] },
    ...{ earlierFlatCalls: 0, diedInService: false },
  };
  return conclude(crowd, evidence, facts, ['meter', 'tester'], DEFAULT_RULES);
}

describe('a machine that starts and wants a check', () => {
  it('keeps a charged battery that tests well, and has one replaced that tests spent', () => {
    expect(verdictOn(12.65, 0.95, 1.2).verdict).toBe('keep');
    expect(verdictOn(12.6, 0.35, -0.8).verdict).toMatch(/^replace/);
  });

  it('has a low battery charged before anything is said of it', () => {
    expect(verdictOn(12, 0.55, 0.1).verdict).toBe('charge-first');
  });
});
