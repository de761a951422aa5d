import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { cp, mkdtemp, readdir, readFile, rm, stat, truncate, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { eq, sql } from 'drizzle-orm';
import { openDatabase } from '../src/db/database.js';
import { backUp } from '../src/backup/backup.js';
import { backupFile } from '../src/backup/catalogue.js';
import { restore } from '../src/backup/restore.js';
import { FolderUnfitError, unfit } from '../src/db/embedded/folder.js';
import { FolderHeldError, lockFolder } from '../src/db/embedded/lock.js';
import { facts } from '../src/db/schema.js';
import { loadDemo } from '../src/demo/load.js';
import type { DiskCall } from './disk.js';

const neverLost = (error: Error): void => fail(error);

/** Runs a script with the database's door at hand, in a process of its own; DATA is its data folder. */
async function runScript(
  folder: string,
  text: string,
  args: readonly string[],
  env: Readonly<Record<string, string>> = {},
): Promise<{ readonly said: string; readonly code: number }> {
  const url = (path: string): string => JSON.stringify(new URL(path, import.meta.url).href);
  const script = join(folder, 'script.mjs');
  await writeFile(
    script,
    `import { openDatabase } from ${url('../src/db/database.js')};
     import { facts } from ${url('../src/db/schema.js')};
     const DATA = ${JSON.stringify(join(folder, 'data'))};
     ${text}`,
  );
  const child = spawn(process.execPath, [...args, script], { env: { ...process.env, ...env } });
  let said = '';
  for (const stream of [child.stdout, child.stderr])
    stream.on('data', (chunk: Buffer) => (said += chunk.toString()));
  const [code] = (await once(child, 'close')) as [number];
  return { said, code };
}

describe('the data folder', () => {
  let folder: string;

  beforeEach(async () => {
    folder = await mkdtemp(join(tmpdir(), 'voltrek-'));
  });
  afterEach(async () => {
    await rm(folder, { recursive: true, force: true });
  });

  it('keeps what was written across a close and an open, and loads the demo once', async () => {
    const first = await openDatabase(folder, neverLost);
    await loadDemo(first, new Date(), true);
    await first.db.insert(facts).values({ key: 'kept', value: 'yes' });
    await first.close();
    const second = await openDatabase(folder, neverLost);
    await loadDemo(second, new Date(), false);
    const [kept] = await second.db.select().from(facts).where(eq(facts.key, 'kept'));
    const [filled] = await second.db.select().from(facts).where(eq(facts.key, 'filled'));
    expect(kept?.value).toBe('yes');
    expect(filled?.value).toBe('empty');
    await second.close();
  });

  it('is refused to a second holder, with the process that holds it', async () => {
    const release = await lockFolder(folder, neverLost);
    const attempt = lockFolder(folder, neverLost);
    await expectAsync(attempt).toBeRejectedWithError(FolderHeldError, new RegExp(`process ${process.pid}`));
    await release();
    await (
      await lockFolder(folder, neverLost)
    )();
  });

  it('is never filled again when its version mark is missing, and left as it is', async () => {
    const first = await openDatabase(folder, neverLost);
    await first.db.insert(facts).values({ key: 'kept', value: 'yes' });
    await first.close();
    const mark = join(folder, 'pg', 'PG_VERSION');
    const version = await readFile(mark, 'utf8');
    await rm(mark);
    const before = (await readdir(join(folder, 'pg'), { recursive: true })).sort();
    await expectAsync(openDatabase(folder, neverLost)).toBeRejectedWithError(
      FolderUnfitError,
      /PG_VERSION is missing/,
    );
    expect((await readdir(join(folder, 'pg'), { recursive: true })).sort()).toEqual(before);
    await writeFile(mark, '17\n');
    await expectAsync(openDatabase(folder, neverLost)).toBeRejectedWithError(
      FolderUnfitError,
      /PostgreSQL 17/,
    );
    await writeFile(mark, version);
    const again = await openDatabase(folder, neverLost);
    const [kept] = await again.db.select().from(facts).where(eq(facts.key, 'kept'));
    expect(kept?.value).toBe('yes');
    await again.close();
  });

  it('is refused in words when it is damaged, with the last good backup by name, and opens again from it @long', async () => {
    const first = await openDatabase(folder, neverLost);
    await first.db.insert(facts).values({ key: 'kept', value: 'yes' });
    const { name } = await backUp(folder, first.still, 'by-hand', new Date());
    await first.close();
    const file = backupFile(folder, name);
    const pg = join(folder, 'pg');
    const whole = join(folder, 'whole');
    await cp(pg, whole, { recursive: true });
    for (const [what, damage] of [
      ['its control file is cut off', () => truncate(join(pg, 'global', 'pg_control'), 100)],
      [
        'its log of writes is empty',
        async () => {
          const wal = join(pg, 'pg_wal');
          for (const entry of await readdir(wal, { withFileTypes: true }))
            if (entry.isFile()) await truncate(join(wal, entry.name), 0);
        },
      ],
      ['its tables are gone', () => rm(join(pg, 'base'), { recursive: true })],
    ] as const) {
      await rm(pg, { recursive: true });
      await cp(whole, pg, { recursive: true });
      await damage();
      await expectAsync(openDatabase(folder, neverLost))
        .withContext(what)
        .toBeRejectedWithError(FolderUnfitError, new RegExp(`cannot be opened.*restore -- ${file}`));
    }
    await restore(folder, file, new Date());
    const again = await openDatabase(folder, neverLost);
    const [kept] = await again.db.select().from(facts).where(eq(facts.key, 'kept'));
    expect(kept?.value).toBe('yes');
    await again.close();
  });

  it('is refused in words when the disk says no', async () => {
    for (const [code, word] of [
      ['ENOSPC', 'its disk is full'],
      ['EROFS', 'its disk is read-only'],
      ['EACCES', 'may not write there'],
    ]) {
      const said = await unfit(folder, Object.assign(new Error('x'), { code }));
      expect(said).toBeInstanceOf(FolderUnfitError);
      expect(said.message).toContain(word!);
    }
    // A database that finds no room says something of its own: the disk is asked.
    const told = await unfit('/dev', new Error('could not extend file'), () => Promise.resolve(0));
    expect(told.message).toContain('its disk is full');
    const damaged = await unfit(folder, new Error('invalid page'), () => Promise.resolve(1e12));
    expect(damaged.message).toContain('its database is damaged');
    // A file stands where the folder should be.
    const file = join(folder, 'taken');
    await writeFile(file, '');
    await expectAsync(openDatabase(file, neverLost)).toBeRejectedWithError(FolderUnfitError);
  });

  it('is refused when a newer version wrote it', async () => {
    const first = await openDatabase(folder, neverLost);
    await first.db.execute(
      sql`INSERT INTO drizzle.__drizzle_migrations (hash, created_at) VALUES ('of-tomorrow', ${Date.now() + 86_400_000 * 365})`,
    );
    await first.close();
    await expectAsync(openDatabase(folder, neverLost)).toBeRejectedWithError(
      FolderUnfitError,
      /newer version of Voltrek/,
    );
    // The lock is given back, so that the newer version can have it.
    await (
      await lockFolder(folder, neverLost)
    )();
  });

  it('has every commit on the disk before it is answered', async () => {
    const trace = join(folder, 'trace');
    const recorder = new URL('./disk-recorder.js', import.meta.url).href;
    const { said } = await runScript(
      folder,
      `
      import { appendFileSync } from 'node:fs';
      const { db, close } = await openDatabase(DATA, (error) => { throw error; });
      const told = () => appendFileSync(${JSON.stringify(trace)}, JSON.stringify({ do: 'acknowledged' }) + '\\n');
      told();
      for (let i = 0; i < 3; i++) {
        await db.insert(facts).values({ key: 'fact-' + i, value: 'yes' });
        told();
      }
      await close();`,
      ['--import', recorder],
      { DISK_TRACE: trace, DISK_FOLDER: join(folder, 'data', 'pg') },
    );
    expect(said).toBe('');
    const calls = (await readFile(trace, 'utf8'))
      .trimEnd()
      .split('\n')
      .map((line) => JSON.parse(line) as DiskCall | { readonly do: 'acknowledged' });
    const open = new Map<number, string>();
    const between: string[][] = [];
    for (const call of calls) {
      if (call.do === 'open') open.set(call.fd, call.path);
      if (call.do === 'acknowledged') between.push([]);
      if (call.do === 'fsync') between.at(-1)?.push(open.get(call.fd)!);
    }
    expect(between.length).toBe(4);
    for (const synced of between.slice(0, 3))
      expect(synced.some((path) => path.startsWith('pg_wal/')))
        .withContext(synced.join())
        .toBeTrue();
  });

  it('acknowledges nothing any more once the disk refuses to keep what is written', async () => {
    const broken = join(folder, 'broken');
    const disk = join(folder, 'disk.mjs');
    await writeFile(
      disk,
      `
      import fs from 'node:fs';
      import { syncBuiltinESMExports } from 'node:module';
      import { isMainThread } from 'node:worker_threads';
      const real = fs.fsyncSync;
      if (!isMainThread) {
        fs.fsyncSync = (descriptor) => {
          if (fs.existsSync(${JSON.stringify(broken)})) throw new Error('EIO');
          real(descriptor);
        };
        syncBuiltinESMExports();
      }`,
    );
    const { said, code } = await runScript(
      folder,
      `
      import { writeFileSync } from 'node:fs';
      const { write } = await openDatabase(DATA, (error) => {
        console.log('lost: ' + error.message);
        process.exit(3);
      });
      const keep = (key) => write((tx) => tx.insert(facts).values({ key, value: 'yes' }));
      await keep('kept');
      console.log('kept');
      writeFileSync(${JSON.stringify(broken)}, '');
      // Alone, and with others that share its sync.
      await Promise.race([keep('unkept'), keep('with'), keep('others')]);
      console.log('acknowledged');`,
      ['--import', pathToFileURL(disk).href],
    );
    expect(code).toBe(3);
    expect(said).toContain('kept');
    expect(said).toContain('lost: EIO');
    expect(said).not.toContain('acknowledged');
  });

  it('is free at once after its holder was killed', async () => {
    const script = `
      const { lockFolder } = await import(${JSON.stringify(new URL('../src/db/embedded/lock.js', import.meta.url).href)});
      await lockFolder(${JSON.stringify(folder)}, () => {});
      console.log('held');
      setInterval(() => {}, 1000);`;
    const child = spawn(process.execPath, ['--input-type=module', '-e', script]);
    await once(child.stdout, 'data');
    child.kill('SIGKILL');
    await once(child, 'exit');
    const began = Date.now();
    const release = await lockFolder(folder, neverLost);
    // A lock whose holder is not known is waited out for five seconds.
    expect(Date.now() - began).toBeLessThan(4_000);
    await release();
    await expectAsync(stat(`${folder}.lock`)).toBeRejected();
  });
});
