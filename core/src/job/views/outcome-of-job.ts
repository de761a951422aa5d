import type { HazardCode } from '../../hookup/index.js';
import { MINUTE_MS } from '../../quantities/index.js';
import { SOURCE_KINDS, type SourceKind } from '../../sources/index.js';
import type { OverrideRule } from '../events/event.js';
import type { Job } from '../job.js';
import { wasCharged } from './queries.js';

/** The means that a machine ran by: kit, rolling, or its own battery. */
export const STARTED_BY = [...SOURCE_KINDS, 'rolled', 'itself'] as const;
export type StartedBy = (typeof STARTED_BY)[number];

/** One try with help, beside the odds that Plan gave it. */
export interface HelpedTry {
  readonly sourceId: string;
  readonly sourceKind: SourceKind;
  /** Share of starts that the plan expected, 0 to 1; null where it gave none, and at a second try by the same plan: its odds are older. */
  readonly odds: number | null;
  readonly started: boolean;
}

/** The figures of one job that a house counts. */
export interface JobOutcome {
  /** From the arrival to the first start, minutes; null where nothing started it. */
  readonly minutesToRunning: number | null;
  readonly startedBy: StartedBy | null;
  readonly batteriesFitted: number;
  /** A charger charged its battery within the job. */
  readonly wasCharged: boolean;
  readonly helpedTries: readonly HelpedTry[];
  /** Rules and severe hazards that somebody gave a reason to go on under, each once. */
  readonly overridden: readonly (OverrideRule | HazardCode)[];
}

/**
 * Counts one job for the pages of the house. Use it where a job is projected, so that no page reads a log.
 *
 * @param job as its log tells it
 * @param batteries that the machine has
 * @returns figures of the job alone; a visit that comes after it is not among them
 */
export function outcomeOfJob(job: Job, batteries: number): JobOutcome {
  const start = job.attempts.find(({ outcome }) => outcome === 'started');
  const arrivedAt = Date.parse(job.arrivedAt ?? job.openedAt);
  return {
    minutesToRunning: start
      ? Math.max(0, (Date.parse(start.endedAt ?? start.startedAt) - arrivedAt) / MINUTE_MS)
      : null,
    startedBy: start ? (start.helper?.sourceKind ?? (start.rolled ? 'rolled' : 'itself')) : null,
    batteriesFitted: job.replaced.reduce((n, { battery }) => n + (battery === null ? batteries : 1), 0),
    wasCharged: wasCharged(job),
    helpedTries: job.attempts.flatMap(({ sourceId, optionId, helper, outcome }, i) => {
      if (sourceId === null || !helper || outcome === null) return [];
      const isRepeat = job.attempts
        .slice(0, i)
        .some((before) => before.optionId === optionId && before.helper?.odds === helper.odds);
      return [{ sourceId, ...helper, ...(isRepeat && { odds: null }), started: outcome === 'started' }];
    }),
    overridden: [...new Set(job.overrides.map(({ rule, hazard }) => hazard ?? rule))],
  };
}
