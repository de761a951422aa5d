import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { mkdtemp, rm, stat, utimes } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { eq } from 'drizzle-orm';
import { openDatabase } from '../src/db/database.js';
import { FolderHeldError, lockFolder } from '../src/db/lock.js';
import { facts } from '../src/db/schema.js';
import { loadDemo } from '../src/demo/load.js';

const neverLost = (error: Error): void => fail(error);

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
    await first.flush();
    await first.close();
    const second = await openDatabase(folder, neverLost);
    await loadDemo(second, new Date(), false);
    const [kept] = await second.db.select().from(facts).where(eq(facts.key, 'kept'));
    const [filled] = await second.db.select().from(facts).where(eq(facts.key, 'filled'));
    expect(kept?.value).toBe('yes');
    expect(filled?.value).toBe('empty');
    await second.close();
  }, 60_000);

  it('is refused to a second holder, with the process that holds it', async () => {
    const release = await lockFolder(folder, neverLost);
    const attempt = lockFolder(folder, neverLost);
    await expectAsync(attempt).toBeRejectedWithError(FolderHeldError, new RegExp(`process ${process.pid}`));
    await release();
    await (
      await lockFolder(folder, neverLost)
    )();
  });

  it('is free again soon after its holder was killed', async () => {
    const script = `
      const { lockFolder } = await import(${JSON.stringify(new URL('../src/db/lock.js', import.meta.url).href)});
      await lockFolder(${JSON.stringify(folder)}, () => {});
      console.log('held');
      setInterval(() => {}, 1000);`;
    const child = spawn(process.execPath, ['--input-type=module', '-e', script]);
    await once(child.stdout, 'data');
    child.kill('SIGKILL');
    await once(child, 'exit');
    const old = new Date(Date.now() - 60_000);
    await utimes(`${folder}.lock`, old, old);
    const release = await lockFolder(folder, neverLost);
    await release();
    await expectAsync(stat(`${folder}.lock`)).toBeRejected();
  }, 30_000);
});
