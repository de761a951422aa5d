import { anyClampOn } from '../../hookup/index.js';
import type { Machine } from '../../machine/index.js';
import { outOfRange, voltsRange } from '../../quantities/index.js';
import type { Job, Lifting } from '../job.js';
import { isStopped } from '../situation.js';
import { isLiftJoined, nextLiftStep } from '../views/lift-of-job.js';
import { restVoltsNow, runningAttempt } from '../views/queries.js';
import { timeOf } from './event.js';
import { type EventKinds, hasBattery, type Refusal } from './event-kind.js';
import { withStop } from './lists.js';

/** A battery too flat for its charger, lifted by a healthy one beside it. */
export const OF_LIFTS: EventKinds<'battery.lifted' | 'lift.confirmed' | 'lift.read'> = {
  'battery.lifted': {
    refuse: (job, { data }, { machine }) => refuseBegin(job, data.battery, machine),
    apply: (job, event) => ({
      ...job,
      lifts: [...job.lifts, { battery: event.data.battery, at: timeOf(event) }],
    }),
  },
  'lift.confirmed': {
    refuse: (job, { data }, { machine }) => {
      if (data.step === 'part-lamp') return isLiftJoined(job, data.battery) ? null : 'nothing-lifted';
      const refusal = refuseBegin(job, data.battery, machine);
      if (refusal) return refusal;
      return data.step === nextLiftStep(job, data.battery) ? null : 'lift-out-of-order';
    },
    apply: (job, event) => {
      const { battery, step } = event.data;
      if (step === 'part-lamp') return parted(job, timeOf(event));
      const begun = liftOf(job, battery);
      const lifting: Lifting = { ...begun, steps: [...begun.steps, step] };
      return {
        ...job,
        lifting: step === 'join-lamp' ? { ...lifting, joinedAt: timeOf(event) } : lifting,
      };
    },
  },
  'lift.read': {
    refuse: (job, { data }) => {
      if (!isLiftJoined(job)) return 'nothing-lifted';
      return outOfRange('', data.volts, voltsRange(1)) ? 'value-out-of-range' : null;
    },
    apply: (job, event) => {
      const reading = { ...event.data, at: timeOf(event) };
      // A case that warms is a stop, whoever felt it.
      const stops = reading.isWarm ? withStop(job.stops, 'case-warm') : job.stops;
      const lifting = { ...job.lifting!, readings: [...job.lifting!.readings, reading] };
      return { ...job, stops, lifting };
    },
  },
};

const liftOf = (job: Job, battery: number): Lifting =>
  job.lifting?.battery === battery
    ? job.lifting
    : {
        ...{ battery, steps: [], joinedAt: null, readings: [] },
        fromVolts: restVoltsNow(job, battery + 1)[battery] ?? null,
      };

/** Nothing is lifted under a stop, beside clamps, or while another lamp is joined. */
function refuseBegin(job: Job, battery: number, machine: Machine): Refusal | null {
  if (isStopped(job, machine)) return 'stop-active';
  if (anyClampOn(job.hookup)) return 'clamps-still-on';
  if (runningAttempt(job)) return 'attempt-running';
  if (isLiftJoined(job)) return 'lift-under-way';
  return hasBattery(machine, battery) ? null : 'no-such-battery';
}

/** The lamp is off: rest volts have moved. */
function parted({ lifting, ...job }: Job, at: string): Job {
  const { battery } = lifting!;
  return { ...job, lifts: [...job.lifts, { battery, at, lift: lifting! }] };
}
