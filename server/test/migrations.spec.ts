import { cp, mkdtemp, readFile, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { PGlite } from '@electric-sql/pglite';
import { pg_trgm } from '@electric-sql/pglite/contrib/pg_trgm';
import { drizzle } from 'drizzle-orm/pglite';
import { migrate } from 'drizzle-orm/pglite/migrator';
import type { StoredEvent } from '@voltrek/core/job';
import { type Db, MIGRATIONS } from '../src/db/database.js';
import * as schema from '../src/db/schema.js';
import { readEvents } from '../src/jobs/repository.js';

const LOGS = fileURLToPath(new URL('../../../core/test/data/logs-before-2026-12.json', import.meta.url));

/** The first `count` migrations alone, as a program of that day had them. */
async function earlierMigrations(count: number): Promise<string> {
  const folder = await mkdtemp(join(tmpdir(), 'voltrek-migrations-'));
  await cp(MIGRATIONS, folder, { recursive: true });
  const path = join(folder, 'meta', '_journal.json');
  const journal = JSON.parse(await readFile(path, 'utf8')) as { entries: unknown[] };
  await writeFile(path, JSON.stringify({ ...journal, entries: journal.entries.slice(0, count) }));
  return folder;
}

describe('a data folder of an earlier version', () => {
  let client: PGlite;
  let folder: string;

  beforeAll(async () => {
    folder = await earlierMigrations(3);
    client = await PGlite.create({ extensions: { pg_trgm } });
    await migrate(drizzle(client), { migrationsFolder: folder });
    const machine = {
      id: 'hulvane-cornice-9',
      blocks: [{ rating: { capacityAh: 100 } }, { rating: { capacityAh: 100 } }],
      points: [{ id: 'block-plus', kind: 'block-positive', block: 0 }],
      zones: [],
    };
    const lead = { id: 'leads-1', kind: 'leads', leads: { sectionMm2: 25, bite: 'worn' } };
    await client.exec(`
      INSERT INTO crew (id, name, role) VALUES ('crew-1', 'One', 'technician'), ('crew-2', 'Two', 'technician'),
        ('crew-3', 'Three', 'technician'), ('crew-4', 'Four', 'lead');
      INSERT INTO vans VALUES ('van-1', 'One');
      INSERT INTO rule_settings (key, value, by, at) VALUES ('veryFlatBlock', '"replace"', 'crew-1', now());
    `);
    await client.query(
      `INSERT INTO machines (id, maker, model, machine_class, detail) VALUES ($1, 'M', 'N', 'plant', $2)`,
      [machine.id, machine],
    );
    await client.query(
      `INSERT INTO kit_items (id, van_id, position, detail) VALUES ('leads-1', 'van-1', 0, $1)`,
      [lead],
    );
    const log = (JSON.parse(await readFile(LOGS, 'utf8')) as StoredEvent[][]).find((l) =>
      l.some((e) => e.type === 'block.replaced'),
    )!;
    const { callId, callNumber } = log[0]!.data as { callId: string; callNumber: number };
    await client.query(
      `INSERT INTO calls VALUES ($1, $2, now(), 'Piste machine', 'Slope', '', $3, -9, true)`,
      [callId, callNumber, machine.id],
    );
    await client.query(
      `INSERT INTO jobs (id, call_id, call_number, title, place_name, machine_id, stage, state, verdict, opened_at, by, revision, search_text)
       VALUES ($1, $2, $3, '', '', $4, 'verdict', 'closed', 'recheck', now(), 'crew-1', $5, '')`,
      [log[0]!.jobId, callId, callNumber, machine.id, log.length],
    );
    for (const [position, { id, jobId, at, by, type, data }] of log.entries())
      await client.query(`INSERT INTO job_events VALUES ($1, $2, $3, $4, $5, $6, $7)`, [
        id,
        jobId,
        position,
        at,
        by,
        type,
        data,
      ]);
    await migrate(drizzle(client), { migrationsFolder: MIGRATIONS });
  });

  afterAll(async () => {
    await client.close();
    await rm(folder, { recursive: true });
  });

  it('says everything beside its logs in the words of today', async () => {
    const { rows } = await client.query<{ detail: unknown }>('SELECT detail FROM models');
    expect(rows[0]!.detail).toEqual(
      jasmine.objectContaining({
        batteries: [{ rating: { capacityAh: 100 } }, { rating: { capacityAh: 100 } }],
        points: [{ id: 'battery-plus', kind: 'battery-positive', battery: 0 }],
      }),
    );
    const kit = await client.query<{ detail: unknown }>('SELECT detail FROM kit_items');
    expect(kit.rows[0]!.detail).toEqual(
      jasmine.objectContaining({ leads: { sectionMm2: 25, contact: 'worn' } }),
    );
    const rules = await client.query<{ key: string }>('SELECT key FROM rule_settings');
    expect(rules.rows).toEqual([{ key: 'veryFlatBattery' }]);
    const jobs = await client.query<{ verdict: string; model_id: string }>(
      'SELECT verdict, model_id FROM jobs',
    );
    expect(jobs.rows).toEqual([{ verdict: 'charge-first', model_id: 'hulvane-cornice-9' }]);
  });

  it('keeps every log in its order and is rid of the stages that screens were on', async () => {
    const { rows } = await client.query<{ id: string; revision: number }>('SELECT id, revision FROM jobs');
    const { id, revision } = rows[0]!;
    const places = await client.query<{ position: number; type: string }>(
      'SELECT position, type FROM job_events ORDER BY position',
    );
    expect(places.rows.map((r) => r.position)).toEqual(places.rows.map((_, i) => i));
    expect(places.rows.some((r) => r.type === 'stage.opened')).toBeFalse();
    expect(revision).toBe(places.rows.length);
    const events = await readEvents(drizzle(client, { schema }) as unknown as Db, id);
    expect(events.length).toBe(places.rows.length);
    expect(events[0]!.type).toBe('job.opened');
    expect(events.map((e) => e.at)).toEqual([...events.map((e) => e.at)].sort());
    expect(events.some((e) => e.type === 'battery.replaced')).toBeTrue();
  });
});
