import { randomUUID } from 'node:crypto';
import type pg from 'pg';
import { openInMemory, SNAPSHOT } from '../src/db/database.js';

const poolOf = (db: object): pg.Pool => (db as { readonly $client: pg.Pool }).$client;

describe('the one session of the embedded database', () => {
  it('is as new for the next connection: nothing half done, nothing prepared', async () => {
    const { db, client, close } = await openInMemory(SNAPSHOT);
    const pool = poolOf(db);
    const first = await pool.connect();
    const ask = 'SELECT value FROM facts WHERE key = $1';
    // Asked often enough to be prepared.
    for (let i = 0; i < 8; i++) await first.query({ text: ask, values: ['none'] });
    const { rows: prepared } = await client.query('SELECT name FROM pg_prepared_statements');
    expect(prepared.length).toBeGreaterThan(0);
    await first.query('BEGIN');
    await first.query({ text: 'INSERT INTO facts (key, value) VALUES ($1, $2)', values: ['half', 'done'] });
    first.release(true);
    const second = await pool.connect();
    for (let i = 0; i < 8; i++) {
      const { rows } = await second.query({ text: ask, values: ['half'] });
      expect(rows).toEqual([]);
    }
    await second.query({
      text: 'INSERT INTO facts (key, value) VALUES ($1, $2)',
      values: [randomUUID(), 'yes'],
    });
    second.release();
    await close();
  });

  it('tells what was wrong with a question, and answers the next', async () => {
    const { db, close } = await openInMemory(SNAPSHOT);
    await expectAsync(poolOf(db).query('SELECT nothing FROM nowhere')).toBeRejectedWithError(/nowhere/);
    // More than one message of the protocol holds.
    const long = 'x'.repeat(3_000_000);
    const { rows } = await poolOf(db).query<{ text: string }>('SELECT $1::text AS text', [long]);
    expect(rows[0]!.text.length).toBe(long.length);
    await close();
  });
});
