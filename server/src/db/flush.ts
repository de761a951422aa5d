import { open, readdir, stat } from 'node:fs/promises';
import { join } from 'node:path';

/**
 * The embedded database runs with fsync off. This flushes what it has written of its write-ahead log to the disk itself, so that an
 * acknowledged write survives a power cut.
 *
 * @returns a function to call after a commit and before the acknowledgement
 */
export function walFlusher(pgFolder: string): () => Promise<void> {
  const walFolder = join(pgFolder, 'pg_wal');
  const flushedAt = new Map<string, number>();
  return async () => {
    const segments = (await readdir(walFolder)).filter((name) => /^[0-9A-F]{24}$/.test(name));
    let isNew = false;
    for (const name of segments) {
      const path = join(walFolder, name);
      const { mtimeMs } = await stat(path);
      const before = flushedAt.get(name);
      if (before === mtimeMs) continue;
      isNew ||= before === undefined;
      await syncToDisk(path);
      flushedAt.set(name, mtimeMs);
    }
    if (isNew) await syncToDisk(walFolder);
  };
}

async function syncToDisk(path: string): Promise<void> {
  const handle = await open(path, 'r');
  try {
    await handle.sync();
  } finally {
    await handle.close();
  }
}
