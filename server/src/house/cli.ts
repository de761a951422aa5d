import { mkdir } from 'node:fs/promises';
import { randomInt } from 'node:crypto';
import { join, resolve } from 'node:path';
import { PIN_DIGITS, pinFault } from '@voltrek/contracts';
import { backUp } from '../backup/backup.js';
import { backupFile, backupFolder, stampOf } from '../backup/catalogue.js';
import { restore, RestoreError } from '../backup/restore.js';
import { type Database, openDatabase } from '../db/database.js';
import { FolderUnfitError } from '../db/embedded/folder.js';
import { FolderHeldError } from '../db/embedded/lock.js';
import { openPostgres, ServerUnfitError } from '../db/postgres.js';
import { rebuild } from '../jobs/rebuild.js';
import { note } from '../sign-in/audit.js';
import { hashOfPin } from '../sign-in/pin.js';
import { setPin, whoHasPins } from '../sign-in/secrets.js';
import { endSessions } from '../sign-in/sessions.js';
import { HouseFileError, importHouse } from './house-file.js';
import { backUpAsFile, exportAtOnce, MoveError, moveHouse } from './move.js';

/**
 * Acts on a house: `export FILE`, `import FILE`, `rebuild`, `backup`, `restore FILE`. `move --to URL` or `move --from URL` copies between a
 * data folder and a PostgreSQL server; and `pin NAME`, a new PIN for somebody who cannot get in. In a data folder while no server runs on
 * it; with DATABASE_URL on that PostgreSQL server.
 */
const [verb, file, otherUrl] = process.argv.slice(2);
const VERBS = ['export', 'import', 'rebuild', 'backup', 'restore', 'move', 'pin'] as const;
const NEED_FILE = ['export', 'import', 'restore', 'move', 'pin'];

function fail(message: string): never {
  process.stderr.write(`${message}\n`);
  process.exit(1);
}

function countsText(counts: Readonly<Record<string, number>>): string {
  return Object.entries(counts)
    .filter(([, count]) => count > 0)
    .map(([name, count]) => `${count} ${name.replace('_', ' ')}`)
    .join(', ');
}

async function main(): Promise<void> {
  const isKnown = (VERBS as readonly (string | undefined)[]).includes(verb);
  if (!isKnown || (NEED_FILE.includes(verb!) && !file))
    fail(
      'Say what to do: export FILE, import FILE, rebuild, backup, restore FILE, move --to URL, or pin NAME.',
    );
  const folder = resolve(process.env.VOLTREK_DATA ?? '.voltrek');
  const url = process.env.DATABASE_URL ?? null;
  if (verb === 'move') {
    await move(folder);
    return;
  }
  // A database on a server is never written over: a backup is brought into an empty one, like any house.
  if (verb === 'restore' && url === null) {
    const { jobs, events, before } = await restore(folder, file!, new Date());
    process.stdout.write(`${folder}: ${events} events of ${jobs} jobs are back\n`);
    if (before) process.stdout.write(`What stood there is in ${before}\n`);
    return;
  }
  const database = await (url === null ? openFolder(folder) : openPostgres(url));
  try {
    if (verb === 'export')
      process.stdout.write(`${resolve(file!)}: ${countsText(await exportAtOnce(database, file!))}\n`);
    else if (verb === 'import' || verb === 'restore')
      process.stdout.write(`Brought in: ${countsText(await importHouse(database.db, file!))}\n`);
    else if (verb === 'rebuild') await makeAnew(database);
    else if (verb === 'pin') await givePin(database, file!);
    else if (url === null) await backUpFolder(folder, database);
    else await backUpServer(folder, database);
  } finally {
    await database.close();
  }
}

const openFolder = (folder: string): Promise<Database> =>
  openDatabase(folder, (error) => fail(`The data folder can no longer be written: ${error.message}`));

async function backUpFolder(folder: string, { still }: Database): Promise<void> {
  const { name, jobs, events, bytes } = await backUp(folder, still, 'by-hand', new Date());
  const size = (bytes / 1_000_000).toFixed(1);
  process.stdout.write(
    `${backupFile(folder, name)}: ${events} events of ${jobs} jobs, ${size} MB, opened and checked\n`,
  );
}

/** A file of the whole house: the files of a PostgreSQL server are its own. */
async function backUpServer(folder: string, database: Database): Promise<void> {
  await mkdir(backupFolder(folder), { recursive: true });
  const path = join(backupFolder(folder), `${stampOf(new Date())}.ndjson`);
  process.stdout.write(`${path}: ${countsText(await backUpAsFile(database, path))}, opened and checked\n`);
}

/** Carries a house over between the data folder and a PostgreSQL server. */
async function move(folder: string): Promise<void> {
  if (!otherUrl || (file !== '--to' && file !== '--from'))
    fail('Say where: move --to URL, or move --from URL.');
  const own = await openFolder(folder);
  try {
    const server = await openPostgres(otherUrl);
    try {
      const [from, to] = file === '--to' ? [own, server] : [server, own];
      process.stdout.write(`Carried over and compared: ${countsText(await moveHouse(from, to))}\n`);
    } finally {
      await server.close();
    }
  } finally {
    await own.close();
  }
}

/** A person who can reach the data needs no PIN; they make one for somebody who does. */
async function givePin({ db, write }: Database, named: string): Promise<void> {
  const found = (await whoHasPins(db)).filter(({ id, name }) => id === named || name === named);
  if (found.length !== 1)
    fail(`There is no one ${named} at work here. Give the name, or the id, as it stands in the crew.`);
  const { id, name } = found[0]!;
  const pin = freshPin();
  const pinHash = await hashOfPin(pin);
  await write(async (tx) => {
    await setPin(tx, id, pinHash);
    await endSessions(tx, { crewId: id });
    await note(tx, null, 'pin-set', id);
  });
  process.stdout.write(`The PIN of ${name} is now ${pin}. Change it after signing in.\n`);
}

function freshPin(): string {
  for (;;) {
    const pin = String(randomInt(10 ** PIN_DIGITS.min)).padStart(PIN_DIGITS.min, '0');
    if (pinFault(pin) === null) return pin;
  }
}

async function makeAnew({ db }: Database): Promise<void> {
  const { jobs, differed } = await rebuild(db);
  for (const line of differed) process.stdout.write(`${line}\n`);
  process.stdout.write(`${jobs} jobs made anew from their logs; ${differed.length} things differed\n`);
}

await main().catch((error: unknown) => {
  const isTold =
    error instanceof HouseFileError ||
    error instanceof FolderHeldError ||
    error instanceof FolderUnfitError ||
    error instanceof RestoreError ||
    error instanceof ServerUnfitError ||
    error instanceof MoveError;
  const exists = error instanceof Error && 'code' in error && error.code === 'EEXIST';
  const missing = error instanceof Error && 'code' in error && error.code === 'ENOENT';
  if (isTold) fail(error.message);
  if (exists) fail(`${file} is there already. Name a file that is not.`);
  if (missing) fail(`There is no file ${file}.`);
  throw error;
});
