import { existsSync } from 'node:fs';
import { mkdir, readFile, rename } from 'node:fs/promises';
import { basename, join, resolve } from 'node:path';
import type { Backup } from '@voltrek/contracts';
import { openDatabase, unpack } from '../db/database.js';
import { lockFolder } from '../db/embedded/lock.js';
import { hashOf, noteOf, stampOf } from './catalogue.js';
import { type Content, contentOfFile } from './pack.js';

/** A backup that cannot be put back; the message says why. Nothing was changed. */
export class RestoreError extends Error {}

export interface Restored extends Content {
  /** The new place of the data that stood there before; null where there was none. */
  readonly before: string | null;
}

/**
 * Puts a backup in the place of the data of a folder. It is opened and its logs folded first; what stood there is set aside, never written over.
 *
 * @throws RestoreError, FolderHeldError while a server runs on the folder
 */
export async function restore(folder: string, file: string, now: Date): Promise<Restored> {
  const path = resolve(file);
  if (!existsSync(path)) throw new RestoreError(`There is no file ${path}.`);
  await requireWhole(path);
  const content = await contentOfFile(path).catch((error: unknown) => {
    throw new RestoreError(
      `${path} is no backup that can be opened (${String(error)}). Nothing was changed.`,
    );
  });
  await mkdir(folder, { recursive: true });
  const release = await lockFolder(folder, () => undefined);
  let before: string | null = null;
  try {
    const pg = join(folder, 'pg');
    if (existsSync(pg)) {
      before = join(folder, `pg.before-${stampOf(now)}`);
      await rename(pg, before);
    }
    try {
      await unpack(folder, pg, path);
    } catch (error) {
      if (before) await rename(before, pg);
      throw error;
    }
  } finally {
    await release();
  }
  // Opened as a server opens it: brought to this version, and able to be read.
  const database = await openDatabase(folder, () => undefined);
  await database.close();
  return { ...content, before };
}

/** The file must be what was written; one from elsewhere has no note to hold it against. */
async function requireWhole(path: string): Promise<void> {
  const note = await readFile(noteOf(path), 'utf8').then(
    (text) => JSON.parse(text) as Backup,
    () => null,
  );
  if (note && note.sha256 !== (await hashOf(path)))
    throw new RestoreError(
      `${basename(path)} is damaged: it is not what was written. Take another backup. Nothing was changed.`,
    );
}
