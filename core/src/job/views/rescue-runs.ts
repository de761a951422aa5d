import {
  anyClampOn,
  type HookupAction,
  type HookupScene,
  type HookupStep,
  makeSafe,
  type OrderProgress,
  progressOf,
  replan,
  stillActions,
} from '../../hookup/index.js';
import type { SourceOption } from '../../plan/index.js';
import type { PlanRecord } from '../events/event.js';
import type { Job } from '../job.js';
import { hookupScene, ordersOfJob, plannedOption } from './rescue-of-job.js';
import type { Situation } from '../situation.js';

/** The plan's option with its orders and its circuit. */
export interface PlannedRescue {
  readonly option: SourceOption;
  readonly orders: ReturnType<typeof ordersOfJob>;
  readonly scene: HookupScene;
}

/** Returns the option that a plan names with its orders and its circuit; null without a plan, or when the kit no longer has it. */
export function plannedRescue(
  situation: Situation,
  plan: Pick<PlanRecord, 'optionId' | 'waitMinutes'> | null,
): PlannedRescue | null {
  const option = plannedOption(situation, plan);
  return (
    option && {
      option,
      orders: ordersOfJob(situation, option, plan),
      scene: hookupScene(situation, option),
    }
  );
}

export type OrderRun = OrderProgress<HookupStep>;
const NO_STEPS: readonly HookupStep[] = [];

/** Returns how far the hook-up is, and how to go on from here, in order or not; no steps without a plan. */
export function hookupRunOf(
  { hookup }: Pick<Job, 'hookup'>,
  rescue: PlannedRescue | null,
  { rules }: Situation,
): OrderRun {
  return rescue ? replan(rescue.scene, rescue.orders.hookup, hookup, rules) : progressOf(NO_STEPS, hookup);
}

/** Returns how far the clearing is. Once the last clamp is off the order is behind us, whatever its first step says. */
export function clearingRunOf(
  { hookup, everConnected }: Pick<Job, 'hookup' | 'everConnected'>,
  rescue: PlannedRescue | null,
): OrderRun {
  const isUnderWay = everConnected && (anyClampOn(hookup) || hookup.donorRunning || hookup.negativeOff);
  const run = progressOf((isUnderWay ? rescue?.orders.clearing : null) ?? NO_STEPS, hookup);
  // A source that was switched on outside the order goes off before any clamp comes off.
  const live = stillActions(hookup).filter(({ kind }) => kind !== 'donor-engine');
  const [first] = live;
  if (run.next?.action.kind !== 'detach' || !first) return run;
  const stilled = live.slice(1).map(still);
  return { ...run, next: still(first), later: [...stilled, run.next, ...run.later] };
}
const still = (action: HookupAction): HookupStep => ({ action, reason: 'no-arc-at-clamps' });

/** Returns the order that takes everything off from here; nothing where nothing is on. */
export function makeSafeOf(
  { hookup }: Pick<Job, 'hookup'>,
  rescue: PlannedRescue | null,
  { rules }: Situation,
): readonly HookupAction[] {
  return rescue ? makeSafe(rescue.scene, hookup, rules) : [];
}
