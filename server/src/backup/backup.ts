import { execFile } from 'node:child_process';
import { constants } from 'node:fs';
import { cp, mkdir, rename, rm, stat, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { promisify } from 'node:util';
import type { Backup, BackupReason } from '@voltrek/contracts';
import { syncPath } from '../db/sync-path.js';
import { backupFile, backupFolder, hashOf, noteOf, prune, stampOf } from './catalogue.js';
import type { Content } from './pack.js';

const PACK = fileURLToPath(new URL('./pack-main.js', import.meta.url));
const run = promisify(execFile);

/**
 * Backs a data folder up: its files are copied while nothing writes, then packed, opened and checked by a process of its own. What does not
 * come through whole never counts as a backup.
 *
 * @param still runs something while nothing writes to the database
 * @throws Error saying what failed; nothing of it is left
 */
export async function backUp(
  folder: string,
  still: <T>(work: () => Promise<T>) => Promise<T>,
  reason: BackupReason,
  now: Date,
): Promise<Backup> {
  const name = `${stampOf(now)}.tgz`;
  const copy = join(backupFolder(folder), `${name}.copy`);
  const partial = join(backupFolder(folder), `${name}.partial`);
  await mkdir(backupFolder(folder), { recursive: true });
  try {
    await still(() => cp(join(folder, 'pg'), copy, { recursive: true, mode: constants.COPYFILE_FICLONE }));
    const { stdout } = await run(process.execPath, [PACK, copy, partial], { maxBuffer: 1024 * 1024 });
    const content = JSON.parse(stdout) as Content;
    const { size: bytes } = await stat(partial);
    const note: Backup = {
      name,
      at: now.toISOString(),
      reason,
      bytes,
      sha256: await hashOf(partial),
      jobs: content.jobs,
      events: content.events,
      broken: content.broken,
      checkedAt: new Date().toISOString(),
    };
    const file = backupFile(folder, name);
    // The note has its name last: a backup beside an unfinished note was cut short.
    await writeFile(`${noteOf(file)}.partial`, JSON.stringify(note, null, 2), { flush: true });
    await rename(partial, file);
    await rename(`${noteOf(file)}.partial`, noteOf(file));
    await syncPath(backupFolder(folder));
    return note;
  } finally {
    await rm(copy, { recursive: true, force: true });
    await prune(folder, now);
  }
}
