import { outcomeChances } from '../diagnosis/belief.js';
import { type Cause, type DiagnosisProfile, priorsFor } from '../diagnosis/causes.js';
import { type CheckId, checkOf, type Found, spreadOf } from '../diagnosis/checks.js';
import { drawHidden, type HiddenMachine } from '../diagnosis/hidden.js';
import { normal, type Random } from '../quantities/random.js';

/** What a hidden machine answers to a check, with the noise of hands and instruments. */
export function answerOf(
  id: CheckId,
  hidden: HiddenMachine,
  profile: DiagnosisProfile,
  random: Random,
): Found {
  const check = checkOf(id);
  if (check.predict) return normal(random, check.predict(hidden, profile)!, spreadOf(check, hidden, profile));
  let left = random();
  const chances = outcomeChances(check, hidden, profile);
  const at = chances.findIndex((share) => (left -= share) < 0);
  return check.outcomes[at < 0 ? chances.length - 1 : at]!;
}

/** A cause drawn as often as it comes, and a machine that has it. */
export function drawCase(profile: DiagnosisProfile, random: Random): HiddenMachine {
  let left = random();
  let drawn: Cause = 'none';
  for (const [cause, share] of priorsFor(profile)) {
    left -= share;
    drawn = cause;
    if (left < 0) break;
  }
  return drawHidden(drawn, profile, random);
}
