import {
  anyClampOn,
  type HookupStep,
  makeSafe,
  NOTHING_CONNECTED,
  type OrderProgress,
  progressOf,
  replan,
} from '@voltrek/core/hookup';
import {
  evidenceOfJob,
  foldingOnward,
  hookupScene,
  type Job,
  lastUndoable,
  type OtherVan,
  ordersOfJob,
  planCases,
  plannedOption,
  profileOfJob,
  rankForJob,
  repairsMade,
  readingsOf,
  toolsOfKit,
  vansHere,
  wakeCases,
} from '@voltrek/core/job';
import type { KitItem } from '@voltrek/core/sources';
import { DEFAULT_RULES, HOUSE_RULE_KEYS } from '@voltrek/core/rules';
import { createSelector, createSelectorFactory, resultMemoize } from '@ngrx/store';
import { kitFeature } from '../state/kit';
import type { Van } from '@voltrek/contracts';
import { jobFeature } from './job-state';

const { selectLogged, selectPending } = jobFeature;

/** The log as this screen knows it: what the server has, then what it has yet to take. */
export const selectEvents = createSelector(selectLogged, selectPending, (logged, pending) => [
  ...logged.map((l) => l.event),
  ...pending,
]);

export const selectJob = createSelector(selectEvents, foldingOnward());

const selectJobRules = createSelector(selectJob, (job) => job?.rules ?? null);

/** Vans beside the job's own that have come to it. */
const selectVansHere = createSelector(
  createSelector(selectJob, (job) => (job ? vansHere(job).join() : '')),
  kitFeature.selectVans,
  (here, vans) => (here === '' ? NO_VANS : vans.filter(({ id }) => here.split(',').includes(id))),
);
/** One and the same: what came with the job stays the same object while no other van is here. */
const NO_VANS: readonly Van[] = [];

/** What came with the job: the rules are its own, where its log has them, and what other vans brought is at hand too. */
export const selectDetail = createSelector(
  jobFeature.selectDetail,
  selectJobRules,
  selectVansHere,
  (detail, own, here) => {
    if (!detail) return null;
    const known = new Set(detail.kit.map(({ id }) => id));
    const brought = here.flatMap(({ kit }) => kit.filter(({ id }) => !known.has(id)));
    const kit = brought.length > 0 ? [...detail.kit, ...brought] : detail.kit;
    return { ...detail, kit, rules: own ?? detail.rules };
  },
);

/** The job with its machine, once both are here. */
export const selectWork = createSelector(selectJob, selectDetail, (job, detail) =>
  job && detail ? { job, ...detail } : null,
);
export type Work = NonNullable<ReturnType<typeof selectWork>>;

/** House rules that were changed since the job was opened, with what they are now; null when it is worked by the same. */
export const selectChangedRules = createSelector(jobFeature.selectDetail, selectJobRules, (detail, own) => {
  if (!detail || !own) return null;
  const changed = HOUSE_RULE_KEYS.filter((key) => own[key] !== detail.rules[key]);
  return changed.length > 0 ? { changed, was: own, now: detail.rules } : null;
});

/** House rules that this job is worked by; the defaults until it is here. */
export const selectRules = createSelector(selectDetail, (detail) => detail?.rules ?? DEFAULT_RULES);

export const selectUndoable = createSelector(selectEvents, selectJob, (events, job) =>
  job?.closedAt === null ? lastUndoable(events) : null,
);

/** A part of the job kept the same object while it says the same: folding makes new lists at every tap. */
const keptPart = <P extends object>(part: (job: Job) => P) =>
  createSelectorFactory<object, P | null>((projector) =>
    resultMemoize(projector, (a: unknown, b: unknown) => JSON.stringify(a) === JSON.stringify(b)),
  )(selectJob, (job: Job | null) => job && part(job));

/** What ranking depends on: solving every option again for a tap that changes none of it would make the tap slow. */
const selectJobReadings = keptPart(readingsOf);

export const selectOptions = createSelector(selectJobReadings, selectDetail, (readings, detail) =>
  readings && detail ? rankForJob(readings, detail.machine, detail.kit, detail.rules) : [],
);

/** What the figures of each fitting option rest on; the same object while the options are the same. */
export const selectPlanCases = createSelector(
  selectJobReadings,
  selectDetail,
  selectOptions,
  (readings, detail, options) =>
    readings && detail
      ? planCases(readings, detail.machine, options, detail.rules)
      : new Map<string, never>(),
);

/** What vans that are not here could bring, ranked for this job. */
export const selectOtherVans = createSelector(
  selectJobReadings,
  selectDetail,
  kitFeature.selectVans,
  (readings, detail, vans): readonly OtherVan[] =>
    readings && detail
      ? vans
          .filter(
            ({ id, retired, kit }) => !retired && id !== detail.call.vanId && !isAtHand(kit, detail.kit),
          )
          .map(({ id, kit }) => {
            const { machine, rules } = detail;
            const ranked = rankForJob(readings, machine, kit, rules);
            return { vanId: id, kit, ranked, cases: planCases(readings, machine, ranked, rules) };
          })
      : [],
);
const isAtHand = (theirs: readonly KitItem[], ours: readonly KitItem[]): boolean =>
  theirs.every(({ id }) => ours.some((item) => item.id === id));

/** The wake-up of each fitting option, for a machine that wakes. */
export const selectWakeCases = createSelector(
  selectJobReadings,
  selectDetail,
  selectOptions,
  (readings, detail, options) =>
    readings && detail
      ? wakeCases(readings, detail.machine, options, detail.rules)
      : new Map<string, never>(),
);

const NO_KIT: readonly KitItem[] = [];

/** What the orders depend on, which are searched for and so cost more than a tap may. */
const selectOrderBasis = keptPart((job) => ({ ...readingsOf(job), plan: job.plan }));

const selectMachine = createSelector(selectDetail, (detail) => detail?.machine ?? null);
const selectDonorMachine = createSelector(selectDetail, (detail) => detail?.donorMachine ?? null);
const selectKit = createSelector(selectDetail, (detail) => detail?.kit ?? NO_KIT);

/** The plan's option with its orders and circuit, the same object until one of them changes; null without a plan. */
export const selectRescue = createSelector(
  selectOrderBasis,
  selectMachine,
  selectDonorMachine,
  selectKit,
  selectRules,
  (basis, machine, donorMachine, kit, rules) => {
    if (!basis || !machine) return null;
    const option = plannedOption(basis, machine, kit, rules);
    if (!option) return null;
    return {
      option,
      orders: ordersOfJob(basis, machine, donorMachine, option, rules),
      scene: hookupScene(basis, machine, donorMachine, option),
    };
  },
);
export type PlannedRescue = NonNullable<ReturnType<typeof selectRescue>>;

const NO_STEPS: readonly HookupStep[] = [];
export type OrderRun = OrderProgress<HookupStep>;

/** How far the hook-up is, and how to go on from here, in order or not; no steps without a plan. */
export const selectHookupRun = createSelector(selectJob, selectRescue, selectRules, (job, rescue, rules) => {
  const hookup = job?.hookup ?? NOTHING_CONNECTED;
  return rescue ? replan(rescue.scene, rescue.orders.hookup, hookup, rules) : progressOf(NO_STEPS, hookup);
});

/** How far the clearing is. Once the last clamp is off the order is behind us, whatever its first step says. */
export const selectClearingRun = createSelector(selectJob, selectRescue, (job, rescue) => {
  const hookup = job?.hookup ?? NOTHING_CONNECTED;
  const isUnderWay = job?.everConnected && (anyClampOn(hookup) || hookup.donorRunning || hookup.negativeOff);
  return progressOf((isUnderWay ? rescue?.orders.clearing : null) ?? NO_STEPS, hookup);
});

/** The order that takes everything off from here. */
export const selectMakeSafe = createSelector(selectJob, selectRescue, selectRules, (job, rescue, rules) =>
  job && rescue ? makeSafe(rescue.scene, job.hookup, rules) : [],
);

/** What the diagnosis of a job is asked with. */
export function diagnosisOf({ job, machine, kit, earlierFlatCalls }: Work) {
  return {
    profile: profileOfJob(job, machine),
    repairs: repairsMade(job),
    evidence: evidenceOfJob(job, machine, earlierFlatCalls),
    tools: toolsOfKit(kit, job.scene?.mainsNear ?? false),
  };
}
