import {
  type CheckId,
  checkOf,
  type DiagnosisProfile,
  drawHidden,
  type Found,
  type HiddenMachine,
  outcomeChances,
  priorsFor,
  spreadOf,
} from '../diagnosis/index.js';
import { drawWeighted, normal, type Random } from '../quantities/index.js';

/** Returns the answer of a hidden machine to a check, with the noise of hands and instruments. */
export function answerOf(
  id: CheckId,
  hidden: HiddenMachine,
  profile: DiagnosisProfile,
  random: Random,
): Found {
  const check = checkOf(id);
  if (check.predict) return normal(random, check.predict(hidden, profile)!, spreadOf(check, hidden, profile));
  const chances = outcomeChances(check, hidden, profile);
  return drawWeighted(
    random,
    check.outcomes.map((outcome, i) => [outcome, chances[i]!] as const),
  );
}

/** A cause drawn as often as it comes, and a machine that has it. */
export function drawCase(profile: DiagnosisProfile, random: Random): HiddenMachine {
  return drawHidden(drawWeighted(random, [...priorsFor(profile)]), profile, random);
}
