import { mkdtemp, readFile, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { count, getTableName, is } from 'drizzle-orm';
import { PgTable } from 'drizzle-orm/pg-core';
import { testDatabase } from './test-database.js';
import * as schema from '../src/db/schema.js';
import { batteryEntries, crew, followUps } from '../src/db/schema.js';
import { loadDemo } from '../src/demo/load.js';
import { exportHouse, HouseFileError, importHouse } from '../src/house/house-file.js';
import { HOUSE_TABLES } from '../src/house/tables.js';
import { rebuild } from '../src/jobs/rebuild.js';
import { sharedServer } from './shared-server.js';

describe('a file of the whole house', () => {
  let folder: string;
  let path: string;

  beforeAll(async () => {
    folder = await mkdtemp(join(tmpdir(), 'voltrek-house-'));
    path = join(folder, 'house.ndjson');
    const { database } = await sharedServer();
    await exportHouse(database.db, path);
  });
  afterAll(async () => {
    await rm(folder, { recursive: true });
  });

  it('brought into an empty folder gives the same house, row for row, with its records made from its logs', async () => {
    const { database } = await sharedServer();
    const empty = await testDatabase();
    const { db } = empty;
    const counts = await importHouse(db, path);
    expect(counts.job_events).toBeGreaterThan(2000);
    // A start finds a house there, and puts no demo over it.
    await loadDemo(empty, new Date(), false);
    const again = join(folder, 'again.ndjson');
    await exportHouse(db, again);
    expect(await readFile(again, 'utf8')).toBe(await readFile(path, 'utf8'));
    for (const table of [followUps, batteryEntries]) {
      const [there] = await database.db.select({ n: count() }).from(table);
      const [here] = await db.select({ n: count() }).from(table);
      expect(here!.n).toBe(there!.n);
    }
    expect((await rebuild(db)).differed).toEqual([]);
    await expectAsync(importHouse(db, path)).toBeRejectedWithError(
      HouseFileError,
      /works in this house already/,
    );
    await empty.close();
  });

  it('is refused whole, by its line, when a row was changed, left out or cut off', async () => {
    const empty = await testDatabase();
    const { db } = empty;
    const lines = (await readFile(path, 'utf8')).trimEnd().split('\n');
    const lineOf = (table: string): number => lines.findIndex((l) => l.startsWith(`{"table":"${table}"`));
    const changed = (at: number, from: string | RegExp, to: string): string =>
      lines.map((l, i) => (i === at ? l.replace(from, to) : l)).join('\n');
    const event = lineOf('job_events');
    const cases: readonly (readonly [content: string, says: RegExp])[] = [
      ['', /empty/],
      ['{"format":"other","version":1}', /Line 1/],
      [lines.slice(0, 40).join('\n').slice(0, -30), /Line 40.*cut off/],
      [
        changed(event, '"type":"job.opened"', '"type":"job.burnt"'),
        new RegExp(`Line ${event + 1}: job_events`),
      ],
      [changed(event, '"callNumber":', '"colour":'), new RegExp(`Line ${event + 1}: job_events`)],
      [
        changed(lineOf('vehicles'), '"modelId":"', '"modelId":"un'),
        new RegExp(`Line ${lineOf('vehicles') + 1}: vehicles`),
      ],
      [changed(lineOf('crew'), '"table":"crew"', '"table":"crow"'), /no table "crow"/],
      [changed(lineOf('vans'), '"name"', '"nome"'), /nome is no field/],
      [[lines[0], lines[event], ...lines.slice(1)].join('\n'), /Line 2/],
    ];
    for (const [content, says] of cases) {
      const file = join(folder, 'bad.ndjson');
      await writeFile(file, content);
      await expectAsync(importHouse(db, file))
        .withContext(String(says))
        .toBeRejectedWithError(HouseFileError, says);
      const [someone] = await db.select({ n: count() }).from(crew);
      expect(someone!.n).withContext(String(says)).toBe(0);
    }
    await empty.close();
  });

  it('names every table but those made from the logs, those of the door, and what is said of this database alone', () => {
    const made = ['battery_entries', 'follow_ups'];
    const ofTheDoor = ['audit', 'crew_secrets', 'passkey_questions', 'passkeys', 'sessions'];
    const ofThisDatabase = ['facts', 'staged_models'];
    const all = Object.values<unknown>(schema)
      .filter((part) => is(part, PgTable))
      .map((table) => getTableName(table));
    const named = [...HOUSE_TABLES.map((t) => t.name), ...made, ...ofTheDoor, ...ofThisDatabase];
    expect(named.sort()).toEqual(all.sort());
  });
});
