import { randomUUID } from 'node:crypto';
import { existsSync } from 'node:fs';
import { chmod, copyFile, mkdir, mkdtemp, readdir, readFile, rm, stat, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Backup, BackupState } from '@voltrek/contracts';
import { DAY_MS } from '@voltrek/core/quantities';
import { pino } from 'pino';
import supertest from 'supertest';
import { backUp } from '../src/backup/backup.js';
import { backupFile, keptOf, listBackups, noteOf } from '../src/backup/catalogue.js';
import { contentMark } from '../src/backup/content-mark.js';
import { keepBackups } from '../src/backup/keeper.js';
import { restore, RestoreError } from '../src/backup/restore.js';
import { type Database, MIGRATIONS, openDatabase } from '../src/db/database.js';
import { loadDemo } from '../src/demo/load.js';
import { crew } from '../src/db/schema.js';
import { createApp } from '../src/http/app.js';
import { streamHub } from '../src/http/stream-hub.js';
import { readLog } from '../src/jobs/repository.js';
import { noInstruments } from './no-instruments.js';
import { demoDatabase } from './test-database.js';

const refuse = (error: Error): never => {
  throw error;
};
const log = { text: '', filter: {}, limit: 200, after: null };

/** Takes back all that the newest migration adds. */
async function takeBackNewest({ db }: Database): Promise<void> {
  const newest = (await readdir(MIGRATIONS))
    .filter((name) => name.endsWith('.sql'))
    .sort()
    .at(-1)!;
  const text = await readFile(join(MIGRATIONS, newest), 'utf8');
  const columns = [...text.matchAll(/ALTER TABLE "(?<table>\w+)" ADD COLUMN "(?<column>\w+)"/g)];
  const tables = [...text.matchAll(/CREATE TABLE "(?<table>\w+)"/g)];
  if (columns.length + tables.length === 0) throw new Error(`${newest} adds nothing that can be taken back`);
  for (const { groups } of columns)
    await db.execute(`ALTER TABLE ${groups!.table!} DROP COLUMN ${groups!.column!}`);
  for (const { groups } of tables) await db.execute(`DROP TABLE ${groups!.table!}`);
}

describe('a backup', () => {
  let folder: string;
  beforeEach(async () => {
    folder = await mkdtemp(join(tmpdir(), 'voltrek-backup-'));
  });
  afterEach(() => rm(folder, { recursive: true, force: true }));

  const opened = (): Promise<Database> => openDatabase(folder, refuse);
  const closedJobs = async ({ db }: Database): Promise<string[]> =>
    (await readLog(db, log)).jobs.map(({ id, revision }) => `${id} ${revision}`);

  it('is made while the house works, comes back whole, and what stood there is set aside', async () => {
    const first = await opened();
    await loadDemo(first, new Date(), false);
    const before = await closedJobs(first);
    const backup = await backUp(folder, first.still, 'by-hand', new Date());
    expect(backup.jobs).toBeGreaterThan(before.length - 1);
    expect(backup.events).toBeGreaterThan(100);
    expect(backup.broken).toBe(0);
    // Events after it are not in it.
    await first.db.execute(`INSERT INTO facts (key, value) VALUES ('after', 'yes')`);
    await first.close();

    const file = backupFile(folder, backup.name);
    const { before: aside, events } = await restore(folder, file, new Date());
    expect(events).toBe(backup.events);
    expect(existsSync(join(aside!, 'PG_VERSION'))).toBeTrue();
    const second = await opened();
    try {
      expect(await closedJobs(second)).toEqual(before);
      const { rows } = await second.db.execute(`SELECT * FROM facts WHERE key = 'after'`);
      expect(rows).toEqual([]);
    } finally {
      await second.close();
    }
  });

  it('by time is asked for by any change of the house, and by nothing else', async () => {
    const database = await demoDatabase();
    const { db } = database;
    const marks = [await contentMark(db), await contentMark(db)];
    expect(marks[1]).toBe(marks[0]);
    for (const change of [
      `UPDATE vehicles SET notes = 'new tyres' WHERE id = (SELECT id FROM vehicles LIMIT 1)`,
      `UPDATE crew SET name = 'Renamed Test' WHERE id = 'crew-2'`,
      `INSERT INTO facts (key, value) VALUES ('something', 'said')`,
      `DELETE FROM facts WHERE key = 'something'`,
    ]) {
      await db.execute(change);
      marks.push(await contentMark(db));
      expect(marks.at(-1)).withContext(change).not.toBe(marks.at(-2));
    }
    await database.close();
  });

  it('is for this user alone, takes away only what it made and listed, and is not put back damaged @long', async () => {
    const umask = process.umask(0o077);
    const kept = join(folder, 'backups');
    await mkdir(join(kept, 'photos'), { recursive: true });
    const own = join(kept, 'from-the-other-disk.tgz');
    await writeFile(own, 'kept by hand', { mode: 0o644 });
    await chmod(folder, 0o755);
    const database = await opened();
    const backup = await backUp(folder, database.still, 'by-hand', new Date());
    const file = backupFile(folder, backup.name);
    process.umask(umask);
    // The database sets the modes of its own files; nobody else comes through the folders to them.
    const others: string[] = [];
    for (const entry of await readdir(folder, { withFileTypes: true, recursive: true })) {
      const path = join(entry.parentPath, entry.name);
      const isOfDatabase = path.startsWith(join(folder, 'pg/'));
      if (!isOfDatabase && ((await stat(path)).mode & 0o077) !== 0) others.push(path);
    }
    expect(others).toEqual([]);
    expect((await stat(folder)).mode & 0o777).toBe(0o700);

    // A backup that was cut short counts for nothing, and the next clears it away.
    const torn = backupFile(folder, '2027-01-01T00-00-00-000Z.tgz');
    await copyFile(file, torn);
    await writeFile(`${noteOf(torn)}.partial`, '{"name":"2027-01-01T00-0');
    const partial = join(kept, '2027-01-15T02-40-00-000Z.tgz.partial');
    await writeFile(partial, 'cut short');
    expect((await listBackups(folder)).length).toBe(1);
    await backUp(folder, database.still, 'by-hand', new Date(Date.now() + 1000));
    await database.close();
    expect((await listBackups(folder)).length).toBe(2);
    expect([existsSync(torn), existsSync(partial)]).toEqual([false, false]);
    expect([existsSync(own), existsSync(join(kept, 'photos'))]).toEqual([true, true]);

    // One that is damaged, or is none, is not put back, and nothing is changed by it.
    const bytes = await readFile(file);
    bytes[bytes.length >> 1]! ^= 0xff;
    await writeFile(file, bytes);
    const stood = await readdir(join(folder, 'pg'));
    for (const [put, says] of [
      [file, /is damaged/],
      [own, /no backup that can be opened/],
      [join(folder, 'none.tgz'), /There is no file/],
    ] as const)
      await expectAsync(restore(folder, put, new Date())).toBeRejectedWithError(RestoreError, says);
    expect(await readdir(join(folder, 'pg'))).toEqual(stood);
  });

  it('is made before a folder of an earlier version is changed, and only then @long', async () => {
    const database = await opened();
    await takeBackNewest(database);
    await database.db.execute(
      `DELETE FROM drizzle.__drizzle_migrations WHERE created_at = (SELECT max(created_at) FROM drizzle.__drizzle_migrations)`,
    );
    await database.close();
    await (await opened()).close();
    await (await opened()).close();
    const made = await listBackups(folder);
    expect(made.map(({ reason }) => reason)).toEqual(['before-migration']);
  });

  it('is asked for by the interface, told of with its size, and health tells its age @long', async () => {
    const database = await opened();
    await database.db.insert(crew).values({ id: 'crew-1', name: 'Ana Test', role: 'crew-lead' });
    const backups = keepBackups(folder, database, () => undefined);
    try {
      const app = createApp({
        database,
        hub: streamHub(),
        log: pino({ level: 'silent' }),
        instruments: await noInstruments(database),
        backups,
      });
      const api = supertest(app);
      expect((await api.get('/api/health').expect(200)).body).toEqual(
        jasmine.objectContaining({ lastBackup: null }),
      );
      await api.post('/api/backups').send({}).expect(422);
      await api.post('/api/backups').send({ by: 'nobody' }).expect(404);
      const [one, two] = await Promise.all([
        api.post('/api/backups').send({ by: 'crew-1' }).expect(201),
        api.post('/api/backups').send({ by: 'crew-1' }).expect(201),
      ]);
      const { backups: list } = one.body as BackupState;
      expect(list.length).withContext('two who ask at once have the same').toBe(1);
      expect((two.body as BackupState).backups).toEqual(list);
      expect(list[0]!.bytes).toBeGreaterThan(1_000_000);
      const health = (await api.get('/api/health')).body as { lastBackup: { ageMinutes: number } };
      expect(health.lastBackup.ageMinutes).toBe(0);
    } finally {
      backups.stop();
      await database.close();
    }
  });
});

describe('which backups are kept', () => {
  const now = new Date('2027-03-01T00:00:00.000Z');
  const of = (days: number): Backup => ({
    name: `${randomUUID()}.tgz`,
    at: new Date(now.getTime() - days * DAY_MS).toISOString(),
    reason: 'by-time',
    ...{ bytes: 1, sha256: '', jobs: 0, events: 0, broken: 0, checkedAt: '' },
  });

  it('the ten newest whatever their age, and the newest of each of eight weeks', () => {
    const old = Array.from({ length: 12 }, (_, i) => of(200 + i));
    expect(keptOf(old, now).length).toBe(10);
    const all = Array.from({ length: 120 }, (_, i) => of(i / 2));
    const kept = keptOf(all, now);
    const days = kept.map(({ at }) => (now.getTime() - Date.parse(at)) / DAY_MS);
    expect(days.slice(0, 10)).toEqual([0, 0.5, 1, 1.5, 2, 2.5, 3, 3.5, 4, 4.5]);
    expect(days.slice(10)).toEqual([7, 14, 21, 28, 35, 42, 49]);
  });
});
