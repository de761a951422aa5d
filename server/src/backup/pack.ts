import { readFile, writeFile } from 'node:fs/promises';
import { PGlite } from '@electric-sql/pglite';
import { foldJob, type StoredEvent, upgradeLog } from '@voltrek/core/job';
import { EXTENSIONS } from '../db/embedded/embedded.js';

/** The content of a database by its logs: a backup of it must hold as much. */
export interface Content {
  readonly jobs: number;
  readonly events: number;
  /** Jobs whose log cannot be folded. */
  readonly broken: number;
}

const JOBS_AT_ONCE = 100;

/** Folds every log of a database, whatever version wrote it. */
async function contentOf(client: PGlite): Promise<Content> {
  const { rows: known } = await client.query<{ there: string | null }>(
    `SELECT to_regclass('job_events')::text AS there`,
  );
  if (!known[0]?.there) return { jobs: 0, events: 0, broken: 0 };
  const { rows } = await client.query<{ id: string }>('SELECT id FROM jobs ORDER BY id');
  let events = 0;
  let broken = 0;
  for (let from = 0; from < rows.length; from += JOBS_AT_ONCE) {
    const ids = rows.slice(from, from + JOBS_AT_ONCE).map(({ id }) => id);
    const logs = await client.query<{ job_id: string; event: StoredEvent }>(
      `SELECT job_id, jsonb_build_object('id', id, 'jobId', job_id, 'at', at, 'by', by, 'type', type, 'data', data) AS event
         FROM job_events WHERE job_id = ANY($1) ORDER BY job_id, position`,
      [ids],
    );
    events += logs.rows.length;
    for (const id of ids) {
      const log = logs.rows.filter((row) => row.job_id === id).map(({ event }) => event);
      if (!folds(log)) broken++;
    }
  }
  return { jobs: rows.length, events, broken };
}

function folds(log: readonly StoredEvent[]): boolean {
  try {
    return foldJob(upgradeLog(log)) !== null;
  } catch {
    return false;
  }
}

/**
 * Packs a copy of a database's files into one file, opens that file in memory, and folds its logs: it counts as good when it has all that the
 * copy has. A process of its own does it, so that nobody waits for it.
 *
 * @param copy folder that holds the copy; it is opened, and used up
 * @param file to be written, and on the disk when this ends
 * @throws Error when what was packed does not come to the same
 */
export async function packAndCheck(copy: string, file: string): Promise<Content> {
  const source = await PGlite.create({ dataDir: copy, extensions: EXTENSIONS });
  const before = await contentOf(source);
  const packed = await source.dumpDataDir('gzip');
  await source.close();
  await writeFile(file, new Uint8Array(await packed.arrayBuffer()), { flush: true });
  const after = await contentOfFile(file);
  if (after.jobs !== before.jobs || after.events !== before.events || after.broken !== before.broken)
    throw new Error(
      `The backup holds ${after.events} events of ${after.jobs} jobs, the database ${before.events} of ${before.jobs}.`,
    );
  return after;
}

/** Opens a backup in memory and returns its content. */
export async function contentOfFile(file: string): Promise<Content> {
  const client = await PGlite.create({
    extensions: EXTENSIONS,
    loadDataDir: new Blob([await readFile(file)]),
  });
  try {
    return await contentOf(client);
  } finally {
    await client.close();
  }
}
