import { PARAMETERS } from '@voltrek/core/model';
import type { PlanInputKey } from '@voltrek/core/plan';
import { PARAMETER_NOTES as T } from '@words/screens/job-stages-plan';

/** The table's entry of a figure: its default where it has one, its plausible range, and why. */
export function parameterFor(key: PlanInputKey): string | null {
  const found = PARAMETERS.find((p) => p.id === key);
  if (!found) return null;
  const usual = found.value === null ? '' : T.usually(found.value);
  return T.hereTo(found.reason, usual, found.low, found.high, found.unit);
}
