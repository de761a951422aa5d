import { anyClampOn, type Hazard, type HookupAction } from '../hookup/index.js';
import { startsByWaking } from '../machine/index.js';
import { STOPS_HANDS_OFF } from '../diagnosis/index.js';
import { underCharge } from './views/charge-of-job.js';
import type { Stage } from './events/event.js';
import type { Job } from './job.js';
import { isLiftJoined } from './views/lift-of-job.js';
import { isChargeUnread, isPolarityProved, runningAttempt } from './views/queries.js';
import type { OrderRun } from './views/rescue-runs.js';
import { refusalOfTry } from './refusal-of-try.js';
import { restSecondsLeft } from './views/rest-owed.js';
import { chargingOfJob } from './views/road-of-job.js';
import { unacceptedHazards } from './views/severe-steps.js';
import type { Situation } from './situation.js';

/** The reason to go to another stage. */
export type GoReason =
  | 'done'
  | 'stopped'
  | 'runs'
  | 'on-charge'
  | 'polarity-unproved'
  | 'no-source'
  | 'comes-off-first'
  | 'charge-unread'
  | 'clamps-unfinished'
  | 'tries-spent'
  | 'try-runs'
  | 'lift-runs'
  | 'next-source'
  | 'charging-unread'
  | 'closed';

/** The one next action of a job at a stage. */
export type NextAction =
  /** Opens another stage. */
  | { readonly act: 'go'; readonly to: Stage; readonly why: GoReason }
  /** The next step of the stage's order. */
  | { readonly act: 'step'; readonly action: HookupAction }
  /** The next step, which is severe: it is done only for a reason that is logged. */
  | { readonly act: 'say-why'; readonly action: HookupAction; readonly hazard: Hazard }
  /** Takes off what is on while a stop is in force. */
  | { readonly act: 'take-off'; readonly action: HookupAction }
  | { readonly act: 'crank' }
  /** Starter and leads still rest for so many seconds. */
  | { readonly act: 'rest'; readonly seconds: number }
  | { readonly act: 'end-try' }
  /** The lamp of a lift comes off, black first. */
  | { readonly act: 'part-lamp' }
  | { readonly act: 'prove-polarity' }
  /** A source is chosen, or the machine is left to crank by itself. */
  | { readonly act: 'choose-source' }
  | { readonly act: 'give-verdict' }
  /** The verdict is given and everything is off: the job is closed, for good. */
  | { readonly act: 'close' }
  | { readonly act: 'to-board' }
  | { readonly act: 'none' };

/** The orders of a job, and how far each is. */
export interface Runs {
  readonly hookup: OrderRun;
  readonly clearing: OrderRun;
  /** Searched for only when it is asked. */
  readonly makeSafe: () => readonly HookupAction[];
  /** Solves the circuit after an action, and returns its hazards before anybody does it. */
  readonly hazardsOf: (action: HookupAction) => readonly Hazard[];
}

const go = (to: Stage, why: GoReason = 'done'): NextAction => ({ act: 'go', to, why });

/**
 * Returns the one next action of a job at a stage, which the action bar offers. Everything it offers may be done: `refusalOf` does not refuse
 * it, and nothing is offered under a stop but to take off what is on.
 *
 * @param at the moment, ISO 8601: rests run with the clock
 * @example nextAction('crank', job, situation, runs, at) // { act: 'rest', seconds: 42 } after a failed try
 */
export function nextAction(stage: Stage, job: Job, situation: Situation, runs: Runs, at: string): NextAction {
  if (job.closedAt !== null) return stage === 'verdict' ? { act: 'to-board' } : go('verdict', 'closed');
  if (runningAttempt(job)) return stage === 'crank' ? { act: 'end-try' } : go('crank', 'try-runs');
  if (isLiftJoined(job)) return stage === 'measure' ? { act: 'part-lamp' } : go('measure', 'lift-runs');
  if (situation.stops.length > 0) return underStop(stage, job, situation, runs);
  switch (stage) {
    case 'scene':
      return go('checks');
    case 'checks':
      return go('locate');
    case 'locate':
      return isPolarityProved(job) ? go('measure') : { act: 'prove-polarity' };
    case 'measure':
      return beforePlan(job, situation) ?? go('plan');
    case 'plan':
      return beforePlan(job, situation) ?? { act: 'choose-source' };
    case 'hookup':
      return atHookup(job, situation, runs);
    case 'crank':
      return atCrank(job, situation, at);
    case 'cleardown':
      return atClearing(job, situation, runs);
    case 'verdict':
      if (anyClampOn(job.hookup)) return go('cleardown', 'comes-off-first');
      return atTheEnd(job);
  }
}

/** A job is closed once its verdict is given and nothing is on. */
function atTheEnd({ verdict, hookup }: Job): NextAction {
  if (!verdict) return { act: 'give-verdict' };
  return { act: anyClampOn(hookup) ? 'to-board' : 'close' };
}

/** Under a stop everything comes off that may be touched, and then the verdict says what is done instead. */
function underStop(stage: Stage, job: Job, { stops }: Situation, { makeSafe }: Runs): NextAction {
  const isHandsOff = stops.some((stop) => STOPS_HANDS_OFF.includes(stop));
  const [action] = isHandsOff ? [] : makeSafe();
  if (action) return { act: 'take-off', action };
  return stage === 'verdict' ? atTheEnd(job) : go('verdict', 'stopped');
}

/** Returns the action for a machine that runs: it needs no plan and no hook-up. */
const whileRunning = ({ hookup }: Job): NextAction =>
  go(anyClampOn(hookup) ? 'cleardown' : 'verdict', 'runs');

/** Returns the action that goes before any plan. A running machine needs no plan; a charge is waited for. */
function beforePlan(job: Job, { casualtyRuns }: Situation): NextAction | null {
  if (casualtyRuns) return whileRunning(job);
  return underCharge(job) ? go('hookup', 'on-charge') : null;
}

function atHookup(job: Job, { casualtyRuns }: Situation, { hookup, hazardsOf }: Runs): NextAction {
  if (casualtyRuns) return whileRunning(job);
  const isUnplanned = !hookup.next && hookup.done.length === 0 && hookup.later.length === 0;
  if (isUnplanned) return go('plan', 'no-source');
  if (!isPolarityProved(job)) return go('locate', 'polarity-unproved');
  if (hookup.next) {
    const { action } = hookup.next;
    const [hazard] = unacceptedHazards(job, action, hazardsOf(action));
    return hazard ? { act: 'say-why', action, hazard } : { act: 'step', action };
  }
  return job.plan?.chargeOnly ? go('cleardown', 'comes-off-first') : go('crank');
}

function atCrank(job: Job, { casualtyRuns, rules }: Situation, at: string): NextAction {
  if (casualtyRuns) return go('cleardown', 'runs');
  const refusal = refusalOfTry(job, at, rules);
  if (refusal === 'charger-on') return go('cleardown', 'comes-off-first');
  if (isChargeUnread(job)) return go('measure', 'charge-unread');
  if (refusal === 'clamps-unfinished') return go('hookup', 'clamps-unfinished');
  if (refusal === 'tries-spent') return go('checks', 'tries-spent');
  return refusal === 'rest-first'
    ? { act: 'rest', seconds: restSecondsLeft(job, at, rules) }
    : { act: 'crank' };
}

function atClearing(job: Job, situation: Situation, { clearing }: Runs): NextAction {
  if (clearing.next) return { act: 'step', action: clearing.next.action };
  if (situation.casualtyRuns) {
    const isToRead = !startsByWaking(situation.machine) && chargingOfJob(job, situation) === 'unread';
    return isToRead ? go('measure', 'charging-unread') : go('verdict');
  }
  if (!job.plan?.chargeOnly || !job.everConnected) return go('verdict');
  if (job.plan.thenOptionId) return go('plan', 'next-source');
  return isChargeUnread(job) ? go('measure', 'charge-unread') : go('crank');
}
