import { existsSync } from 'node:fs';
import { readdir, readFile, statfs } from 'node:fs/promises';
import { join } from 'node:path';
import { backupFile, listBackups } from '../../backup/catalogue.js';
import { FolderHeldError } from './lock.js';

/** Major version of PostgreSQL whose files the embedded database writes. */
const POSTGRES_MAJOR = '18';

/** A data folder that this program must not touch; the message says why and what to do. */
export class FolderUnfitError extends Error {
  constructor(message: string) {
    super(`${message} Nothing was changed.`);
    this.name = 'FolderUnfitError';
  }
}

/** Advice for a folder that cannot be opened: the last good backup by its name, where there is one. */
async function wayOn(folder: string): Promise<string> {
  const [newest] = await listBackups(folder).catch(() => []);
  return newest
    ? `Its last good backup is of ${newest.at}. Put it back with: npm run restore -- ${backupFile(folder, newest.name)}`
    : 'Put it back from a backup, or move the folder away to start with an empty one.';
}

/** The words for a disk that refuses to be written. */
const DISK_WORDS: Readonly<Record<string, string>> = {
  EACCES: 'this user may not write there',
  EPERM: 'this user may not write there',
  EROFS: 'its disk is read-only',
  ENOSPC: 'its disk is full',
  EDQUOT: 'the room that this user has on the disk is used up',
};

/**
 * Turns the error that kept a data folder from being opened into one that can be acted on; an error that says so already stays as it is.
 *
 * @param roomOf tells the free bytes of the disk of a folder
 */
export async function unfit(folder: string, error: unknown, roomOf = freeBytes): Promise<Error> {
  if (error instanceof FolderUnfitError || error instanceof FolderHeldError) return error;
  // A database that finds no room says many things; the disk says only one.
  const named = error instanceof Error && 'code' in error ? String(error.code) : '';
  const code = DISK_WORDS[named] || (await roomOf(folder)) >= ROOM_BYTES ? named : 'ENOSPC';
  const disk = DISK_WORDS[code];
  if (disk) return new FolderUnfitError(`The data folder ${folder} cannot be written: ${disk}.`);
  const why = error instanceof Error ? error.message.split('\n')[0] : String(error);
  return new FolderUnfitError(
    `The data folder ${folder} cannot be opened: its database is damaged (${why}). ${await wayOn(folder)}`,
  );
}

/** A database needs about this much to open: its log grows by pieces of 16 MB. */
const ROOM_BYTES = 20 * 1024 * 1024;

/** Free bytes of the disk of a folder; where nobody tells, enough. */
async function freeBytes(folder: string): Promise<number> {
  try {
    const { bavail, bsize } = await statfs(folder);
    return bavail * bsize;
  } catch {
    return Infinity;
  }
}

/**
 * Whether a data folder holds a database already. Only a folder with no data at all may be filled: whatever looks like data, whole or
 * not, is somebody's record.
 *
 * @returns false where an empty database may be put
 * @throws FolderUnfitError for data without its version mark, or with that of another PostgreSQL
 */
export async function holdsDatabase(folder: string): Promise<boolean> {
  const pgFolder = join(folder, 'pg');
  if (!existsSync(pgFolder) || (await readdir(pgFolder)).length === 0) return false;
  const mark = await readFile(join(pgFolder, 'PG_VERSION'), 'utf8').catch(() => null);
  if (mark === null)
    throw new FolderUnfitError(
      `The data folder ${folder} is damaged: ${join(pgFolder, 'PG_VERSION')} is missing. ${await wayOn(folder)}`,
    );
  if (mark.trim() !== POSTGRES_MAJOR)
    throw new FolderUnfitError(
      `The data folder ${folder} was written by PostgreSQL ${mark.trim()}; this program reads PostgreSQL ${POSTGRES_MAJOR}.`,
    );
  return true;
}

/** Whether a newer program has changed a database in ways that this one does not know. */
export const isNewer = (applied: readonly number[], known: readonly number[]): boolean =>
  applied.some((when) => when > Math.max(...known));

/** @throws FolderUnfitError when a newer program has changed the database in ways that this one does not know */
export function refuseNewer(folder: string, applied: readonly number[], known: readonly number[]): void {
  if (isNewer(applied, known))
    throw new FolderUnfitError(
      `The data folder ${folder} was written by a newer version of Voltrek. Start that version, or move the folder away to start with an empty one.`,
    );
}
