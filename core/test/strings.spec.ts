import {
  BATTERY_CONDITIONS,
  type CheckId,
  checkOf,
  conditionShares,
  type DiagnosisEvidence,
  type Found,
  proposals,
  ONE_BATTERY_MOST_VOLTS,
  ownVolts,
  stillOpen,
  TOOLS,
  weigh,
} from '../src/diagnosis/index.js';
import { DEFAULT_RULES } from '../src/rules/index.js';
import { type Case, conclude, proofOf, type VerdictRecord } from '../src/verdict/index.js';
import { TRUCK } from './fixtures.js';
import { crowdForTests } from './proof-share.js';

const CROWD = crowdForTests({
  machineClass: 'truck',
  systemVolts: 24,
  engine: TRUCK.engine,
  rating: TRUCK.batteries[0]!.rating,
  tempC: 10,
});

/** Evidence of both batteries; null: not read at that one. */
const both = (check: CheckId, ...found: readonly (Found | null)[]): DiagnosisEvidence[] =>
  found.flatMap((f, battery) => (f === null ? [] : [{ check, found: f, battery }]));

function factsOf(evidence: readonly DiagnosisEvidence[]): Case {
  const rest = (battery: number): number | null => {
    const found = evidence.find((e) => e.check === 'rest' && e.battery === battery)?.found;
    return typeof found === 'number' ? found : null;
  };
  return {
    chemistry: TRUCK.batteries[0]!.rating.chemistry,
    wakes: false,
    tempC: 10,
    stops: [],
    restVolts: [rest(0), rest(1)],
    earlierFlatCalls: 0,
    diedInService: false,
  };
}
const verdictOf = (evidence: readonly DiagnosisEvidence[]): VerdictRecord =>
  conclude(CROWD, evidence, factsOf(evidence), TOOLS, DEFAULT_RULES);

describe('a string, battery by battery', () => {
  it('knows which of them is bad, whichever it is', () => {
    for (const bad of [0, 1]) {
      const at = (figure: number, other: number): [number, number] =>
        bad === 0 ? [figure, other] : [other, figure];
      const { batteries } = verdictOf([
        ...both('rest', ...at(10.5, 12.6)),
        ...both(
          'specific-gravity',
          ...(bad === 0 ? ['one-cell-low', 'even-high'] : ['even-high', 'one-cell-low']),
        ),
        ...both('conductance', ...at(0.5, 0.95)),
      ]);
      expect(batteries![bad]!.condition)
        .withContext(`battery ${bad + 1}`)
        .toBe('dead-cell');
      expect(batteries![1 - bad]!.condition)
        .withContext(`battery ${bad + 1}`)
        .toBe('sound');
      // The evidence for the bad one was read at the bad one.
      expect(batteries![bad]!.ledger[0]!.battery).toBe(bad);
    }
  });

  it('keeps a ledger of each whose first lines move that battery', () => {
    const evidence = [...both('rest', 12.55, 11.3), ...both('conductance', 0.45, null)];
    const [first, second] = verdictOf(evidence).batteries!;
    expect(first!.condition).toBe('worn');
    expect(first!.ledger[0]).toEqual(jasmine.objectContaining({ check: 'conductance', battery: 0 }));
    expect(second!.condition).toBe('discharged');
    expect(second!.ledger[0]).toEqual(jasmine.objectContaining({ check: 'rest', battery: 1 }));
  });

  it('judges each by its own charge: a flat fellow neither excuses nor condemns', () => {
    const flatAndSpent = [
      ...both('rest', 12.15, 12.6),
      ...both('conductance', 0.8, 0.42),
      ...both('load-test', -0.2, -2.5),
    ];
    expect(verdictOf(flatAndSpent).verdict).toMatch(/^replace/);
    expect(proofOf(flatAndSpent, factsOf(flatAndSpent), DEFAULT_RULES)).toBe('spent');
    // The same figure at the flat one proves nothing.
    const flatAndPoor = [...both('rest', 11.5, 12.6), ...both('conductance', 0.42, 0.95)];
    expect(verdictOf(flatAndPoor).verdict).toBe('charge-first');
    expect(proofOf(flatAndPoor, factsOf(flatAndPoor), DEFAULT_RULES)).toBeNull();
  });

  it('calls a string sound only when each was shown to be', () => {
    const tried = { check: 'crank', found: 0.6 } as const;
    const one = [...both('rest', 12.6, 12.6), ...both('conductance', 0.97, null), tried];
    const all = [...both('rest', 12.6, 12.6), ...both('conductance', 0.97, 0.96), tried];
    const sound = (evidence: readonly DiagnosisEvidence[]): number =>
      verdictOf(evidence).batteries![1]!.share;
    expect(verdictOf(all).batteries!.map((b) => b.condition)).toEqual(['sound', 'sound']);
    expect(sound(all)).toBeGreaterThan(sound(one));
  });

  it('shares of the conditions of a battery add up, and its own finding moves it most', () => {
    const shares = weigh(CROWD, both('conductance', 0.95, 0.5));
    for (const battery of [0, 1]) {
      const told = conditionShares(CROWD, shares, battery);
      expect(BATTERY_CONDITIONS.reduce((sum, c) => sum + told[c], 0)).toBeCloseTo(1, 9);
    }
    expect(conditionShares(CROWD, shares, 0).sound).toBeGreaterThan(conditionShares(CROWD, shares, 1).sound);
  });

  it('asks for the other battery once one was read, and for nothing more once both were', () => {
    const open = (evidence: readonly DiagnosisEvidence[]) =>
      stillOpen(checkOf('rest'), evidence, CROWD).map(({ battery }) => battery);
    expect(open([])).toEqual([undefined]);
    expect(open(both('rest', null, 12.5))).toEqual([0]);
    expect(open(both('rest', 12.4, 12.5))).toEqual([]);
    const asked = proposals(CROWD, both('rest', 12.4, 12.5), TOOLS).map((p) => p.check);
    expect(asked).not.toContain('rest');
    // How far they lie apart is told by both readings.
    expect(asked).not.toContain('string-balance');
  });
});

describe('volts of one battery of a string', () => {
  it('are what stands across it, or what the far post has more than its fellows', () => {
    expect(ownVolts(12.4, [12.6])).toBe(12.4);
    // 22 V at the far post over 12.6 V at the middle: nine and a half left.
    expect(ownVolts(22, [12.6])).toBeCloseTo(9.4, 9);
    expect(ownVolts(25.2, [12.6])).toBeCloseTo(12.6, 9);
    expect(ownVolts(ONE_BATTERY_MOST_VOLTS, [12.6])).toBe(ONE_BATTERY_MOST_VOLTS);
  });

  it('are not known while a fellow is not read, and stand as read at the chassis end', () => {
    expect(ownVolts(22, [null])).toBeNull();
    expect(ownVolts(12.2, [null])).toBe(12.2);
    expect(ownVolts(22, [])).toBe(22);
  });
});
