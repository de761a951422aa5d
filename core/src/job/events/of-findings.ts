import {
  type CheckId,
  isFindingOf,
  isWhole,
  needsStandstill,
  POLARITY_SIGNS_NEEDED,
  readingRange,
  shownBy,
} from '../../diagnosis/index.js';
import { anyClampOn } from '../../hookup/index.js';
import { outOfRange } from '../../quantities/index.js';
import type { Job } from '../job.js';
import { isLiftJoined } from '../views/lift-of-job.js';
import { circumstancesOf, runningAttempt } from '../views/queries.js';
import { isStopped } from '../situation.js';
import { timeOf } from './event.js';
import { always, type EventKinds, hasBattery } from './event-kind.js';
import { toggled } from './lists.js';

/** Findings, readings, and repairs on the spot. */
export const OF_FINDINGS: EventKinds<
  | 'symptom.recorded'
  | 'finding.recorded'
  | 'finding.withdrawn'
  | 'repair.made'
  | 'polarity.proved'
  | 'reading.taken'
  | 'reading.withdrawn'
> = {
  'symptom.recorded': {
    refuse: always,
    apply: (job, { data }) => ({ ...job, symptoms: toggled(job.symptoms, data.symptom) }),
  },
  'finding.recorded': {
    refuse: (_job, { data }) => (isFindingOf(data.check, data.found) ? null : 'value-out-of-range'),
    apply: (job, event) => {
      const { check, found, source, figures = [], battery = null } = event.data;
      const during = circumstancesOf(job);
      const figure = source && {
        ...{ eventId: event.id, at: timeOf(event), check, found, source, figures, battery, during },
      };
      return {
        ...job,
        findings: { ...job.findings, [check]: found },
        figures: figure ? [...job.figures, figure] : job.figures,
        triesSinceChecks: 0,
      };
    },
  },
  'finding.withdrawn': {
    refuse: (job, { data }) => (job.findings[data.check] === undefined ? 'no-such-finding' : null),
    apply: (job, { data }) => ({ ...job, findings: without(job.findings, [data.check]) }),
  },
  'repair.made': {
    refuse: (job, { data }, { machine }) => {
      if (!isWhole(data)) return 'value-out-of-range';
      if (isStopped(job, machine)) return 'stop-active';
      if (runningAttempt(job)) return 'attempt-running';
      return needsStandstill(data) && anyClampOn(job.hookup) ? 'clamps-still-on' : null;
    },
    apply: (job, event) => ({
      ...job,
      repairs: [...job.repairs, { ...event.data, at: timeOf(event), found: job.findings }],
      findings: without(job.findings, shownBy(event.data)),
      triesSinceChecks: 0,
    }),
  },
  'polarity.proved': {
    refuse: (_job, { data }) =>
      new Set(data.signs).size < POLARITY_SIGNS_NEEDED ? 'polarity-unproved' : null,
    apply: (job, { data }) => ({ ...job, polaritySigns: data.signs }),
  },
  'reading.taken': {
    refuse: (job, { data }, { machine }) => {
      if (isLiftJoined(job)) return 'lift-under-way';
      if (!hasBattery(machine, data.battery)) return 'no-such-battery';
      return outOfRange('', data.volts, readingRange(data.kind, machine.systemVolts))
        ? 'value-out-of-range'
        : null;
    },
    apply: (job, event) => {
      const { kind, volts, battery, tempC, source, strength = null } = event.data;
      const reading = {
        ...{ eventId: event.id, at: timeOf(event), kind, volts, battery, tempC, source, strength },
        during: circumstancesOf(job),
      };
      return { ...job, readings: [...job.readings, reading] };
    },
  },
  'reading.withdrawn': {
    refuse: (job, { data }) =>
      job.readings.some((r) => r.eventId === data.readingId) ? null : 'no-such-reading',
    apply: (job, { data }) => ({
      ...job,
      readings: job.readings.filter((r) => r.eventId !== data.readingId),
    }),
  },
};

function without(findings: Job['findings'], checks: readonly CheckId[]): Job['findings'] {
  return Object.fromEntries(Object.entries(findings).filter(([check]) => !checks.includes(check as CheckId)));
}
