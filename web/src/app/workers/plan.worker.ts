import {
  afterWait,
  bestParking,
  type CrankTrace,
  type HelpGain,
  type LeadCell,
  type LeadPoints,
  leadGrid,
  type Machine,
  type Odds,
  oddsOf,
  type PlanCase,
  type Pose,
  seededRandom,
  simulateWake,
  traceOf,
  type WaitCurve,
  waitCurve,
  type WakeCase,
  type WakeTrace,
  whatHelps,
} from '@voltrek/core';
import { expose } from 'comlink';

/** One seed for everything, so that two options are compared on the same draws. */
const SEED = 20;

type Progress = (share: number) => void;

/** What the plan worker does. Ending the worker is how it is stopped. */
export interface PlanWorker {
  odds(plan: PlanCase, samples: number, onProgress: Progress): Odds;
  trace(plan: PlanCase, seconds: number): CrankTrace;
  wake(wake: WakeCase): WakeTrace;
  wait(plan: PlanCase, minutes: number, samples: number, onProgress: Progress): WaitCurve;
  leads(plan: PlanCase, samples: number, onProgress: Progress): LeadCell[] | null;
  helps(plan: PlanCase, now: number, samples: number): HelpGain[];
  park(casualty: Machine, donor: Machine, points: LeadPoints): Pose;
}

const goOn =
  (onProgress: Progress) =>
  (share: number): boolean => {
    onProgress(share);
    return true;
  };

const worker: PlanWorker = {
  odds: (plan, samples, onProgress) =>
    oddsOf(afterWait(plan), plan.engine, samples, seededRandom(SEED), goOn(onProgress))!,
  trace: traceOf,
  wake: simulateWake,
  wait: (plan, minutes, samples, onProgress) => waitCurve(plan, minutes, samples, SEED, goOn(onProgress))!,
  leads: (plan, samples, onProgress) => leadGrid(plan, samples, SEED, goOn(onProgress)),
  helps: (plan, now, samples) => whatHelps(plan, now, samples, SEED),
  park: (casualty, donor, points) => bestParking(casualty, donor, points).pose,
};

expose(worker);
