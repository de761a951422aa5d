import type { Job } from '@voltrek/core/job';
import { type PlanCase, type PlanInput, planInputs, type WaitCurve } from '@voltrek/core/plan';
import type { HouseRules } from '@voltrek/core/rules';
import { LONGEST_WAIT_MIN } from './plan-store';

/** The figures that a plan counts with, and where each came from in this job. */
export function inputsOfPlan(plan: PlanCase, job: Pick<Job, 'readings' | 'scene'>): PlanInput[] {
  const isRead = job.readings.some((r) => r.kind === 'rest');
  return planInputs(plan, { soc: isRead ? 'typed' : 'assumed', tempC: job.scene ? 'scene' : 'assumed' });
}

/** The knee of the curve, and never less than lets the volts settle; null without a curve that says. */
export function computedWait(curve: WaitCurve | null, rules: HouseRules): number | null {
  if (!curve || curve.shape === 'no-supply' || curve.shape === 'no-use') return null;
  return Math.max(
    rules.donorWaitMinLeast,
    curve.shape === 'still-rising' ? LONGEST_WAIT_MIN : curve.kneeMinutes,
  );
}
