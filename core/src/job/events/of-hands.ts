import { type ClampId, isSourceClamp } from '../../circuit/index.js';
import { act, clampsInHand, type HookupState, SPARE_POSTS, isInForce } from '../../hookup/index.js';
import { takesClamp } from '../../machine/index.js';
import { hasSwitch } from '../../plan/index.js';
import { actionOf, type HandEvent } from '../hands.js';
import type { Job } from '../job.js';
import { isLiftJoined } from '../views/lift-of-job.js';
import { isPolarityProved, runningAttempt } from '../views/queries.js';
import { isStopped } from '../situation.js';
import { type PlanRecord, timeOf } from './event.js';
import type { Around, EventKinds, Refusal } from './event-kind.js';
import { joinAfter, minutesBetween } from './joins.js';

/** An act of the hands at the clamps, and what follows from it for charge and joins. */
function byHand(job: Job, event: HandEvent): Job {
  const hookup = act(job.hookup, actionOf(event));
  return {
    ...job,
    hookup,
    lastActAt: timeOf(event),
    ...chargeAfter(job, event),
    ...joinAfter(job, isJoined(hookup, job.plan), timeOf(event)),
    everConnected: job.everConnected || event.type === 'clamp.attached',
  };
}

/** Acts of the hands at the clamps. */
export const OF_HANDS: EventKinds<HandEvent['type']> = {
  'step.confirmed': { refuse: ({ plan }) => (plan ? null : 'no-plan'), apply: byHand },
  'clamp.attached': {
    refuse: (job, { data }, around) => {
      if (isStopped(job, around.machine)) return 'stop-active';
      if (isLiftJoined(job)) return 'lift-under-way';
      if (!job.plan) return 'no-plan';
      if (!isPolarityProved(job)) return 'polarity-unproved';
      if (runningAttempt(job)) return 'attempt-running';
      if (job.hookup.clamps[data.clamp] !== null) return 'clamp-already-on';
      return refusePlace(job.plan, data.clamp, data.pointId, around);
    },
    apply: byHand,
  },
  'clamp.detached': {
    refuse: ({ hookup }, { data }) => {
      if (hookup.clamps[data.clamp] === null) return 'clamp-already-off';
      if (hookup.pluggedIn) return 'still-plugged-in';
      return hookup.packOn ? 'pack-still-on' : null;
    },
    apply: byHand,
  },
  'donor.switched': {
    refuse: (job, { data }, { machine }) => {
      if (data.running && isStopped(job, machine)) return 'stop-active';
      return job.hookup.donorRunning === data.running ? 'donor-already-so' : null;
    },
    apply: byHand,
  },
  'pack.switched': {
    refuse: (job, { data }, { machine }) => {
      if (data.on && isStopped(job, machine)) return 'stop-active';
      return job.hookup.packOn === data.on ? 'pack-already-so' : null;
    },
    apply: byHand,
  },
  'plug.moved': {
    refuse: (job, { data }, { machine }) => {
      if (data.in && isStopped(job, machine)) return 'stop-active';
      return job.hookup.pluggedIn === data.in ? 'plug-already-so' : null;
    },
    apply: byHand,
  },
  'circumstance.noted': {
    refuse: ({ hookup }, { data }) =>
      isInForce(hookup, data.what) === data.on ? 'circumstance-already-so' : null,
    apply: byHand,
  },
};

/** A clamp goes on what the atlas knows at its end, and only a clamp that is in hand. */
function refusePlace(
  plan: PlanRecord,
  clamp: ClampId,
  pointId: string,
  { machine, donor }: Around,
): Refusal | null {
  if (!clampsInHand({ leadSetId: plan.leadSetId }).includes(clamp)) return 'not-in-hand';
  if (isSourceClamp(clamp) && plan.sourceKind !== 'donor')
    return Object.values<string>(SPARE_POSTS).includes(pointId) ? null : 'no-such-point';
  const point = (isSourceClamp(clamp) ? donor : machine)?.points.find((p) => p.id === pointId);
  return point && takesClamp(point.kind) ? null : 'no-such-point';
}

/** A wait counts from the act that it follows; a clamp that comes off, or a source that is switched off, ends it. */
function chargeAfter(job: Job, event: HandEvent): Pick<Job, 'chargesSince' | 'charged'> {
  const { charged, chargesSince, plan } = job;
  if (event.type === 'step.confirmed' && event.data.step === 'wait')
    return { charged, chargesSince: chargesSince ?? job.lastActAt };
  const ends =
    event.type === 'clamp.detached' ||
    (event.type === 'donor.switched' && !event.data.running) ||
    (event.type === 'pack.switched' && !event.data.on) ||
    (event.type === 'plug.moved' && !event.data.in);
  // A charger charges from the moment it is on, whether a wait was confirmed or not.
  const since = chargesSince ?? (plan?.sourceKind === 'mains-charger' ? job.joinedSince : null);
  if (!ends || since === null || !plan) return { charged, chargesSince };
  const at = timeOf(event);
  const { optionId, chargeOnly } = plan;
  return {
    charged: { optionId, minutes: minutesBetween(since, at), at, chargeOnly },
    chargesSince: null,
  };
}

function isJoined({ clamps, packOn, pluggedIn }: HookupState, plan: Job['plan']): boolean {
  if (plan === null || !clampsInHand(plan).every((clamp) => clamps[clamp] !== null)) return false;
  return (packOn || !hasSwitch(plan)) && (pluggedIn || plan.sourceKind !== 'mains-charger');
}
