import { JOB_TRAITS, type JobFilter, NO_VALUE, RETURN_DAYS, RUNNING_EDGES_MIN } from '@voltrek/contracts';
import { and, eq, exists, gt, gte, isNull, lt, lte, type SQL, sql } from 'drizzle-orm';
import { alias, type AnyPgColumn, QueryBuilder } from 'drizzle-orm/pg-core';
import { jobs } from '../db/schema.js';

/** The visit after a job, to the same vehicle. */
export const next = alias(jobs, 'next');

/** A visit so late is no return. */
const returnsUntil = sql`${jobs.closedAt} + ${`${RETURN_DAYS} days`}::interval`;

/** True of a visit that makes a job one whose vehicle came back. */
export const isReturn = and(
  eq(next.vehicleId, jobs.vehicleId),
  gt(next.openedAt, jobs.closedAt),
  lte(next.openedAt, returnsUntil),
)!;

/** The condition of the rows that a filter names; undefined where it names all. The log and the figures both ask it. */
export function isNamedBy(filter: JobFilter): SQL | undefined {
  const ofTrait = JOB_TRAITS.map((trait) => {
    const value = filter[trait];
    if (value === undefined) return undefined;
    return value === NO_VALUE ? isNull(jobs[trait]) : eq(jobs[trait], value as never);
  });
  return and(
    filter.from ? gte(jobs.closedAt, new Date(filter.from)) : undefined,
    filter.to ? lt(jobs.closedAt, new Date(filter.to)) : undefined,
    ...ofTrait,
    filter.kit ? holds(jobs.helpedTries, [{ sourceId: filter.kit }]) : undefined,
    filter.overridden ? holds(jobs.overridden, [filter.overridden]) : undefined,
    filter.runningFrom ? ranFrom(Number(filter.runningFrom)) : undefined,
    filter.returned
      ? exists(new QueryBuilder().select({ id: next.id }).from(next).where(isReturn))
      : undefined,
  );
}

/** A JSON list that has these among its entries. */
const holds = (list: AnyPgColumn, some: readonly unknown[]): SQL =>
  sql`${list} @> ${JSON.stringify(some)}::jsonb`;

function ranFrom(minutes: number): SQL | undefined {
  const to = RUNNING_EDGES_MIN.find((edge) => edge > minutes);
  return and(
    gte(jobs.minutesToRunning, minutes),
    to === undefined ? undefined : lt(jobs.minutesToRunning, to),
  );
}
