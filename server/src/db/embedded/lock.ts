import { readFileSync } from 'node:fs';
import { readFile, rename, rm, stat, writeFile } from 'node:fs/promises';
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

/** The holder of a folder: a process, and when it began, since numbers of processes are given again. */
interface Owner {
  readonly pid: number;
  /** Clock ticks since the machine started; null where the system does not tell. */
  readonly began: string | null;
}

/**
 * Takes the data folder for this process alone. The lock of a process that was killed is taken over at once; one whose owner is not
 * known is waited out, a few seconds at most.
 *
 * @param onLost called when the lock is taken away while held, after which nothing more may be written
 * @returns a function that gives the folder back
 * @throws FolderHeldError when a living process holds it
 */
export async function lockFolder(
  folder: string,
  onLost: (error: Error) => void,
): Promise<() => Promise<void>> {
  const ownerFile = join(folder, 'owner.json');
  const deadline = Date.now() + 2 * STALE_MS;
  for (;;) {
    try {
      const release = await lockfile.lock(folder, {
        stale: STALE_MS,
        update: RENEW_MS,
        onCompromised: onLost,
      });
      await writeFile(
        ownerFile,
        JSON.stringify({ pid: process.pid, began: beganAt(process.pid) } satisfies Owner),
      );
      return release;
    } catch (error) {
      if (!(error instanceof Error && 'code' in error && error.code === 'ELOCKED')) throw error;
      const seen = await lockMark(folder);
      const owner = await ownerOf(ownerFile);
      if (owner && isAlive(owner)) throw new FolderHeldError(folder, owner.pid);
      if (owner && seen !== null && (await breakLock(folder, seen))) continue;
      if (Date.now() > deadline) throw new FolderHeldError(folder, owner?.pid ?? null);
      await pause(RETRY_MS);
    }
  }
}

const lockOf = (folder: string): string => `${folder}.lock`;

/** Tells one lock from another on the same folder. */
async function lockMark(folder: string): Promise<number | null> {
  return stat(lockOf(folder)).then(
    ({ ino }) => ino,
    () => null,
  );
}

/** Takes a dead owner's lock away. Renamed first, so that of two that try only one does, and a lock taken meanwhile is put back. */
async function breakLock(folder: string, seen: number): Promise<boolean> {
  const aside = `${lockOf(folder)}.${process.pid}`;
  try {
    await rename(lockOf(folder), aside);
  } catch {
    return false;
  }
  const { ino } = await stat(aside);
  if (ino !== seen) {
    await rename(aside, lockOf(folder));
    return false;
  }
  await rm(aside, { recursive: true });
  return true;
}

async function ownerOf(file: string): Promise<Owner | null> {
  try {
    const { pid, began } = JSON.parse(await readFile(file, 'utf8')) as Partial<Owner>;
    return typeof pid === 'number' ? { pid, began: began ?? null } : null;
  } catch {
    return null;
  }
}

function isAlive({ pid, began }: Owner): boolean {
  const now = beganAt(pid);
  if (began !== null && now !== null) return began === now;
  try {
    process.kill(pid, 0);
    return true;
  } catch (error) {
    // EPERM: it lives, but belongs to somebody else.
    return error instanceof Error && 'code' in error && error.code === 'EPERM';
  }
}

/** When a process began, as Linux tells it: the 22nd field of its stat, counted behind the name, which may hold blanks. */
function beganAt(pid: number): string | null {
  try {
    const text = readFileSync(`/proc/${pid}/stat`, 'utf8');
    return text.slice(text.lastIndexOf(')') + 2).split(' ')[19] ?? null;
  } catch {
    return null;
  }
}
