import { createHash } from 'node:crypto';
import { createReadStream } from 'node:fs';
import { mkdir, readdir, readFile, rm, stat } from 'node:fs/promises';
import { join } from 'node:path';
import { pipeline } from 'node:stream/promises';
import { DAY_MS } from '@voltrek/core/quantities';
import type { Backup } from '@voltrek/contracts';

/** The newest are kept whatever their age, and beside them the newest of each week. */
const NEWEST_KEPT = 10;
const WEEKS_KEPT = 8;
const WEEK_MS = 7 * DAY_MS;

/** Returns the folder of the backups of a data folder. */
export const backupFolder = (folder: string): string => join(folder, 'backups');
export const backupFile = (folder: string, name: string): string => join(backupFolder(folder), name);
/** Returns the path of the note beside a backup. */
export const noteOf = (file: string): string => file.replace(/\.tgz$/, '.json');

/** A moment as a name of a file. */
export const stampOf = (at: Date): string => at.toISOString().replace(/[:.]/g, '-');

/** Every backup that was opened, checked and found good, newest first. */
export async function listBackups(folder: string): Promise<Backup[]> {
  await mkdir(backupFolder(folder), { recursive: true });
  const names = (await readdir(backupFolder(folder))).filter((name) => name.endsWith('.json'));
  const notes = await Promise.all(names.map((name) => readNote(join(backupFolder(folder), name))));
  const found = await Promise.all(
    notes
      .filter((note) => note !== null)
      .map(async (note) => {
        const bytes = await stat(backupFile(folder, note.name)).then(
          ({ size }) => size,
          () => null,
        );
        return bytes === note.bytes ? note : null;
      }),
  );
  return found.filter((note) => note !== null).sort((a, b) => b.at.localeCompare(a.at));
}

async function readNote(path: string): Promise<Backup | null> {
  try {
    return JSON.parse(await readFile(path, 'utf8')) as Backup;
  } catch {
    // Torn while it was written: then its backup was not finished either.
    return null;
  }
}

/** Returns the backups that are kept: the newest, and of the weeks before the newest of each. */
export function keptOf(backups: readonly Backup[], now: Date): Backup[] {
  const newestFirst = [...backups].sort((a, b) => b.at.localeCompare(a.at));
  const weekOf = ({ at }: Backup): number => Math.floor((now.getTime() - Date.parse(at)) / WEEK_MS);
  return newestFirst.filter((backup, i) => {
    if (i < NEWEST_KEPT) return true;
    const week = weekOf(backup);
    return week < WEEKS_KEPT && newestFirst.findIndex((other) => weekOf(other) === week) === i;
  });
}

/** Takes away what is kept no longer, and what a backup that was cut short has left. */
export async function prune(folder: string, now: Date): Promise<void> {
  const all = await listBackups(folder);
  const kept = new Set(keptOf(all, now).map(({ name }) => name));
  const gone = all.flatMap(({ name }) => (kept.has(name) ? [] : [name, noteOf(name)]));
  // Somebody put every other file there.
  const leftOver = (await readdir(backupFolder(folder)))
    .filter((name) => CUT_SHORT.test(name))
    .flatMap((name) => [name, name.replace(/json\.partial$/, 'tgz')]);
  for (const name of [...gone, ...leftOver])
    await rm(backupFile(folder, name), { recursive: true, force: true });
}
/** Files of a backup that was cut short: named by its moment, and not finished. */
const CUT_SHORT = /^\d{4}-\d\d-\d\dT\d\d-\d\d-\d\d-\d{3}Z\.(tgz\.copy|tgz\.partial|json\.partial)$/;

/** SHA-256 of a file, as hexadecimal text. */
export async function hashOf(path: string): Promise<string> {
  const hash = createHash('sha256');
  await pipeline(createReadStream(path), hash);
  return hash.digest('hex');
}
