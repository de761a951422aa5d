import { isLeadAcid, socFromRestVolts, SPENT_BELOW_SHARE, WORN_BELOW_SHARE } from '../battery/index.js';
import { type CheckId, crankLimitVolts, type DiagnosisEvidence } from '../diagnosis/index.js';
import type { HouseRules } from '../rules/index.js';
import { type Case, isJudgeable, isKnownFlat, mayBeJudged } from './case.js';

/** The proof that condemns a battery: spent for good, or worn. */
export type Proof = 'spent' | 'worn';

/**
 * The strongest proof against the battery in the evidence. Discharged is not the same as bad, so each test counts only in its window: a
 * tester, a load or a crank from three quarters charge on. A charger that is full at once only from flat, and low rest volts alone never.
 */
export function proofOf(
  evidence: readonly DiagnosisEvidence[],
  facts: Case,
  rules: HouseRules,
): Proof | null {
  const whole = evidence.filter((e) => e.battery === undefined);
  const proofs = [
    proofIn(whole, whole, facts, rules),
    ...facts.restVolts.map((_, i) =>
      proofIn(ofBattery(evidence, i), [...whole, ...ofBattery(evidence, i)], factsOf(facts, i), rules),
    ),
  ];
  return proofs.includes('spent') ? 'spent' : proofs.includes('worn') ? 'worn' : null;
}

const ofBattery = (evidence: readonly DiagnosisEvidence[], battery: number): DiagnosisEvidence[] =>
  evidence.filter((e) => e.battery === battery);

/** Returns the facts of one battery of a string: it is judged by its own charge. */
const factsOf = (facts: Case, battery: number): Case => ({
  ...facts,
  restVolts: facts.restVolts.slice(battery, battery + 1),
});

/** Proof in what was read of one battery, or of the machine, beside everything else that speaks of it. */
function proofIn(
  evidence: readonly DiagnosisEvidence[],
  beside: readonly DiagnosisEvidence[],
  facts: Case,
  rules: HouseRules,
): Proof | null {
  const figure = (id: CheckId): number | null => {
    const found = evidence.find((e) => e.check === id)?.found;
    return typeof found === 'number' ? found : null;
  };
  const isFound = (id: CheckId, word: string): boolean =>
    evidence.some((e) => e.check === id && e.found === word);
  const isBelow = (id: CheckId, limit: number): boolean => (figure(id) ?? Infinity) < limit;
  const isCharged = mayBeJudged(facts, rules);
  if (isFound('specific-gravity', 'one-cell-low')) return 'spent';
  if (isFound('acceptance', 'full-at-once') && isKnownFlat(facts)) return 'spent';
  if (didNotHold(facts)) return 'spent';
  if (!isCharged) return null;
  if (isBelow('conductance', SPENT_BELOW_SHARE)) return 'spent';
  // A crank is recorded against its limit: this far under it the posts are under the volts that are always bad.
  const collapse = rules.crankMinimumBadVolts - crankLimitVolts(facts.tempC, 12);
  if (isBelow('crank', collapse)) return 'spent';
  // Charged volts that fall away under the dash lamps: a link inside carries a meter's current and no more.
  if ((figure('key-on') ?? 0) > BROKEN_LINK_DROP_VOLTS) return 'spent';
  // One figure a little low proves nothing while another test of the same battery holds up well.
  const holdsUp = beside.some(
    ({ check, found }) =>
      (check === 'crank' || check === 'load-test') && typeof found === 'number' && found >= HOLDS_UP_VOLTS,
  );
  if (holdsUp) return null;
  return isBelow('conductance', WORN_BELOW_SHARE) || isBelow('crank', 0) || isBelow('load-test', 0)
    ? 'worn'
    : null;
}

/** Cells of a charged battery this far apart are not a slip of the eye: twice what makes a cell bad. */
const CELLS_FAR_APART = 0.1;

/**
 * Tells whether the cells of a battery stand apart, whatever its rest volts say: `bad` where it is charged and they do by far; `doubtful`
 * where one misread cell may have done it, or where a charge may still even them. Null where they do not.
 */
export function cellsApart(
  evidence: readonly DiagnosisEvidence[],
  facts: Case,
  rules: HouseRules,
): 'bad' | 'doubtful' | null {
  const read = evidence.filter(
    ({ check, found }) => check === 'specific-gravity' && found === 'one-cell-low',
  );
  if (read.length === 0) return null;
  const isBad = read.some(
    ({ battery, cellSpread = 0 }) =>
      cellSpread >= CELLS_FAR_APART &&
      isJudgeable(battery === undefined ? facts : factsOf(facts, battery), rules),
  );
  return isBad ? 'bad' : 'doubtful';
}

/** True of a battery that was full a day ago and did not hold what it was given: whatever else is wrong, it is spent. */
const didNotHold = ({ isRested, chemistry, restVolts, tempC }: Case): boolean =>
  isRested === true &&
  isLeadAcid(chemistry) &&
  restVolts.some(
    (volts) => volts !== null && socFromRestVolts(chemistry, volts, tempC).soc < RESTED_LEAST_SOC,
  );
/** Under 12.4 V a day after a full charge a flooded battery is spent: about this charge, share of full. */
const RESTED_LEAST_SOC = 0.69;

/** A crank or load this far above its limit holds up well, V. */
const HOLDS_UP_VOLTS = 1;
/** A charged battery that loses more than this to the dash lamps is broken inside, V. */
const BROKEN_LINK_DROP_VOLTS = 3;

/** True when tests have shown every battery sound, whatever else is wrong. */
export function showsSound(evidence: readonly DiagnosisEvidence[], facts: Case, rules: HouseRules): boolean {
  return (
    soundIn(
      evidence.filter((e) => e.battery === undefined),
      facts,
      rules,
    ) ||
    (facts.restVolts.length > 1 &&
      facts.restVolts.every((_, i) => soundIn(ofBattery(evidence, i), factsOf(facts, i), rules)))
  );
}

function soundIn(evidence: readonly DiagnosisEvidence[], facts: Case, rules: HouseRules): boolean {
  const isAtLeast = (id: CheckId, limit: number): boolean =>
    evidence.some(({ check, found }) => check === id && typeof found === 'number' && found >= limit);
  const isCharged = mayBeJudged(facts, rules);
  return (
    isAtLeast('conductance', WORN_BELOW_SHARE) ||
    (isCharged && (isAtLeast('load-test', 0) || isAtLeast('crank', 0)))
  );
}
