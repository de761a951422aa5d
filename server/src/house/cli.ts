import { resolve } from 'node:path';
import { backUp } from '../backup/backup.js';
import { backupFile } from '../backup/catalogue.js';
import { restore, RestoreError } from '../backup/restore.js';
import { openDatabase } from '../db/database.js';
import { FolderUnfitError } from '../db/folder.js';
import { FolderHeldError } from '../db/lock.js';
import { rebuild } from '../jobs/rebuild.js';
import { exportHouse, HouseFileError, importHouse } from './house-file.js';

/** What is done to a data folder while no server runs on it: `export FILE`, `import FILE`, `rebuild`, `backup`, `restore FILE`. */
const [verb, file] = process.argv.slice(2);
const VERBS = ['export', 'import', 'rebuild', 'backup', 'restore'] as const;
const NEED_FILE = ['export', 'import', 'restore'];

function fail(message: string): never {
  process.stderr.write(`${message}\n`);
  process.exit(1);
}

function told(counts: Readonly<Record<string, number>>): string {
  return Object.entries(counts)
    .filter(([, count]) => count > 0)
    .map(([name, count]) => `${count} ${name.replace('_', ' ')}`)
    .join(', ');
}

async function main(): Promise<void> {
  const isKnown = (VERBS as readonly (string | undefined)[]).includes(verb);
  if (!isKnown || (NEED_FILE.includes(verb!) && !file))
    fail('Say what to do: export FILE, import FILE, rebuild, backup, or restore FILE.');
  const folder = resolve(process.env.VOLTREK_DATA ?? '.voltrek');
  if (verb === 'restore') {
    const { jobs, events, before } = await restore(folder, file!, new Date());
    process.stdout.write(`${folder}: ${events} events of ${jobs} jobs are back\n`);
    if (before) process.stdout.write(`What stood there is in ${before}\n`);
    return;
  }
  const database = await openDatabase(folder, (error) =>
    fail(`The data folder can no longer be written: ${error.message}`),
  );
  try {
    if (verb === 'export')
      process.stdout.write(`${resolve(file!)}: ${told(await exportHouse(database.db, file!))}\n`);
    else if (verb === 'import')
      process.stdout.write(`Brought in: ${told(await importHouse(database.db, file!))}\n`);
    else if (verb === 'backup') {
      const { name, jobs, events, bytes } = await backUp(folder, database.still, 'by-hand', new Date());
      const size = (bytes / 1_000_000).toFixed(1);
      process.stdout.write(
        `${backupFile(folder, name)}: ${events} events of ${jobs} jobs, ${size} MB, opened and checked\n`,
      );
    } else {
      const { jobs, differed } = await rebuild(database.db);
      for (const line of differed) process.stdout.write(`${line}\n`);
      process.stdout.write(`${jobs} jobs made anew from their logs; ${differed.length} things differed\n`);
    }
  } finally {
    await database.close();
  }
}

await main().catch((error: unknown) => {
  const isTold =
    error instanceof HouseFileError ||
    error instanceof FolderHeldError ||
    error instanceof FolderUnfitError ||
    error instanceof RestoreError;
  const exists = error instanceof Error && 'code' in error && error.code === 'EEXIST';
  const missing = error instanceof Error && 'code' in error && error.code === 'ENOENT';
  if (isTold) fail(error.message);
  if (exists) fail(`${file} is there already. Name a file that is not.`);
  if (missing) fail(`There is no file ${file}.`);
  throw error;
});
