import {
  caseOfJob,
  DEFAULT_RULES,
  foldJob,
  type HookupStep,
  hookupScene,
  isDone,
  type Job,
  type JobReadings,
  judge,
  lastUndoable,
  makeSafe,
  oddsForJob,
  ordersOfJob,
  plannedOption,
  rankForJob,
} from '@voltrek/core';
import { createSelector, createSelectorFactory, resultMemoize } from '@ngrx/store';
import { jobFeature } from './job-state';

const { selectDetail, selectLogged, selectPending } = jobFeature;

/** The log as this screen knows it: what the server has, then what it has yet to take. */
export const selectEvents = createSelector(selectLogged, selectPending, (logged, pending) => [
  ...logged.map((l) => l.event),
  ...pending,
]);

export const selectJob = createSelector(selectEvents, foldJob);

export const selectMachine = createSelector(selectDetail, (detail) => detail?.machine ?? null);

/** The job with its machine, once both are here. */
export const selectWork = createSelector(selectJob, selectDetail, (job, detail) =>
  job && detail ? { job, ...detail } : null,
);
export type Work = NonNullable<ReturnType<typeof selectWork>>;

export const selectUndoable = createSelector(selectEvents, selectJob, (events, job) =>
  job?.closedAt === null ? lastUndoable(events) : null,
);

/**
 * What ranking depends on, kept the same object while it says the same: folding makes new lists, and solving every option again for
 * a tap that changes none of them would make the tap slow.
 */
const selectJobReadings = createSelectorFactory<object, JobReadings | null>((projector) =>
  resultMemoize(projector, (a: unknown, b: unknown) => JSON.stringify(a) === JSON.stringify(b)),
)(selectJob, (job: Job | null) => job && { readings: job.readings, scene: job.scene, call: job.call });

export const selectOptions = createSelector(selectJobReadings, selectDetail, (readings, detail) =>
  readings && detail ? rankForJob(readings, detail.machine, detail.kit, DEFAULT_RULES) : [],
);

/** What the odds of each fitting option are drawn from; the same object while the options are the same. */
export const selectOddsInputs = createSelector(
  selectJobReadings,
  selectDetail,
  selectOptions,
  (readings, detail, options) =>
    readings && detail
      ? oddsForJob(readings, detail.machine, options, DEFAULT_RULES)
      : new Map<string, never>(),
);

/** The plan's option with its orders and circuit; null without a plan. */
export const selectRescue = createSelector(selectWork, (work) => {
  if (!work) return null;
  const { job, machine, kit, donorMachine } = work;
  const option = plannedOption(job, machine, kit);
  if (!option) return null;
  return {
    option,
    orders: ordersOfJob(job, machine, donorMachine, option, DEFAULT_RULES),
    scene: hookupScene(job, machine, option),
  };
});
export type PlannedRescue = NonNullable<ReturnType<typeof selectRescue>>;

/** The next step of the hook-up that is not done; null when all are. */
export const selectNextHookupStep = createSelector(selectJob, selectRescue, (job, rescue) =>
  job && rescue ? firstOpen(rescue.orders.hookup, job.hookup) : null,
);

export const selectNextClearingStep = createSelector(selectJob, selectRescue, (job, rescue) =>
  job && rescue && job.everConnected ? firstOpen(rescue.orders.clearing, job.hookup) : null,
);

function firstOpen(steps: readonly HookupStep[], state: Parameters<typeof isDone>[0]): HookupStep | null {
  return steps.find((step) => !isDone(state, step.action)) ?? null;
}

/** The order that takes everything off from here. */
export const selectMakeSafe = createSelector(selectJob, selectRescue, (job, rescue) =>
  job && rescue ? makeSafe(rescue.scene, job.hookup, DEFAULT_RULES) : [],
);

/** The verdict over what is recorded so far. */
export const selectJudgement = createSelector(selectWork, (work) =>
  work ? judge(caseOfJob(work.job, work.machine, work.earlierFlatCalls), DEFAULT_RULES) : null,
);
