import { type CrankTrace, simulateWake, type WakeCase, type WakeTrace } from '@voltrek/core/crank';
import {
  type Change,
  type Crowd,
  crowdAfter,
  diagnose,
  type DiagnosisEvidence,
  type DiagnosisProfile,
  drawCrowd,
  DRAWS_PER_CAUSE,
  type Proposal,
  type Moment,
  proposals,
  type Suspicion,
  type Tool,
} from '@voltrek/core/diagnosis';
import type { Machine } from '@voltrek/core/machine';
import {
  afterWait,
  type HelpGain,
  type LeadCell,
  leadGrid,
  type Odds,
  oddsOf,
  type PlanCase,
  traceOf,
  type WaitCurve,
  waitCurve,
  type Way,
  type Ways,
  type WaysInput,
  waysOneByOne,
  whatHelps,
} from '@voltrek/core/plan';
import {
  type PracticeAction,
  replay,
  startCase,
  toolNext,
  toolRun,
  type World,
  type Drill,
  type DrillKind,
  drillOf,
} from '@voltrek/core/practice';
import { seededRandom } from '@voltrek/core/quantities';
import { bestParking, type LeadPoints, type Pose } from '@voltrek/core/reach';
import type { HouseRules } from '@voltrek/core/rules';
import type { Recording } from '@voltrek/core/trace';
import { type Case, conclude, type VerdictRecord } from '@voltrek/core/verdict';
import { expose } from 'comlink';
import { readTrace, type TraceOf, type TraceRead } from './trace-read';

/** One seed for everything, so that two options are compared on the same draws. */
const SEED = 20;

type Progress = (share: number) => void;

/** The suspects, and the checks that would tell most. */
export interface Suspected {
  readonly suspicions: readonly Suspicion[];
  readonly proposals: readonly Proposal[];
}

/** The tasks of the plan worker. Ending the worker is how it is stopped. */
export interface PlanWorker {
  odds(plan: PlanCase, samples: number, onProgress: Progress): Odds;
  trace(plan: PlanCase, seconds: number): CrankTrace;
  wake(wake: WakeCase): WakeTrace;
  wait(plan: PlanCase, minutes: number, samples: number, onProgress: Progress): WaitCurve;
  /** Waits after each way until it was taken: the drawing has the processor to itself. */
  ways(
    input: WaysInput,
    samples: number,
    onWay: (way: Way, share: number) => void | Promise<void>,
  ): Promise<Ways>;
  leads(plan: PlanCase, samples: number, onProgress: Progress): LeadCell[] | null;
  helps(plan: PlanCase, now: number, samples: number): HelpGain[];
  park(casualty: Machine, donor: Machine, points: LeadPoints): Pose;
  suspect(
    profile: DiagnosisProfile,
    repairs: readonly Change[],
    evidence: readonly DiagnosisEvidence[],
    tools: readonly Tool[],
    moment: Moment,
    /** Machines drawn of each cause. */
    perCause: number,
  ): Suspected;
  readTrace(what: Blob | Recording, name: string, of: TraceOf, onProgress: Progress): Promise<TraceRead>;
  conclude(
    profile: DiagnosisProfile,
    repairs: readonly Change[],
    evidence: readonly DiagnosisEvidence[],
    facts: Case,
    tools: readonly Tool[],
    rules: HouseRules,
  ): VerdictRecord;
  /** Returns the tool's next action in a case that has come so far; null once its verdict was given. */
  practiceNext(code: string, actions: readonly PracticeAction[]): { readonly next: PracticeAction | null };
  /** The whole case as the tool would work it. */
  practiceRun(code: string): World;
  /** A drill: drawing one may weigh a whole crowd. */
  drill(kind: DrillKind, number: number): { readonly drill: Drill };
}

const goOn =
  (onProgress: Progress) =>
  (share: number): boolean => {
    onProgress(share);
    return true;
  };

/** Drawing a crowd takes a while: it is kept while the machine and its cold stay, and so is what repairs made of it. */
let kept: { readonly drawn: Crowd; readonly perCause: number; mended: Crowd } | null = null;
const isSame = (a: unknown, b: unknown): boolean => JSON.stringify(a) === JSON.stringify(b);

function crowdOf(profile: DiagnosisProfile, repairs: readonly Change[], perCause = DRAWS_PER_CAUSE): Crowd {
  if (kept?.perCause !== perCause || !isSame(kept.drawn.profile, profile)) {
    const drawn = drawCrowd(profile, undefined, perCause);
    kept = { drawn, perCause, mended: drawn };
  }
  if (!isSame(kept.mended.repairs, repairs)) kept.mended = crowdAfter(kept.drawn, repairs);
  return kept.mended;
}

const worker: PlanWorker = {
  odds: (plan, samples, onProgress) =>
    oddsOf(afterWait(plan), plan.engine, samples, seededRandom(SEED), goOn(onProgress))!,
  trace: traceOf,
  wake: simulateWake,
  wait: (plan, minutes, samples, onProgress) => waitCurve(plan, minutes, samples, SEED, goOn(onProgress))!,
  ways: async (input, samples, onWay) => {
    const search = waysOneByOne(input, SEED, samples);
    for (;;) {
      const step = search.next();
      if (step.done) return step.value;
      await onWay(...step.value);
    }
  },
  leads: (plan, samples, onProgress) => leadGrid(plan, samples, SEED, goOn(onProgress)),
  helps: (plan, now, samples) => whatHelps(plan, now, samples, SEED),
  suspect: (profile, repairs, evidence, tools, moment, perCause) => {
    const crowd = crowdOf(profile, repairs, perCause);
    return { suspicions: diagnose(crowd, evidence), proposals: proposals(crowd, evidence, tools, moment) };
  },
  readTrace,
  conclude: (profile, repairs, evidence, facts, tools, rules) =>
    conclude(crowdOf(profile, repairs), evidence, facts, tools, rules),
  practiceNext: (code, actions) => {
    const world = replay(code, actions);
    return { next: toolNext(world, crowdOf(world.practice.profile, [])) };
  },
  practiceRun: (code) => toolRun(code, crowdOf(startCase(code).practice.profile, [])),
  drill: (kind, number) => ({ drill: drillOf(kind, number) }),
  park: (casualty, donor, points) => bestParking(casualty, donor, points).pose,
};

expose(worker);
