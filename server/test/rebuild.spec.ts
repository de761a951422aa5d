import { eq } from 'drizzle-orm';
import { batteryEntries, followUps, jobs } from '../src/db/schema.js';
import type { Job } from '@voltrek/core/job';
import type { JobDetail } from '@voltrek/contracts';
import { rebuild, snapshotOldLogs } from '../src/jobs/rebuild.js';
import { openJob, send, sharedServer } from './shared-server.js';

describe('a rebuild', () => {
  it('finds nothing to put right in what the server wrote, and puts right what somebody else did @long', async () => {
    const { database } = await sharedServer();
    const jobId = await openJob();
    await send(jobId, 'reading.taken', { kind: 'rest', volts: 11.4, battery: 0, tempC: -4, source: 'typed' });
    await send(jobId, 'symptom.recorded', { symptom: 'slow-crank' });
    await send(jobId, 'verdict.given', {
      verdict: 'charge-first',
      suspect: null,
      certainty: 'unsure',
      followUps: [{ kind: 'recheck', days: 2 }],
    });
    await send(jobId, 'job.closed', { note: '' });
    const first = await rebuild(database.db);
    expect(first.jobs).toBeGreaterThan(100);
    expect(first.differed).toEqual([]);
    await database.db.update(jobs).set({ lowestRestVolts: 12.9, verdict: 'keep' }).where(eq(jobs.id, jobId));
    await database.db.delete(followUps).where(eq(followUps.jobId, jobId));
    await database.db.delete(batteryEntries).where(eq(batteryEntries.jobId, jobId));
    const second = await rebuild(database.db);
    expect([...second.differed].sort()).toEqual(
      [`${jobId}: battery record`, `${jobId}: follow-ups`, `${jobId}: summary`].sort(),
    );
    expect((await rebuild(database.db)).differed).toEqual([]);
  });
});

describe('a snapshot that another version folded', () => {
  const stale = { snapshot: { symptoms: ['silence'] } as unknown as Job, snapshotVersion: 0 };

  it('is never read: the job is folded, and takes the next event', async () => {
    const { api, database } = await sharedServer();
    const jobId = await openJob();
    await send(jobId, 'symptom.recorded', { symptom: 'slow-crank' });
    await database.db.update(jobs).set(stale).where(eq(jobs.id, jobId));
    const { events } = (await api.get(`/api/jobs/${jobId}`).expect(200)).body as JobDetail;
    expect(events.length).toBe(2);
    expect((await send(jobId, 'symptom.recorded', { symptom: 'one-click' })).status).toBe(201);
    const [row] = await database.db.select().from(jobs).where(eq(jobs.id, jobId));
    expect(row!.snapshot!.symptoms).toEqual(['slow-crank', 'one-click']);
  });

  it('is made anew at the next start', async () => {
    const { database } = await sharedServer();
    const jobId = await openJob();
    const [before] = await database.db.select().from(jobs).where(eq(jobs.id, jobId));
    await database.db.update(jobs).set(stale).where(eq(jobs.id, jobId));
    expect(await snapshotOldLogs(database.db)).toBe(1);
    expect((await database.db.select().from(jobs).where(eq(jobs.id, jobId)))[0]).toEqual(before);
  });
});
