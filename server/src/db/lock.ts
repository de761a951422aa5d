import { readFile, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import lockfile from 'proper-lockfile';

/** A lock not renewed for this long belongs to a process that is gone. */
const STALE_MS = 5_000;
const RENEW_MS = 1_000;
const RETRY_MS = 250;

/** The data folder is in use. */
export class FolderHeldError extends Error {
  constructor(folder: string, pid: number | null) {
    super(
      `The data folder ${folder} is held by another Voltrek server${pid === null ? '' : ` (process ${pid})`}. ` +
        'Two servers on one folder lose data, so this one stops.',
    );
    this.name = 'FolderHeldError';
  }
}

/**
 * Takes the data folder for this process alone. A lock left by a process that was killed is waited out, a few seconds at most.
 *
 * @param onLost called when the lock is taken away while held, after which nothing more may be written
 * @returns a function that gives the folder back
 * @throws FolderHeldError when a living process holds it
 */
export async function lockFolder(
  folder: string,
  onLost: (error: Error) => void,
): Promise<() => Promise<void>> {
  const ownerFile = join(folder, 'owner.pid');
  const deadline = Date.now() + 2 * STALE_MS;
  for (;;) {
    try {
      const release = await lockfile.lock(folder, {
        stale: STALE_MS,
        update: RENEW_MS,
        onCompromised: onLost,
      });
      await writeFile(ownerFile, String(process.pid));
      return release;
    } catch (error) {
      if (!(error instanceof Error && 'code' in error && error.code === 'ELOCKED')) throw error;
      const pid = await ownerOf(ownerFile);
      if ((pid !== null && isAlive(pid)) || Date.now() > deadline) throw new FolderHeldError(folder, pid);
      await pause(RETRY_MS);
    }
  }
}

async function ownerOf(file: string): Promise<number | null> {
  const text = await readFile(file, 'utf8').catch(() => '');
  return /^\d+$/.test(text) ? Number(text) : null;
}

function isAlive(pid: number): boolean {
  try {
    process.kill(pid, 0);
    return true;
  } catch (error) {
    // EPERM: it lives, but belongs to somebody else.
    return error instanceof Error && 'code' in error && error.code === 'EPERM';
  }
}
