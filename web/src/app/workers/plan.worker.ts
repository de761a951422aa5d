import { type CrankTrace, simulateWake, type WakeCase, type WakeTrace } from '@voltrek/core/crank';
import {
  type Crowd,
  crowdAfter,
  diagnose,
  type DiagnosisEvidence,
  drawCrowd,
  DRAWS_PER_CAUSE,
  misfitOf,
  type Proposal,
  type Moment,
  proposals,
  type Suspicion,
  type Tool,
} from '@voltrek/core/diagnosis';
import {
  type Findings,
  firstOf,
  type NoSource,
  noSourceStarts,
  type Odds,
  type Population,
  copiesOf,
  carriedInto,
  type Night,
  type Outlook,
  outlookOn,
  type StandingVehicle,
  crowdAfterTries,
  type EarlierBelief,
  populationOf,
  startOdds,
} from '@voltrek/core/belief';
import type { Machine } from '@voltrek/core/machine';
import {
  afterWait,
  type HelpGain,
  type LeadCell,
  leadGrid,
  momentOf,
  type PlanCase,
  traceOf,
  type WaitCurve,
  waitCurve,
  type Way,
  type WaysInput,
  waysOneByOne,
  whatHelps,
} from '@voltrek/core/plan';
import {
  type Course,
  courseOf,
  type Debrief,
  debriefOf,
  measureOf,
  type PracticeAction,
  replay,
  type ShownSkill,
  skillsShown,
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
import { readTrace, type TraceOf, type TraceRead, type TraceRefused } from './trace-read';

/** One seed for everything, so that two options are compared on the same draws. */
const SEED = 20;

type Progress = (share: number) => void;

/** The suspects, and the checks that would tell most. */
export interface Suspected {
  readonly suspicions: readonly Suspicion[];
  readonly proposals: readonly Proposal[];
  /** The finding that goes least with the others; null while they go together. */
  readonly misfit: DiagnosisEvidence | null;
}

/** All ways, and the machines that no source starts. */
export interface WaysFound {
  readonly ways: readonly Way[];
  readonly noSource: NoSource;
}

/** The end of a case: the tool's own run of it, and the score. */
export interface PracticeEnd {
  readonly tool: World;
  readonly debrief: Debrief;
  /** The belief over the run that was worked, and the skills that it showed. */
  readonly course: Course;
  readonly skills: readonly ShownSkill[];
}

/** The tasks of the plan worker. Ending the worker is how it is stopped. */
export interface PlanWorker {
  odds(plan: PlanCase, findings: Findings, machines: number, onProgress: Progress): Odds;
  trace(plan: PlanCase, seconds: number): CrankTrace;
  wake(wake: WakeCase): WakeTrace;
  wait(
    plan: PlanCase,
    findings: Findings,
    minutes: number,
    machines: number,
    onProgress: Progress,
  ): WaitCurve;
  /** Waits after each way until it was taken: the drawing has the processor to itself. */
  ways(
    input: WaysInput,
    findings: Findings,
    machines: number,
    onWay: (way: Way, share: number) => void | Promise<void>,
  ): Promise<WaysFound>;
  leads(plan: PlanCase, findings: Findings, machines: number, onProgress: Progress): LeadCell[] | null;
  helps(plan: PlanCase, findings: Findings, now: number, machines: number): HelpGain[];
  park(casualty: Machine, donor: Machine, points: LeadPoints): Pose;
  suspect(
    findings: Findings,
    tools: readonly Tool[],
    moment: Moment,
    /** Machines drawn of each cause. */
    perCause: number,
  ): Suspected;
  readTrace(
    what: Blob | Recording,
    name: string,
    of: TraceOf,
    onProgress: Progress,
  ): Promise<TraceRead | TraceRefused>;
  conclude(findings: Findings, facts: Case, tools: readonly Tool[], rules: HouseRules): VerdictRecord;
  /** The outlook of each vehicle on the coldest of these nights, by the bar of the house. */
  outlooks(vehicles: readonly StandingVehicle[], nights: readonly Night[], rules: HouseRules): Outlook[];
  /** Returns the tool's next action in a case that has come so far; null once its verdict was given. */
  practiceNext(code: string, actions: readonly PracticeAction[]): { readonly next: PracticeAction | null };
  /** The whole case as the tool would work it, and what a run of it is worth beside that. */
  practiceDebrief(code: string, actions: readonly PracticeAction[]): PracticeEnd;
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
let kept: {
  readonly drawn: Crowd;
  readonly perCause: number;
  readonly earlier: EarlierBelief | null;
  mended: Crowd;
} | null = null;
const isSame = (a: unknown, b: unknown): boolean => JSON.stringify(a) === JSON.stringify(b);

function crowdOf(
  { profile, repairs, earlier }: Pick<Findings, 'profile' | 'repairs' | 'earlier'>,
  perCause = DRAWS_PER_CAUSE,
): Crowd {
  if (kept?.perCause !== perCause || !isSame([kept.drawn.profile, kept.earlier], [profile, earlier])) {
    const fresh = drawCrowd(profile, undefined, perCause);
    const drawn = earlier ? carriedInto(fresh, earlier) : fresh;
    kept = { drawn, perCause, earlier, mended: drawn };
  }
  if (!isSame(kept.mended.repairs, repairs)) kept.mended = crowdAfter(kept.drawn, repairs);
  return kept.mended;
}

/** Machines that a plan is read from. */
const MACHINES = 1000;
/** The crowd of a job with its tries heard, and its population: kept while it says the same, since every figure is read from these. */
let read: {
  readonly findings: Findings;
  readonly perCause: number;
  readonly crowd: Crowd;
  readonly population: () => Population;
} | null = null;

function readFor(findings: Findings, perCause = DRAWS_PER_CAUSE): NonNullable<typeof read> {
  if (read?.perCause === perCause && isSame(read.findings, findings)) return read;
  const crowd = crowdOf(findings, perCause);
  const random = seededRandom(SEED);
  const copies = once(() => copiesOf(crowd, findings, random));
  return (read = {
    findings,
    perCause,
    // Without a try nothing is copied before a plan asks.
    crowd: findings.tries.length > 0 ? crowdAfterTries(crowd, copies()) : crowd,
    population: once(() => populationOf(copies(), MACHINES, random)),
  });
}

/** Answers with what was made when it was first asked. */
function once<T>(make: () => T): () => T {
  let made: { readonly it: T } | null = null;
  return () => (made ??= { it: make() }).it;
}

const populationFor = (findings: Findings, machines: number): Population =>
  firstOf(readFor(findings).population(), machines);

/** A case of practice has no earlier job. */
const ofCase = ({ practice }: World) => ({ profile: practice.profile, repairs: [], earlier: null });

const worker: PlanWorker = {
  odds: (plan, findings, machines, onProgress) =>
    startOdds(afterWait(plan), plan.engine, populationFor(findings, machines), goOn(onProgress))!,
  trace: traceOf,
  wake: simulateWake,
  wait: (plan, findings, minutes, machines, onProgress) =>
    waitCurve(plan, minutes, populationFor(findings, machines), goOn(onProgress))!,
  ways: async (input, findings, machines, onWay) => {
    const population = populationFor(findings, machines);
    const ways: Way[] = [];
    for (const [way, share] of waysOneByOne(input, population, SEED)) {
      ways.push(way);
      await onWay(way, share);
    }
    return {
      ways,
      noSource: noSourceStarts(population, momentOf(input.own, input.own.beliefs), input.own.engine),
    };
  },
  leads: (plan, findings, machines, onProgress) =>
    leadGrid(plan, populationFor(findings, machines), goOn(onProgress)),
  helps: (plan, findings, now, machines) => whatHelps(plan, now, populationFor(findings, machines)),
  outlooks: (vehicles, nights, rules) =>
    vehicles.map((vehicle) =>
      outlookOn(vehicle, nights, rules.watchOddsLeast / 100, rules, seededRandom(SEED)),
    ),
  suspect: (findings, tools, moment, perCause) => {
    const { evidence } = findings;
    const { crowd } = readFor(findings, perCause);
    return {
      suspicions: diagnose(crowd, evidence),
      proposals: proposals(crowd, evidence, tools, moment),
      misfit: misfitOf(crowd, evidence),
    };
  },
  readTrace,
  conclude: (findings, facts, tools, rules) =>
    conclude(readFor(findings).crowd, findings.evidence, facts, tools, rules),
  practiceNext: (code, actions) => {
    const world = replay(code, actions);
    return { next: toolNext(world, crowdOf(ofCase(world))) };
  },
  practiceDebrief: (code, actions) => {
    const world = replay(code, actions);
    const mind = crowdOf(ofCase(world));
    const tool = toolRun(code, mind);
    const debrief = debriefOf(world, measureOf(tool), mind);
    return { tool, debrief, course: courseOf(world, mind, debrief), skills: skillsShown(world, debrief) };
  },
  drill: (kind, number) => ({ drill: drillOf(kind, number) }),
  park: (casualty, donor, points) => bestParking(casualty, donor, points).pose,
};

expose(worker);
