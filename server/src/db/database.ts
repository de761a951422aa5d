import { existsSync } from 'node:fs';
import { mkdir, readFile, rename, rm } from 'node:fs/promises';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { PGlite } from '@electric-sql/pglite';
import { pg_trgm } from '@electric-sql/pglite/contrib/pg_trgm';
import { drizzle, type PgliteDatabase } from 'drizzle-orm/pglite';
import { migrate } from 'drizzle-orm/pglite/migrator';
import { walFlusher } from './flush.js';
import { lockFolder } from './lock.js';
import * as schema from './schema.js';

export type Db = PgliteDatabase<typeof schema>;
/** The same calls inside a transaction. */
export type Tx = Parameters<Parameters<Db['transaction']>[0]>[0];

export interface Database {
  readonly db: Db;
  /** Call after a commit and before acknowledging it. */
  readonly flush: () => Promise<void>;
  readonly close: () => Promise<void>;
}

export const MIGRATIONS = fileURLToPath(new URL('../../../drizzle', import.meta.url));
/** An empty, migrated database, packed at build time: unpacking it is several times quicker than creating one. */
export const SNAPSHOT = fileURLToPath(new URL('../../empty-database.tgz', import.meta.url));
const EXTENSIONS = { pg_trgm };
/** Likeness of a typed word to the nearest words of a text, 0 to 1, from which a search takes it as meant: two letters
 * swapped in a word of six still leave 0.43. */
const LIKENESS = 0.36;

/** A database in memory (`snapshot` given: filled from it), migrated. */
export async function openInMemory(snapshot?: string): Promise<{ db: Db; client: PGlite }> {
  const client = await PGlite.create({
    extensions: EXTENSIONS,
    ...(snapshot && { loadDataDir: await readBlob(snapshot) }),
  });
  return { db: await ready(client), client };
}

/**
 * Opens the database in a data folder, creating it from the snapshot on the first start and migrating it when it is older.
 *
 * @param onLost called when another process takes the folder away
 * @throws FolderHeldError when another server holds the folder
 */
export async function openDatabase(folder: string, onLost: (error: Error) => void): Promise<Database> {
  await mkdir(folder, { recursive: true });
  const release = await lockFolder(folder, onLost);
  try {
    const pgFolder = join(folder, 'pg');
    if (!existsSync(join(pgFolder, 'PG_VERSION'))) await unpackSnapshot(folder, pgFolder);
    const client = await PGlite.create({ dataDir: pgFolder, extensions: EXTENSIONS });
    const db = await ready(client);
    const flush = walFlusher(pgFolder);
    await flush();
    return {
      db,
      flush,
      close: async () => {
        await client.close();
        await release();
      },
    };
  } catch (error) {
    await release();
    throw error;
  }
}

/** Migrated to what this version expects, and set up for its searches. */
async function ready(client: PGlite): Promise<Db> {
  const db = drizzle(client, { schema });
  await migrate(db, { migrationsFolder: MIGRATIONS });
  await db.execute(`SET pg_trgm.word_similarity_threshold = ${LIKENESS}`);
  return db;
}

/** Unpacks beside the final place and renames, so that a first start that is cut short leaves nothing half made. */
async function unpackSnapshot(folder: string, pgFolder: string): Promise<void> {
  const partial = join(folder, 'pg.partial');
  await rm(partial, { recursive: true, force: true });
  const client = await PGlite.create({
    dataDir: partial,
    extensions: EXTENSIONS,
    loadDataDir: await readBlob(SNAPSHOT),
  });
  await client.close();
  await rm(pgFolder, { recursive: true, force: true });
  await rename(partial, pgFolder);
}

async function readBlob(path: string): Promise<Blob> {
  return new Blob([await readFile(path)]);
}
