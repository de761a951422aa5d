import { SUSPECTS } from '@voltrek/core/diagnosis';
import { STARTED_BY } from '@voltrek/core/job';
import { MACHINE_CLASSES } from '@voltrek/core/machine';
import type { ReliabilityRow } from '@voltrek/core/quantities';
import { VERDICTS } from '@voltrek/core/verdict';
import * as yup from 'yup';
import { id, instantText, parsed } from './text.js';

/** The traits that closed jobs are counted and found by. */
export const JOB_TRAITS = ['vanId', 'by', 'machineClass', 'startedBy', 'suspect', 'verdict'] as const;
export type JobTrait = (typeof JOB_TRAITS)[number];

/** Stands for a trait that a job has no value of: nothing started it, or no part is at fault. */
export const NO_VALUE = 'none';

/** A question for closed jobs: each part narrows it. The log and the page of figures ask the same. */
export interface JobFilter extends Readonly<Partial<Record<JobTrait, string>>> {
  /** Closed at this moment or later, ISO 8601. */
  readonly from?: string;
  /** Closed before this moment, ISO 8601. */
  readonly to?: string;
  /** A piece of kit that helped in a try. */
  readonly kit?: string;
  /** A rule or a severe hazard that was overridden. */
  readonly overridden?: string;
  /** Ran within the bar that begins at so many minutes after arrival: 0, or one of {@link RUNNING_EDGES_MIN}. */
  readonly runningFrom?: string;
  /** Only those whose vehicle came back within {@link RETURN_DAYS}. */
  readonly returned?: 'yes';
}

/** A vehicle that is called for again within so many days came back. */
export const RETURN_DAYS = 30;

/** Upper edges of the minutes from arrival to running that jobs are counted by; the last bar has none. */
export const RUNNING_EDGES_MIN = [10, 20, 30, 45, 60, 90] as const;

const oneOf = (values: readonly string[]) => yup.string().oneOf([...values, NO_VALUE]);

export const JOB_FILTER = yup
  .object({
    from: instantText(),
    to: instantText(),
    vanId: id(),
    by: id(),
    machineClass: oneOf(MACHINE_CLASSES),
    startedBy: oneOf(STARTED_BY),
    suspect: oneOf(SUSPECTS),
    verdict: oneOf(VERDICTS),
    kit: id(),
    overridden: yup.string().max(60),
    runningFrom: yup.string().oneOf([0, ...RUNNING_EDGES_MIN].map(String)),
    returned: yup.string().oneOf(['yes']),
  })
  .required();

/** The names of the query parameters of a filter. */
export const JOB_FILTER_KEYS = [
  ...['from', 'to'],
  ...JOB_TRAITS,
  ...['kit', 'overridden', 'runningFrom', 'returned'],
] as const satisfies readonly (keyof JobFilter)[];

/**
 * A filter from the parameters of an address. A parameter without a value is left out.
 *
 * @throws yup.ValidationError with a path and a reason for each fault
 * @example parseJobFilter({ verdict: '', vanId: 'van-1' }) // => { vanId: 'van-1' }
 */
export function parseJobFilter(query: Readonly<Record<string, unknown>>): JobFilter {
  const given = JOB_FILTER_KEYS.filter((key) => query[key] !== undefined && query[key] !== '');
  return parsed(JOB_FILTER, Object.fromEntries(given.map((key) => [key, query[key]]))) as JobFilter;
}

/** Jobs with one value of a trait. */
export interface TraitCount {
  /** The value; null for jobs that have none. */
  readonly key: string | null;
  readonly jobs: number;
  /** Of these, jobs whose vehicle came back. */
  readonly returned: number;
}

/** Jobs by each value of each trait, the most first. */
export interface TraitCounts {
  readonly vanId: readonly TraitCount[];
  readonly by: readonly TraitCount[];
  readonly machineClass: readonly TraitCount[];
  readonly startedBy: readonly TraitCount[];
  readonly suspect: readonly TraitCount[];
  readonly verdict: readonly TraitCount[];
}

/** The figures of the closed jobs that a filter names. */
export interface HouseFigures {
  readonly jobs: number;
  /** Half of the jobs that ran were running by this minute after arrival; null where none ran. */
  readonly medianMinutes: number | null;
  /** Jobs between the edges of {@link RUNNING_EDGES_MIN}; one more than those. */
  readonly minutesToRunning: readonly number[];
  readonly batteriesFitted: number;
  readonly charged: number;
  /** Promised times of arrival. */
  readonly promises: { readonly kept: number; readonly late: number };
  /** Rechecks that these jobs promised. */
  readonly rechecks: { readonly done: number; readonly due: number; readonly late: number };
  readonly traits: TraitCounts;
  /** The faults that vehicles came back with, by the verdict that was given first. */
  readonly returns: readonly {
    readonly verdict: string | null;
    readonly suspect: string | null;
    readonly jobs: number;
  }[];
  /** Rules and severe hazards that were overridden. */
  readonly overridden: readonly { readonly key: string; readonly jobs: number }[];
  /** Kit that helped, by its id. */
  readonly kit: readonly { readonly key: string; readonly tries: number; readonly failed: number }[];
  /** Tries by tenths of the odds that Plan gave them. */
  readonly odds: readonly ReliabilityRow[];
}
