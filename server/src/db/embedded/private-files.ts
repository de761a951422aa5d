import { chmod, lstat, readdir } from 'node:fs/promises';
import { join } from 'node:path';

/** Makes every file written from now on this user's alone: a house holds PIN hashes, sessions and telephone numbers. */
export function writePrivately(): void {
  process.umask(0o077);
}

const FOLDER_MODE = 0o700;
const FILE_MODE = 0o600;

/** Makes a folder, and all that lies in it from before, readable by this user alone. Links are left as they are. */
export async function keepPrivate(folder: string): Promise<void> {
  await chmod(folder, FOLDER_MODE);
  for (const entry of await readdir(folder, { withFileTypes: true, recursive: true })) {
    const path = join(entry.parentPath, entry.name);
    if (entry.isSymbolicLink()) continue;
    // A file that another process takes away meanwhile needs no mode.
    const { mode } = await lstat(path).catch(() => ({ mode: null }));
    const wanted = entry.isDirectory() ? FOLDER_MODE : FILE_MODE;
    if (mode !== null && (mode & 0o777) !== wanted) await chmod(path, wanted).catch(() => undefined);
  }
}
