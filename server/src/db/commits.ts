import type { Db, Tx } from './types.js';

/** So many transactions share one sync at most: whoever waits longest waits for no more than these. */
const MOST_TOGETHER = 32;

interface Waiting {
  /** Runs the work in a transaction; gives what to tell whoever waits once it is on the disk. */
  readonly run: (isSynced: boolean) => Promise<() => void>;
  readonly fail: (error: Error) => void;
}

/**
 * Runs work in a transaction; what it gives is on the disk, and when it throws nothing of it stands.
 *
 * @param jobId of work that has to do with one job alone; other jobs do not wait for it, where the database has more than one session
 */
export type Write = <T>(work: (tx: Tx) => Promise<T>, jobId?: string) => Promise<T>;

/**
 * Transactions of the embedded database's one session, one after another. Those that wait while others are written share one sync: each
 * commits without, and one small commit after them, which the log keeps behind them, puts all on the disk. None is answered before that.
 *
 * @param onLost told when that last commit fails: what is on the disk is then not known
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
  return (work) =>
    new Promise((resolve, reject) => {
      const run: Waiting['run'] = (isSynced) =>
        db
          .transaction(async (tx) => {
            if (!isSynced) await tx.execute('SET LOCAL synchronous_commit = off');
            return work(tx);
          })
          .then(
            (result) => () => resolve(result),
            (error: unknown) => () => reject(error as Error),
          );
      waiting.push({ run, fail: reject });
      if (!isBusy) void drain();
    });
}

async function together(db: Db, group: readonly Waiting[], onLost: (error: Error) => void): Promise<void> {
  if (group.length === 1) {
    (await group[0]!.run(true))();
    return;
  }
  const answers: (() => void)[] = [];
  for (const { run } of group) answers.push(await run(false));
  try {
    await db.transaction(async (tx) => {
      // Only a transaction that wrote to the log has its commit waited for: this one leaves an empty note there.
      await tx.execute("SELECT pg_logical_emit_message(true, 'voltrek', '')");
    });
  } catch (error) {
    onLost(error as Error);
    for (const { fail } of group) fail(error as Error);
    return;
  }
  for (const answer of answers) answer();
}
