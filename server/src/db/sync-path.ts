import { open } from 'node:fs/promises';

/** Puts a file, or the names in a folder, on the disk. */
export async function syncPath(path: string): Promise<void> {
  const handle = await open(path, 'r');
  try {
    await handle.sync();
  } finally {
    await handle.close();
  }
}
