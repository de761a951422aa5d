import { inWords } from '@words/template-words';
import { selectShownLanguage } from '../model/shown-language';
import { NOTHING_CONNECTED } from '@voltrek/core/hookup';
import { DEFAULT_RULES, HOUSE_RULE_KEYS } from '@voltrek/core/rules';
import type { RankedOption } from '@voltrek/core/plan';
import {
  clearingRunOf,
  findingsOfJob,
  foldingOnward,
  hookupRunOf,
  type Job,
  lastUndoable,
  type AsFound,
  machineAsFound,
  makeSafeOf,
  type OrderRun,
  type OtherVan,
  planCases,
  plannedRescue,
  rankForJob,
  readingsOf,
  type Situation,
  situationOf,
  toolsOfKit,
  vansHere,
  wakeCases,
} from '@voltrek/core/job';
import type { KitItem } from '@voltrek/core/sources';
import type { Findings } from '@voltrek/core/belief';
import { createSelector, createSelectorFactory, resultMemoize } from '@ngrx/store';
import { kitCopy } from '../data/kit';
import type { Van } from '@voltrek/contracts';
import { jobFeature } from '../model/job-state';

const { selectLogged, selectPending } = jobFeature;

/** The log as this screen knows it: what the server has, then what it has yet to take. */
export const selectEvents = createSelector(selectLogged, selectPending, (logged, pending) => [
  ...logged.map((l) => l.event),
  ...pending,
]);

export const selectJob = createSelector(selectEvents, foldingOnward());

const selectJobRules = createSelector(selectJob, (job) => job?.rules ?? null);

const NO_KIT: readonly KitItem[] = [];

/** Vans beside the job's own that have come to it. */
const selectVansHere = createSelector(
  createSelector(selectJob, (job) => (job ? vansHere(job).join() : '')),
  kitCopy.selectCopy,
  (here, vans) => (here === '' ? NO_VANS : vans.filter(({ id }) => here.split(',').includes(id))),
);
/** One and the same: what came with the job stays the same object while no other van is here. */
const NO_VANS: readonly Van[] = [];

/** The part of the log that says which batteries the machine was found with. */
const selectFoundWith = createSelector(
  createSelector(selectJob, (job) => job?.call ?? null),
  createSelector(selectJob, (job) => job?.modelId ?? ''),
  createSelector(selectJob, (job) => job?.found),
  (call, modelId, found): AsFound | null => call && { call, modelId, ...(found && { found }) },
);

/**
 * The record of the job: the rules are its own, where its log has them. The machine has its fitted batteries, and kit of other vans is at
 * hand too.
 */
export const selectDetail = createSelector(
  jobFeature.selectDetail,
  selectJobRules,
  selectVansHere,
  selectFoundWith,
  selectShownLanguage,
  (detail, own, here, foundWith) => {
    if (!detail) return null;
    const entry = inWords(detail.machine);
    const machine = foundWith ? machineAsFound(foundWith, entry) : entry;
    const donorMachine = detail.donorMachine && inWords(detail.donorMachine);
    const known = new Set(detail.kit.map(({ id }) => id));
    const brought = here.flatMap(({ kit }) => kit.filter(({ id }) => !known.has(id)));
    const kit = brought.length > 0 ? [...detail.kit, ...brought] : detail.kit;
    return { ...detail, machine, donorMachine, kit, rules: own ?? detail.rules };
  },
);

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

/** Makes a selector whose answer stays the same object while it says the same. */
const keptSelector = <P extends object>() =>
  createSelectorFactory<object, P | null>((projector) =>
    resultMemoize(projector, (a: unknown, b: unknown) => JSON.stringify(a) === JSON.stringify(b)),
  );

/** A part of the job kept the same object while it says the same: folding makes new lists at every tap. */
const keptPart = <P extends object>(part: (job: Job) => P) =>
  keptSelector<P>()(selectJob, (job: Job | null) => job && part(job));

/** The situation depends on this part of the log alone: solving every option again for a tap that changes none of it would be slow. */
const selectJobReadings = keptPart(readingsOf);

/** The record of the job beside its log; the same object while none of it changes. */
const selectRecord = createSelector(
  createSelector(selectDetail, (detail) => detail?.machine ?? null),
  createSelector(selectDetail, (detail) => detail?.donorMachine ?? null),
  createSelector(selectDetail, (detail) => detail?.kit ?? NO_KIT),
  createSelector(selectDetail, (detail) => detail?.earlierFlatCalls ?? 0),
  createSelector(selectDetail, (detail) => detail?.earlier ?? null),
  (machine, donor, kit, earlierFlatCalls, earlier) =>
    machine && { machine, donor, kit, earlierFlatCalls, earlier },
);

/** The situation of the job, the same object while nothing of it changes: every screen asks it here. */
export const selectSituation = createSelector(
  selectJobReadings,
  selectRecord,
  selectRules,
  (readings, record, rules) => readings && record && situationOf(readings, record, rules),
);

/** The job with what is known beside it and what is true of it now, once all are here. The machine has the batteries that are in it now. */
export const selectWork = createSelector(
  selectJob,
  selectDetail,
  selectSituation,
  (job, detail, situation) =>
    job && detail && situation ? { job, ...detail, machine: situation.machine, situation } : null,
);
export type Work = NonNullable<ReturnType<typeof selectWork>>;

export const selectOptions = createSelector(selectSituation, (situation) =>
  situation ? rankForJob(situation) : [],
);

/** The cases that the figures of each fitting option rest on; the same object while the options are the same. */
export const selectPlanCases = createSelector(selectSituation, selectOptions, (situation, options) =>
  situation ? planCases(situation, options) : new Map<string, never>(),
);

const NO_OPTIONS: readonly RankedOption[] = [];

/** The ranked options of a job that has tries: only its findings need them, and ranking costs milliseconds. */
const selectOptionsTried = (state: object): readonly RankedOption[] =>
  selectJob(state)?.attempts.length ? selectOptions(state) : NO_OPTIONS;

/** The findings of the job: plan, checks and verdict read these; the same object while it says the same. */
export const selectFindings = keptSelector<Findings>()(
  selectJob,
  selectSituation,
  selectOptionsTried,
  (job: Job | null, situation: Situation | null, ranked: readonly RankedOption[]) =>
    job && situation && findingsOfJob(job, situation, ranked),
);

/** The input of the diagnosis of a job. */
export const selectDiagnosis = createSelector(
  selectWork,
  selectFindings,
  (work, findings) =>
    work &&
    findings && {
      findings,
      tools: toolsOfKit(work.kit, work.job.scene?.mainsNear ?? false),
      moment: { runs: work.situation.casualtyRuns },
    },
);

/** The kit of vans that are not here, ranked for this job. */
export const selectOtherVans = createSelector(
  selectSituation,
  selectDetail,
  kitCopy.selectCopy,
  (situation, detail, vans): readonly OtherVan[] =>
    situation && detail
      ? vans
          .filter(
            ({ id, retired, kit }) => !retired && id !== detail.call.vanId && !isAtHand(kit, detail.kit),
          )
          .map(({ id, kit }) => {
            const ranked = rankForJob(situation, kit);
            return { vanId: id, kit, ranked, cases: planCases(situation, ranked) };
          })
      : [],
);
const isAtHand = (theirs: readonly KitItem[], ours: readonly KitItem[]): boolean =>
  theirs.every(({ id }) => ours.some((item) => item.id === id));

/** The wake-up of each fitting option, for a machine that wakes. */
export const selectWakeCases = createSelector(selectSituation, selectOptions, (situation, options) =>
  situation ? wakeCases(situation, options) : new Map<string, never>(),
);

/** The plan of the log, the same object while it says the same. */
const selectPlan = keptPart(({ plan }) => ({ plan }));

/** The plan's option with its orders and circuit, the same object until one of them changes; null without a plan. */
export const selectRescue = createSelector(selectSituation, selectPlan, (situation, of) =>
  situation && of ? plannedRescue(situation, of.plan) : null,
);

const NOTHING_DONE = { hookup: NOTHING_CONNECTED, everConnected: false } as const;

/** How far the hook-up is, and how to go on from here, in order or not; no steps without a plan. */
export const selectHookupRun = createSelector(
  selectJob,
  selectRescue,
  selectSituation,
  (job, rescue, situation): OrderRun =>
    job && situation ? hookupRunOf(job, rescue, situation) : { done: [], next: null, later: [] },
);

/** How far the clearing is. */
export const selectClearingRun = createSelector(selectJob, selectRescue, (job, rescue) =>
  clearingRunOf(job ?? NOTHING_DONE, rescue),
);

/** The order that takes everything off from here. */
export const selectMakeSafe = createSelector(
  selectJob,
  selectRescue,
  selectSituation,
  (job, rescue, situation) => (job && situation ? makeSafeOf(job, rescue, situation) : []),
);
