import { eq } from 'drizzle-orm';
import { batteryEntries, followUps, jobs } from '../src/db/schema.js';
import { rebuild } from '../src/jobs/rebuild.js';
import { openJob, send, sharedServer } from './shared-server.js';

describe('a rebuild', () => {
  it('finds nothing to put right in what the server wrote, and puts right what somebody else did', async () => {
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
