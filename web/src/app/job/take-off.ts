import type { HookupAction } from '@voltrek/core/hookup';
import { entryOf } from '@voltrek/core/job';
import type { Work } from '../shared/job/job-selectors';
import type { Reporter } from '../shared/job/reporter';
import type { StageAction } from './next-action';
import { actionDone, stepKey } from './step-words';

/** Returns the bar's action where, under a stop, one thing comes off first: the same at every stage. */
export const takeOff = (action: HookupAction, { job, machine }: Work, reporter: Reporter): StageAction => ({
  label: actionDone(action, machine, job.plan?.sourceKind),
  key: stepKey({ action }),
  go: () => reporter.report(...entryOf(action)),
});
