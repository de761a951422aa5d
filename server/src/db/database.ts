import { mkdir, readdir, readFile, rename, rm } from 'node:fs/promises';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { PGlite } from '@electric-sql/pglite';
import { drizzle } from 'drizzle-orm/node-postgres';
import { migrate } from 'drizzle-orm/node-postgres/migrator';
import pg from 'pg';
import { backUp } from '../backup/backup.js';
import { Bridge, type Exchange } from './bridge.js';
import { keepCheckpoints } from './embedded/checkpoints.js';
import { groupedWrites, type Write } from './commits.js';
import { EXTENSIONS, exchangeOf, openEmbedded } from './embedded/embedded.js';
import { FolderUnfitError, holdsDatabase, refuseNewer, unfit } from './embedded/folder.js';
import { lockFolder } from './embedded/lock.js';
import { keepPrivate, writePrivately } from './embedded/private-files.js';
import * as schema from './schema.js';
import { prepareRepeated } from './prepared.js';
import { syncPath } from './sync-path.js';
import type { Db, Tx } from './types.js';

export type { Db, Tx };

/** Messages between servers on one database. */
export interface Others {
  /** @param text of some hundred characters */
  readonly tell: (text: string) => void;
  /** @param receive called with each message, by this server too; null: something may have been missed */
  readonly listen: (hear: (text: string | null) => void) => Promise<void>;
}

export interface Database {
  readonly db: Db;
  readonly write: Write;
  /** Writes of different jobs that it works on at the same time. */
  readonly writesAtOnce: number;
  /** Other servers on the same database; null where there can be none. */
  readonly others: Others | null;
  readonly close: () => Promise<void>;
  /** Runs something while nothing is written, and nothing else is answered. */
  readonly still: <T>(work: () => Promise<T>) => Promise<T>;
}

export const MIGRATIONS = fileURLToPath(new URL('../../../drizzle', import.meta.url));
/** An empty, migrated database, packed at build time: unpacking it is several times quicker than creating one. */
export const SNAPSHOT = fileURLToPath(new URL('../../empty-database.tgz', import.meta.url));
/** Likeness of a typed word to the nearest words of a text, 0 to 1. From here a search counts it as meant: two letters
 * swapped in a word of six still leave 0.43. */
export const LIKENESS = 0.36;

/** The one session of an embedded database, as a driver's pool of one connection. */
function sessionOf(exchange: Exchange): pg.Pool {
  const pool = new pg.Pool({
    ...{ user: 'postgres', database: 'postgres', max: 1, idleTimeoutMillis: 0 },
    stream: () => new Bridge(exchange) as never,
  });
  pool.on('connect', prepareRepeated);
  return pool;
}

const stillOn =
  (pool: pg.Pool): Database['still'] =>
  async (work) => {
    const session = await pool.connect();
    try {
      return await work();
    } finally {
      session.release();
    }
  };

/** A database in memory (`snapshot` given: filled from it), migrated, with what lies under it. */
export async function openInMemory(snapshot?: string): Promise<Database & { readonly client: PGlite }> {
  const client = await PGlite.create({
    extensions: EXTENSIONS,
    ...(snapshot && { loadDataDir: await readBlob(snapshot) }),
  });
  const pool = sessionOf(exchangeOf(client));
  const db = await ready(pool);
  return {
    ...{ db, client, still: stillOn(pool), others: null, writesAtOnce: 1 },
    write: groupedWrites(db, () => undefined),
    close: async () => {
      await pool.end();
      await client.close();
    },
  };
}

/**
 * Opens the database in a data folder. The first start creates it from the snapshot, and each start migrates it.
 *
 * A write that is answered is on the disk.
 *
 * @param onLost called when another process takes the folder away, or the disk refuses to keep what is written: nothing may be
 *   acknowledged after that
 * @throws FolderHeldError when another server holds the folder
 * @throws FolderUnfitError for a folder that is damaged, cannot be written, or was written by a newer version; it is left as it is
 */
export async function openDatabase(folder: string, onLost: (error: Error) => void): Promise<Database> {
  writePrivately();
  const release = await mkdir(folder, { recursive: true })
    .then(() => keepPrivate(folder))
    .then(() => lockFolder(folder, onLost))
    .catch(async (error: unknown) => {
      throw await unfit(folder, error);
    });
  try {
    const pgFolder = join(folder, 'pg');
    if (!(await holdsDatabase(folder))) await unpack(folder, pgFolder, SNAPSHOT);
    const embedded = await openEmbedded(pgFolder, onLost);
    const pool = sessionOf(embedded.exchange);
    const close = async (): Promise<void> => {
      await pool.end();
      await embedded.close();
    };
    try {
      const still = stillOn(pool);
      await prepareToMigrate(folder, pool, still);
      const db = await ready(pool);
      const endCheckpoints = keepCheckpoints(pool);
      return {
        ...{ db, still, others: null, writesAtOnce: 1 },
        write: groupedWrites(db, onLost),
        close: async () => {
          await endCheckpoints();
          await close();
          await release();
        },
      };
    } catch (error) {
      await close();
      throw error;
    }
  } catch (error) {
    await release();
    throw await unfit(folder, error);
  }
}

/**
 * A folder that must be brought to this version is backed up first.
 *
 * @throws FolderUnfitError for one of a newer version, or one that could not be backed up
 */
async function prepareToMigrate(folder: string, pool: pg.Pool, still: Database['still']): Promise<void> {
  const applied = await appliedMigrations(pool);
  const known = await knownMigrations();
  refuseNewer(folder, applied, known);
  const isBehind = applied.length > 0 && known.some((when) => !applied.includes(when));
  if (!isBehind) return;
  try {
    await backUp(folder, still, 'before-migration', new Date());
  } catch (error) {
    throw new FolderUnfitError(
      `The data folder ${folder} must be brought to this version, and could not be backed up before: ${String(error)}. Make room on its disk, then start again.`,
    );
  }
}

/** When each migration was written that the database has been through; none for a new one. */
export async function appliedMigrations(pool: pg.Pool): Promise<number[]> {
  const { rows } = await pool.query<{ known: string | null }>(
    "SELECT to_regclass('drizzle.__drizzle_migrations')::text AS known",
  );
  if (!rows[0]?.known) return [];
  const applied = await pool.query<{ created_at: string }>(
    'SELECT created_at FROM drizzle.__drizzle_migrations',
  );
  return applied.rows.map(({ created_at }) => Number(created_at));
}

export async function knownMigrations(): Promise<number[]> {
  const journal = JSON.parse(await readFile(join(MIGRATIONS, 'meta', '_journal.json'), 'utf8')) as {
    readonly entries: readonly { readonly when: number }[];
  };
  return journal.entries.map(({ when }) => when);
}

/** Migrated to what this version expects. */
async function ready(pool: pg.Pool): Promise<Db> {
  const db = drizzle(pool, { schema });
  await migrate(db, { migrationsFolder: MIGRATIONS });
  // It holds for the session, which outlives the driver's connections.
  await db.execute(`SET pg_trgm.word_similarity_threshold = ${LIKENESS}`);
  return db;
}

/** Unpacks a database beside its final place and renames it. A start that is cut short leaves nothing half made. */
export async function unpack(folder: string, pgFolder: string, file: string): Promise<void> {
  const partial = join(folder, 'pg.partial');
  await rm(partial, { recursive: true, force: true });
  const client = await PGlite.create({
    dataDir: partial,
    extensions: EXTENSIONS,
    loadDataDir: await readBlob(file),
  });
  await client.close();
  await rm(pgFolder, { recursive: true, force: true });
  await syncTree(partial);
  await rename(partial, pgFolder);
  await syncPath(folder);
}

/** Puts a folder and all in it on the disk: it was unpacked without syncs. */
async function syncTree(folder: string): Promise<void> {
  for (const entry of await readdir(folder, { withFileTypes: true, recursive: true }))
    await syncPath(join(entry.parentPath, entry.name));
  await syncPath(folder);
}

async function readBlob(path: string): Promise<Blob> {
  return new Blob([await readFile(path)]);
}
