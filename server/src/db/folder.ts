import { existsSync } from 'node:fs';
import { readdir, readFile } from 'node:fs/promises';
import { join } from 'node:path';

/** Major version of PostgreSQL whose files the embedded database writes. */
const POSTGRES_MAJOR = '18';

/** A data folder that this program must not touch; the message says why and what to do. */
export class FolderUnfitError extends Error {
  constructor(message: string) {
    super(`${message} Nothing was changed.`);
    this.name = 'FolderUnfitError';
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
      `The data folder ${folder} is damaged: ${join(pgFolder, 'PG_VERSION')} is missing. ` +
        'Put it back from a backup, or move the folder away to start with an empty one.',
    );
  if (mark.trim() !== POSTGRES_MAJOR)
    throw new FolderUnfitError(
      `The data folder ${folder} was written by PostgreSQL ${mark.trim()}; this program reads PostgreSQL ${POSTGRES_MAJOR}.`,
    );
  return true;
}

/** @throws FolderUnfitError when a newer program has changed the database in ways that this one does not know */
export function refuseNewer(folder: string, applied: readonly number[], known: readonly number[]): void {
  const newest = Math.max(...known);
  if (applied.some((when) => when > newest))
    throw new FolderUnfitError(
      `The data folder ${folder} was written by a newer version of Voltrek. Start that version, or move the folder away to start with an empty one.`,
    );
}
