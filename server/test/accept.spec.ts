import { randomUUID } from 'node:crypto';
import { inspect } from 'node:util';
import type { EventTaken } from '@voltrek/contracts/api';
import { foldJob, type Job, type JobEvent } from '@voltrek/core/job';
import { eq } from 'drizzle-orm';
import type { Database } from '../src/db/database.js';
import { jobs } from '../src/db/schema.js';
import { HttpProblem } from '../src/http/problem.js';
import { acceptEvents } from '../src/jobs/accept.js';
import { readEvents } from '../src/jobs/repository.js';
import { rebuild } from '../src/jobs/rebuild.js';
import { eventOf, openJob, sharedServer } from './shared-server.js';

const REST = { kind: 'rest', battery: 0, tempC: -4, source: 'typed' } as const;

describe('events that wait for each other', () => {
  /** Takes events as the server does; counts its writes, and those of them that failed whole. */
  const counted = async () => {
    const { database, hub } = await sharedServer();
    const writes = { all: 0, failed: 0 };
    const watched: Database = {
      ...database,
      write: async (work, options) => {
        writes.all++;
        return database.write(work, options).catch((error: unknown) => {
          writes.failed++;
          throw error;
        });
      },
    };
    const accept = acceptEvents(watched, hub);
    const report = (event: JobEvent): Promise<EventTaken> =>
      accept({ event, heldMs: 0, sentBy: null, isAlone: true });
    /** The outcome of each, in the order in which they were reported. */
    const all = async (events: readonly JobEvent[]): Promise<string[]> =>
      (await Promise.allSettled(events.map(report))).map((one) =>
        one.status === 'fulfilled'
          ? `${one.value.revision}${one.value.isNew ? '' : ' again'}`
          : one.reason instanceof HttpProblem
            ? String(one.reason.status)
            : inspect(one.reason),
      );
    return { database, writes, all, report };
  };

  const loggedTypes = async ({ db }: Database, jobId: string): Promise<string[]> =>
    (await readEvents(db, jobId)).map(({ type }) => type);

  it('share a transaction, and each comes to what it would by itself: taken, refused, unknown, or known already', async () => {
    const { database, writes, all, report } = await counted();
    const [a, b, c, d] = await Promise.all([openJob(), openJob(), openJob(), openJob()]);
    const known = eventOf(a, 'symptom.recorded', { symptom: 'silence' });
    await report(known);
    writes.all = 0;
    const outcomes = await all([
      known,
      eventOf(b, 'clamp.attached', { clamp: 'redCasualty', pointId: 'battery-plus' }),
      { ...eventOf(c, 'symptom.recorded', { symptom: 'silence' }), by: 'nobody' },
      eventOf(randomUUID(), 'symptom.recorded', { symptom: 'silence' }),
      eventOf(d, 'reading.taken', { ...REST, volts: 11.4 }),
      // The same event as if it were of another job.
      { ...known, jobId: d },
      eventOf(b, 'symptom.recorded', { symptom: 'one-click' }),
    ]);
    expect(outcomes).toEqual(['2 again', '409', '404', '404', '2', '409', '2']);
    // Of five jobs first, then the second ones of two of these.
    expect(writes.all).toBe(database.others ? writes.all : 2);
    expect(writes.failed).toBe(0);
    expect(await loggedTypes(database, d)).toEqual(['job.opened', 'reading.taken']);
    expect(await loggedTypes(database, b)).toEqual(['job.opened', 'symptom.recorded']);
  });

  it('fail alone when one of them makes the database undo them all', async () => {
    const { database, writes, all } = await counted();
    const [a, b, c] = await Promise.all([openJob(), openJob(), openJob()]);
    const event = eventOf(a, 'symptom.recorded', { symptom: 'silence' });
    const outcomes = await all([
      event,
      // Neither stands in a log yet, so only the database sees that they are one.
      { ...event, jobId: b },
      eventOf(c, 'reading.taken', { ...REST, volts: 11.2 }),
    ]);
    expect(outcomes).toEqual(['2', '409', '2']);
    if (!database.others) expect(writes).toEqual({ all: 4, failed: 1 });
    expect(await loggedTypes(database, b)).toEqual(['job.opened']);
    expect(await loggedTypes(database, c)).toEqual(['job.opened', 'reading.taken']);
  });

  it('are not tried one by one where the database does not answer at all', async () => {
    const { database, hub } = await sharedServer();
    const jobIds = await Promise.all([openJob(), openJob(), openJob()]);
    let tried = 0;
    const away: Database = {
      ...database,
      writesAtOnce: 1,
      write: () => {
        tried++;
        return Promise.reject(Object.assign(new Error('away'), { code: 'ECONNREFUSED' }));
      },
    };
    const accept = acceptEvents(away, hub);
    const told = await Promise.allSettled(
      jobIds.map((jobId) =>
        accept({
          event: eventOf(jobId, 'symptom.recorded', { symptom: 'silence' }),
          heldMs: 0,
          sentBy: null,
          isAlone: true,
        }),
      ),
    );
    expect(told.map((one) => one.status === 'rejected' && String(one.reason))).toEqual(
      jobIds.map(() => 'Error: away'),
    );
    expect(tried).toBe(1);
  });

  it('stay in the order of their job, whatever goes alone between them', async () => {
    const { database, all } = await counted();
    const jobIds = await Promise.all(Array.from({ length: 6 }, () => openJob()));
    // Each job gets its events in one order; of all jobs they come mixed, and closing goes alone.
    const of = (jobId: string): JobEvent[] => [
      eventOf(jobId, 'symptom.recorded', { symptom: 'silence' }),
      eventOf(jobId, 'reading.taken', { ...REST, volts: 11.9 }),
      eventOf(jobId, 'verdict.given', {
        verdict: 'keep',
        suspect: null,
        certainty: 'unsure',
        followUps: [{ kind: 'inspect', days: 180 }],
      }),
      eventOf(jobId, 'job.closed', { note: '' }),
      eventOf(jobId, 'symptom.recorded', { symptom: 'one-click' }),
    ];
    const logs = jobIds.map(of);
    const mixed = [0, 1, 2, 3, 4].flatMap((i) => logs.map((log) => log[i]!));
    const outcomes = await all(mixed);
    for (const [n, jobId] of jobIds.entries()) {
      expect([0, 1, 2, 3, 4].map((i) => outcomes[i * 6 + n])).toEqual(['2', '3', '4', '5', '409']);
      const events = await readEvents(database.db, jobId);
      expect(events.slice(1).map(({ id }) => id)).toEqual(logs[n]!.slice(0, 4).map(({ id }) => id));
      const [row] = await database.db.select().from(jobs).where(eq(jobs.id, jobId));
      expect(row!.snapshot).toEqual(JSON.parse(JSON.stringify(foldJob(events))) as Job);
    }
    expect((await rebuild(database.db)).differed).toEqual([]);
  });
});
