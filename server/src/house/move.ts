import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { hashOf } from '../backup/catalogue.js';
import { type Database, openInMemory, SNAPSHOT } from '../db/database.js';
import { rebuild } from '../jobs/rebuild.js';
import { carrySignIn } from '../sign-in/carry.js';
import { exportHouse, importHouse } from './house-file.js';

/** The copy differs from the original; the message says where. */
export class MoveError extends Error {}

type Counts = Readonly<Record<string, number>>;

/**
 * Writes a house into a file as it stands at one moment, while servers go on.
 *
 * @returns how many rows of each table
 */
export const exportAtOnce = ({ db }: Database, path: string): Promise<Counts> =>
  db.transaction((tx) => exportHouse(tx, path), {
    isolationLevel: 'repeatable read',
    accessMode: 'read only',
  });

/**
 * Backs a house up that has no files of its own, since a database server keeps it: all of it as a file, which is then brought into an empty
 * database and its logs folded.
 *
 * @throws MoveError when what was written does not come to the same
 */
export async function backUpAsFile(database: Database, path: string): Promise<Counts> {
  const counts = await exportAtOnce(database, path);
  const scratch = await openInMemory(SNAPSHOT);
  try {
    requireSame(counts, await importHouse(scratch.db, path));
    await requireFolds(scratch);
  } finally {
    await scratch.close();
  }
  return counts;
}

/**
 * Carries a house over into an empty database, all of it or nothing, sign-in too: what arrived is written out again, and must be the same byte
 * for byte.
 *
 * @throws HouseFileError when somebody works in the other already; MoveError when it does not come to the same
 */
export async function moveHouse(from: Database, to: Database): Promise<Counts> {
  const folder = await mkdtemp(join(tmpdir(), 'voltrek-move-'));
  try {
    const sent = join(folder, 'sent');
    const arrived = join(folder, 'arrived');
    const counts = await exportAtOnce(from, sent);
    requireSame(counts, await importHouse(to.db, sent, (tx) => carrySignIn(from.db, tx)));
    await exportAtOnce(to, arrived);
    if ((await hashOf(sent)) !== (await hashOf(arrived)))
      throw new MoveError(
        'What arrived is not what was sent. Do not work with it; what was there is as it was.',
      );
    await requireFolds(to);
    return counts;
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}

function requireSame(expected: Counts, found: Counts): void {
  for (const [table, count] of Object.entries(expected))
    if ((found[table] ?? 0) !== count)
      throw new MoveError(`Of ${count} rows of ${table} ${found[table] ?? 0} arrived.`);
}

async function requireFolds({ db }: Database): Promise<void> {
  const { differed } = await rebuild(db);
  if (differed.length > 0) throw new MoveError(`The logs do not come to the same: ${differed[0]}.`);
}
