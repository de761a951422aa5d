import { type HouseFigures, JOB_TRAITS, type JobFilter, RUNNING_EDGES_MIN } from '@voltrek/contracts';
import { and, eq, type SQL, sql } from 'drizzle-orm';
import { QueryBuilder } from 'drizzle-orm/pg-core';
import type { Db } from '../db/database.js';
import { calls, followUps, jobs } from '../db/schema.js';
import { isNamedBy, isReturn, next } from './filter.js';

/** The rows of a question as one JSON list, empty where there are none. */
const list = (rows: SQL): SQL => sql`(SELECT coalesce(json_agg(r), '[]') FROM (${rows}) r)`;

/** Jobs by one column of the span, the most first. */
const byTrait = (column: SQL): SQL =>
  list(sql`SELECT ${column} AS key, count(*)::int AS jobs, count(*) FILTER (WHERE returned)::int AS returned
    FROM span GROUP BY 1 ORDER BY 2 DESC, 1`);

/** The columns of the traits, as the span has them. */
const TRAIT_COLUMNS = JOB_TRAITS.map((trait) => [trait, sql.identifier(jobs[trait].name)] as const);

/** The odds of 1 count among those over 0.9. */
const LAST_TENTH = 9;

/** Counts promises of rechecks: done, or open and not yet late, or late. */
const rechecks = (today: string): SQL => sql`(SELECT json_build_object(
    'done', count(*) FILTER (WHERE ${followUps.done})::int,
    'due', count(*) FILTER (WHERE NOT ${followUps.done} AND ${followUps.dueOn} >= ${today})::int,
    'late', count(*) FILTER (WHERE NOT ${followUps.done} AND ${followUps.dueOn} < ${today})::int)
  FROM ${followUps} JOIN span ON span.id = ${followUps.jobId} WHERE ${followUps.kind} = 'recheck')`;

/**
 * The figures of the closed jobs that a filter names, in one statement over one reading of their rows. No log and no snapshot is read.
 *
 * @param now decides which rechecks are late
 */
export async function figuresOf(db: Db, filter: JobFilter, now: Date): Promise<HouseFigures> {
  const columns = new QueryBuilder()
    .select({
      id: jobs.id,
      vanId: jobs.vanId,
      by: jobs.by,
      machineClass: jobs.machineClass,
      startedBy: jobs.startedBy,
      suspect: jobs.suspect,
      verdict: jobs.verdict,
      minutes: sql`${jobs.minutesToRunning}`.as('minutes'),
      fitted: sql`${jobs.batteriesFitted}`.as('fitted'),
      wasCharged: jobs.wasCharged,
      tries: sql`${jobs.helpedTries}`.as('tries'),
      overridden: jobs.overridden,
      kept: sql`${jobs.arrivedAt} <= ${calls.promisedAt}`.as('kept'),
      returned: sql`back.id IS NOT NULL`.as('returned'),
      backSuspect: sql`back.suspect`.as('back_suspect'),
    })
    .from(jobs)
    .innerJoin(calls, eq(calls.id, jobs.callId))
    .leftJoin(
      sql`LATERAL (SELECT ${next.id}, ${next.suspect} FROM ${jobs} ${sql.identifier('next')}
        WHERE ${isReturn} ORDER BY ${next.openedAt} LIMIT 1) back`,
      sql`true`,
    )
    .where(and(eq(jobs.state, 'closed'), isNamedBy(filter)));
  const traits = sql.join(
    TRAIT_COLUMNS.map(([trait, column]) => sql`${sql.raw(`'${trait}'`)}, ${byTrait(sql`${column}`)}`),
    sql`, `,
  );
  const edges = sql.raw(`ARRAY[${RUNNING_EDGES_MIN.join(', ')}]::float8[]`);
  const minutes = sql.join(
    [...RUNNING_EDGES_MIN, null].map(
      (_, i) => sql`count(*) FILTER (WHERE width_bucket(minutes, ${edges}) = ${sql.raw(String(i))})::int`,
    ),
    sql`, `,
  );
  const today = now.toISOString().slice(0, 10);
  const { rows } = await db.execute<{ figures: HouseFigures }>(sql`
    WITH span AS MATERIALIZED (${columns})
    SELECT json_build_object(
      'jobs', (SELECT count(*)::int FROM span),
      'medianMinutes', (SELECT percentile_cont(0.5) WITHIN GROUP (ORDER BY minutes) FROM span),
      'minutesToRunning', (SELECT json_build_array(${minutes}) FROM span),
      'batteriesFitted', (SELECT coalesce(sum(fitted), 0)::int FROM span),
      'charged', (SELECT count(*) FILTER (WHERE was_charged)::int FROM span),
      'promises', (SELECT json_build_object('kept', count(*) FILTER (WHERE kept)::int,
        'late', count(*) FILTER (WHERE NOT kept)::int) FROM span),
      'rechecks', ${rechecks(today)},
      'traits', json_build_object(${traits}),
      'returns', ${list(sql`SELECT verdict, back_suspect AS suspect, count(*)::int AS jobs
        FROM span WHERE returned GROUP BY 1, 2 ORDER BY 3 DESC, 1, 2`)},
      'overridden', ${list(sql`SELECT key, count(*)::int AS jobs
        FROM span, jsonb_array_elements_text(overridden) AS key GROUP BY 1 ORDER BY 2 DESC, 1`)},
      'kit', ${list(sql`SELECT t ->> 'sourceId' AS key, count(*)::int AS tries,
        count(*) FILTER (WHERE t ->> 'started' = 'false')::int AS failed
        FROM span, jsonb_array_elements(tries) AS t GROUP BY 1 ORDER BY 3 DESC, 2 DESC, 1`)},
      'odds', ${list(sql`SELECT tenth / 10.0 AS from, count(*)::int AS count, avg(odds) AS claimed,
        avg((started = 'true')::int) AS met
        FROM (SELECT (t ->> 'odds')::float8 AS odds, t ->> 'started' AS started,
          least(${LAST_TENTH}, floor((t ->> 'odds')::float8 * 10)) AS tenth
          FROM span, jsonb_array_elements(tries) AS t WHERE t ->> 'odds' IS NOT NULL) tries
        GROUP BY tenth ORDER BY tenth`)}
    ) AS figures`);
  return rows[0]!.figures;
}
