import type { Db, Tx } from './types.js';

/** So many works share one transaction at most: whoever waits longest, or only reads, waits for no more than these. */
export const MOST_TOGETHER = 16;

interface Waiting {
  /** Does the work; gives what to tell whoever waits once it is on the disk. */
  readonly run: (tx: Tx) => Promise<() => void>;
  readonly fail: (error: Error) => void;
  readonly isOneStatement: boolean;
}

/**
 * Runs work in a transaction; what it gives is on the disk, and when it throws nothing of it stands.
 *
 * @param options.jobIds of work that has to do with these jobs alone; other jobs do not wait for it, where the database has more than one
 *   session
 * @param options.isOneStatement of work that writes with one statement, its last, which stands or falls by itself: where nobody comes
 *   between
 *   it and what was read, it needs no transaction around it
 */
export type Write = <T>(work: (tx: Tx) => Promise<T>, options?: WriteOptions) => Promise<T>;

export interface WriteOptions {
  readonly jobIds?: readonly string[];
  readonly isOneStatement?: boolean;
}

/**
 * Works of the embedded database's one session, one after another. Works that wait while others are written share one transaction and one
 * sync, each behind its own savepoint: what throws is undone alone. None is answered before the transaction is on the disk.
 *
 * @param onLost called when that fails: what is on the disk is then not known
 */
export function groupedWrites(db: Db, onLost: (error: Error) => void): Write {
  const waiting: Waiting[] = [];
  let isBusy = false;
  const drain = async (): Promise<void> => {
    isBusy = true;
    for (
      let group = waiting.splice(0, MOST_TOGETHER);
      group.length > 0;
      group = waiting.splice(0, MOST_TOGETHER)
    )
      await together(db, group, onLost);
    isBusy = false;
  };
  return (work, { isOneStatement = false } = {}) =>
    new Promise((resolve, reject) => {
      const run: Waiting['run'] = async (tx) => {
        const result = await work(tx);
        return () => resolve(result);
      };
      waiting.push({ run, fail: reject, isOneStatement });
      if (!isBusy) void drain();
    });
}

async function together(db: Db, group: readonly Waiting[], onLost: (error: Error) => void): Promise<void> {
  if (group.length === 1) {
    const [{ run, fail, isOneStatement }] = group as [Waiting];
    // Works come one after another: nobody else writes meanwhile.
    const done = isOneStatement ? run(db as unknown as Tx) : db.transaction(run);
    await done.then((answer) => answer(), fail);
    return;
  }
  const answers: (() => void)[] = [];
  try {
    await db.transaction(async (tx) => {
      for (const [i, { run, fail }] of group.entries()) {
        await tx.execute(i === 0 ? 'SAVEPOINT work' : 'RELEASE SAVEPOINT work; SAVEPOINT work');
        try {
          answers.push(await run(tx));
        } catch (error) {
          await tx.execute('ROLLBACK TO SAVEPOINT work');
          answers.push(() => fail(error as Error));
        }
      }
    });
  } catch (error) {
    onLost(error as Error);
    for (const { fail } of group) fail(error as Error);
    return;
  }
  for (const answer of answers) answer();
}
