import { randomUUID } from 'node:crypto';
import { eq, sql } from 'drizzle-orm';
import type { Tx } from '../src/db/database.js';
import { jobs, kitItems, models } from '../src/db/schema.js';
import { ReadForEvents, contextsFor } from '../src/jobs/event-context.js';
import { addRuleSetting } from '../src/rules/repository.js';
import { demoDatabase } from './test-database.js';

describe('what events are judged against', () => {
  const change = {
    kit: (tx: Tx, n: number) =>
      tx
        .update(kitItems)
        .set({ detail: sql`jsonb_set(detail, '{name}', ${JSON.stringify(`Renamed ${n}`)}::jsonb)` }),
    machine: (tx: Tx, n: number) =>
      tx
        .update(models)
        .set({ detail: sql`jsonb_set(detail, '{lengthMm}', ${String(4000 + n)}::jsonb)` })
        .where(eq(models.id, 'brinmoor-pella')),
    donor: (tx: Tx, n: number) =>
      tx
        .update(models)
        .set({ detail: sql`jsonb_set(detail, '{widthMm}', ${String(1700 + n)}::jsonb)` })
        .where(eq(models.id, 'service-van')),
    rules: (tx: Tx, n: number) =>
      addRuleSetting(tx, { key: 'crankTriesMax', value: 2 + (n % 3), by: 'crew-1' }, new Date()),
    retired: (tx: Tx, n: number) =>
      tx
        .update(kitItems)
        .set({ retiredAt: n % 2 ? new Date() : null })
        .where(eq(kitItems.id, 'pack-lithium')),
    job: (tx: Tx, n: number, jobId: string) =>
      tx
        .update(jobs)
        .set({ snapshot: sql`jsonb_set(snapshot, '{ambientC}', ${String(n)}::jsonb)` })
        .where(eq(jobs.id, jobId)),
  } as const;
  type Kind = keyof typeof change;

  it('is what the database holds at that moment, whatever was read before and whoever changed it since', async () => {
    // Its own: what is changed here, other specs rely on.
    const database = await demoDatabase();
    const jobIds = (
      await database.db.select({ id: jobs.id }).from(jobs).where(eq(jobs.modelId, 'brinmoor-pella')).limit(2)
    ).map(({ id }) => id);
    const warm = new ReadForEvents();
    const asked = jobIds.map((jobId) => ({ id: randomUUID(), jobId, by: 'crew-1' }));
    const told = async (tx: Tx, read: ReadForEvents): Promise<string> =>
      JSON.stringify((await contextsFor(tx, read, asked)).map(({ context }) => context));
    /** Reads it anew, by somebody who remembers nothing. @returns it */
    const same = async (tx: Tx, context: string): Promise<string> => {
      const now = await told(tx, new ReadForEvents());
      expect(await told(tx, warm))
        .withContext(context)
        .toBe(now);
      return now;
    };
    const undone = new Error('undone');
    const seen = new Set<string>();
    let n = 0;
    for (const kind of Object.keys(change) as Kind[]) {
      seen.add(await database.write((tx) => same(tx, `${kind}: before`)));
      // Twice in one transaction, asked between: no transaction's number tells the two apart.
      await database.write(async (tx) => {
        for (const time of ['once', 'twice']) {
          await change[kind](tx, ++n, jobIds[0]!);
          seen.add(await same(tx, `${kind}: ${time}`));
        }
      });
      // An undone event was never there.
      await expectAsync(
        database.write(async (tx) => {
          await change[kind](tx, ++n, jobIds[0]!);
          seen.add(await same(tx, `${kind}: yet to be undone`));
          throw undone;
        }),
      ).toBeRejectedWith(undone);
      await database.write((tx) => same(tx, `${kind}: after it was undone`));
    }
    // It was really another each time, as far as each change makes another.
    expect(seen.size).toBeGreaterThan(14);
    await database.close();
  });
});
