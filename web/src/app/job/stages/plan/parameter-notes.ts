import type { PlanInputKey } from '@voltrek/core/plan';
import { parameters } from '@voltrek/core/quantities';
import { INPUT_REASONS } from '@words/words';
import { PARAMETER_NOTES as T } from '@words/screens/job-stages-plan';

/** The parameter of a figure: its default where it has one, its plausible range, and why. */
export function parameterFor(key: PlanInputKey): string | null {
  const found = parameters().find((p) => p.id === key);
  if (!found) return null;
  const usual = found.value === null ? '' : T.usually({ value: found.value });
  return T.hereTo({ reason: INPUT_REASONS[key], usual, low: found.low, high: found.high, unit: found.unit });
}
