import { anyClampOn } from '../../hookup/index.js';
import { readingRange } from '../../diagnosis/index.js';
import { rollingStart } from '../../machine/index.js';
import { outOfRange } from '../../quantities/index.js';
import type { Attempt } from '../job.js';
import { isLiftJoined } from '../views/lift-of-job.js';
import { engineRuns, runningAttempt, workingTempC } from '../views/queries.js';
import { isStopped } from '../situation.js';
import { refusalOfTry } from '../refusal-of-try.js';
import { timeOf } from './event.js';
import type { EventKinds } from './event-kind.js';
import { joinAfter, minutesBetween } from './joins.js';

/** Tries to start it. */
export const OF_TRIES: EventKinds<'attempt.started' | 'attempt.ended' | 'roll.tried'> = {
  'attempt.started': {
    refuse: (job, event, { machine, rules }) =>
      isStopped(job, machine) ? 'stop-active' : refusalOfTry(job, timeOf(event), rules),
    apply: (job, event) => {
      const helper = anyClampOn(job.hookup) ? job.plan : null;
      const attempt = {
        ...tried(timeOf(event), workingTempC(job)),
        helped: anyClampOn(job.hookup),
        sourceId: helper?.sourceId ?? null,
        starterAmps: helper?.starterAmps ?? null,
        optionId: helper?.optionId ?? null,
        ...(helper && { helper: { sourceKind: helper.sourceKind, odds: helper.odds } }),
        waitedMinutes: minutesBetween(job.chargesSince, timeOf(event)),
      };
      return {
        ...job,
        triesSinceChecks: job.triesSinceChecks + 1,
        attempts: [...job.attempts, attempt],
      };
    },
  },
  'attempt.ended': {
    refuse: (job, { data: { lowestVolts } }, { machine }) => {
      if (!runningAttempt(job)) return 'no-attempt-running';
      const range = readingRange('crank-minimum', machine.systemVolts);
      return lowestVolts !== null && outOfRange('', lowestVolts, range) ? 'value-out-of-range' : null;
    },
    apply: (job, event) => {
      const { outcome, seconds, lowestVolts, restSeconds = 0, restFor = 'rule' } = event.data;
      return {
        ...job,
        ...(outcome === 'started' && joinAfter(job, false, timeOf(event))),
        attempts: job.attempts.map((a, i) =>
          i === job.attempts.length - 1
            ? { ...a, endedAt: timeOf(event), outcome, seconds, lowestVolts, restSeconds, restFor }
            : a,
        ),
      };
    },
  },
  'roll.tried': {
    refuse: (job, _event, { machine }) => {
      if (isStopped(job, machine)) return 'stop-active';
      if (anyClampOn(job.hookup)) return 'clamps-still-on';
      if (isLiftJoined(job)) return 'lift-under-way';
      if (runningAttempt(job)) return 'attempt-running';
      if (engineRuns(job)) return 'already-running';
      return rollingStart(machine, ANYWHERE).allowed ? null : 'cannot-roll';
    },
    apply: (job, event) => {
      const attempt: Attempt = {
        ...tried(timeOf(event), workingTempC(job)),
        endedAt: timeOf(event),
        outcome: event.data.started ? 'started' : 'nothing',
        seconds: 0,
        rolled: true,
      };
      return { ...job, attempts: [...job.attempts, attempt] };
    },
  },
};

/** The machine alone bars rolling here: a scene that does may have been left since. */
const ANYWHERE = { sloping: true, ontoRoad: false, restVolts: null };

/** A try that begins now, by the machine itself. */
const tried = (startedAt: string, tempC: number): Attempt => ({
  startedAt,
  tempC,
  endedAt: null,
  outcome: null,
  seconds: null,
  lowestVolts: null,
  restSeconds: 0,
  restFor: 'rule',
  helped: false,
  sourceId: null,
  starterAmps: null,
  optionId: null,
  waitedMinutes: 0,
});
