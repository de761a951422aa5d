import { beliefsWhileJoined, type Population, startShare } from '../belief/index.js';
import { momentOf, type PlanCase } from './plan-case.js';

/** The odds of a start after each minute of waiting. */
export interface WaitCurve {
  /** Odds by whole minutes, from none. */
  readonly start: readonly number[];
  /** Likely charge of the weakest battery by whole minutes. */
  readonly soc: readonly number[];
  /** Minutes after which more buys little. */
  readonly kneeMinutes: number;
  readonly shape: 'no-supply' | 'at-once' | 'knee' | 'still-rising' | 'no-use';
}

/** Odds that a longer wait must add before it is worth standing in the cold for. */
export const WORTH_WAITING = 0.02;
/** Under this a wait has not helped. */
export const NO_USE_ODDS = 0.1;

/**
 * How long to wait: the same machines, after each minute of charging through the circuit. The knee is the first minute within two in a hundred
 * of the best wait within `minutes`.
 *
 * @param onProgress called with the share done; return false to stop
 * @returns null when stopped
 */
export function waitCurve(
  plan: PlanCase,
  minutes: number,
  population: Population,
  onProgress: (share: number) => boolean = () => true,
): WaitCurve | null {
  const path = plan.rescue.source?.alternator
    ? beliefsWhileJoined(plan.rescue, plan.beliefs, minutes)
    : [plan.beliefs];
  const start: number[] = [];
  for (const beliefs of path) {
    start.push(startShare(momentOf(plan, beliefs), plan.engine, population));
    if (!onProgress(start.length / path.length)) return null;
  }
  const soc = path.map((beliefs) => Math.min(...beliefs.map((b) => b.soc)));
  const best = Math.max(...start);
  const kneeMinutes = start.findIndex((odds) => odds > best - WORTH_WAITING);
  return { start, soc, kneeMinutes, shape: shapeOf(start, kneeMinutes, best) };
}

function shapeOf(start: readonly number[], knee: number, best: number): WaitCurve['shape'] {
  if (start.length === 1) return 'no-supply';
  if (best < NO_USE_ODDS) return 'no-use';
  if (knee === 0) return 'at-once';
  return knee >= start.length - 1 ? 'still-rising' : 'knee';
}
