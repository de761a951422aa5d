import { entryOf, type NextAction } from '@voltrek/core/job';
import { LIFT } from '@words/screens/job-charge';
import type { Work } from '../shared/job/job-selectors';
import type { Reporter } from '../shared/job/reporter';
import type { StageAction } from './next-action';
import { actionDone, stepKey } from './step-words';

/**
 * Returns the bar's action where one thing comes off before anything else, the same at every stage: under a stop the clamps, and the lamp of
 * a lift. Null where nothing does.
 */
export function offFirst(next: NextAction, { job, machine }: Work, reporter: Reporter): StageAction | null {
  if (next.act === 'take-off')
    return {
      label: actionDone(next.action, machine, job.plan?.sourceKind),
      key: stepKey({ action: next.action }),
      go: () => reporter.report(...entryOf(next.action)),
    };
  if (next.act !== 'part-lamp') return null;
  const { battery } = job.lifting!;
  return { label: LIFT.part, go: () => reporter.report('lift.confirmed', { battery, step: 'part-lamp' }) };
}
