import { anyClampOn } from '../../hookup/index.js';
import type { Machine } from '../../machine/index.js';
import { outOfRange, TYPED_RANGES, voltsRange } from '../../quantities/index.js';
import type { FollowUp } from '../../verdict/index.js';
import { underCharge } from '../views/charge-of-job.js';
import type { Job } from '../job.js';
import { isLiftJoined } from '../views/lift-of-job.js';
import { currentVerdict, runningAttempt } from '../views/queries.js';
import { type Recheck, timeOf } from './event.js';
import { type EventKinds, hasBattery, type Refusal } from './event-kind.js';
import { withStop } from './lists.js';

/** Charge, verdict, another battery, and what comes after the job is closed. */
export const OF_THE_END: EventKinds<
  | 'charge.read'
  | 'verdict.given'
  | 'fitting.confirmed'
  | 'battery.replaced'
  | 'job.closed'
  | 'follow-up.done'
  | 'recheck.taken'
> = {
  'charge.read': {
    refuse: (job, { data }, { machine }) => {
      if (!underCharge(job)) return 'nothing-on-charge';
      return outOfRange('', data.volts, voltsRange(machine.systemVolts / 12, true)) ||
        outOfRange('', data.amps, TYPED_RANGES.chargeAmps)
        ? 'value-out-of-range'
        : null;
    },
    apply: (job, event) => {
      const reading = { ...event.data, at: timeOf(event) };
      // A case that warms on charge is a stop, whoever saw it.
      const stops = reading.isWarm ? withStop(job.stops, 'case-warm') : job.stops;
      return { ...job, stops, chargeReadings: [...job.chargeReadings, reading] };
    },
  },
  'verdict.given': {
    refuse: (job) => (runningAttempt(job) ? 'attempt-running' : null),
    apply: (job, { data }) => ({ ...job, verdict: data }),
  },
  'fitting.confirmed': {
    refuse: (job, { data }, { machine }) => {
      if (anyClampOn(job.hookup)) return 'clamps-still-on';
      if (!hasBattery(machine, data.battery)) return 'no-such-battery';
      return job.fitting.some((f) => f.battery === data.battery && f.step === data.step)
        ? 'already-fitted'
        : null;
    },
    apply: (job, { data }) => ({ ...job, fitting: [...job.fitting, data] }),
  },
  'battery.replaced': {
    refuse: (job, { data }, { machine }) => {
      if (anyClampOn(job.hookup)) return 'clamps-still-on';
      if (!hasBattery(machine, data.battery)) return 'no-such-battery';
      return job.replaced.some((r) => r.battery === data.battery) ? 'already-fitted' : null;
    },
    apply: (job, event) => ({
      ...job,
      replaced: [...job.replaced, { ...event.data, at: timeOf(event) }],
    }),
  },
  'job.closed': {
    isFinal: true,
    refuse: (job) => {
      if (anyClampOn(job.hookup)) return 'clamps-still-on';
      if (isLiftJoined(job)) return 'lift-under-way';
      if (runningAttempt(job)) return 'attempt-running';
      return job.verdict ? null : 'no-verdict';
    },
    apply: (job, event) => ({ ...job, closedAt: timeOf(event) }),
  },
  'follow-up.done': {
    isFinal: true,
    whenClosed: true,
    refuse: (job, { data }) => refuseFollowUp(job, data.kind),
    apply: (job, event) => {
      const { kind } = event.data;
      const changed = kind === 'replace' ? [{ battery: null, rating: null, at: timeOf(event) }] : [];
      return {
        ...job,
        followedUp: [...job.followedUp, kind],
        replaced: [...job.replaced, ...changed],
      };
    },
  },
  'recheck.taken': {
    isFinal: true,
    whenClosed: true,
    refuse: (job, { data }, { machine }) => refuseRecheck(job, data, machine),
    // The verdict that stands now has promises of its own.
    apply: (job, event) => ({ ...job, recheck: { ...event.data, at: timeOf(event) }, followedUp: [] }),
  },
};

/** Only what the verdict promised can be done, once, and after the job is closed. */
function refuseFollowUp(job: Job, kind: FollowUp['kind']): Refusal | null {
  const isPromised = currentVerdict(job)?.followUps.some((f) => f.kind === kind) ?? false;
  if (job.closedAt === null || !isPromised) return 'not-promised';
  return job.followedUp.includes(kind) ? 'already-followed-up' : null;
}

/** A recheck reads every battery, each within what a meter can show. */
function refuseRecheck(job: Job, { restVolts, tested, tempC }: Recheck, machine: Machine): Refusal | null {
  const promised = refuseFollowUp(job, 'recheck');
  if (promised) return promised;
  const count = machine.batteries.length;
  if (restVolts.length !== count || tested.length !== count) return 'no-such-battery';
  const isOff =
    restVolts.some((volts) => outOfRange('', volts, voltsRange(1))) ||
    outOfRange('', tempC, TYPED_RANGES.ambientC);
  return isOff ? 'value-out-of-range' : null;
}
