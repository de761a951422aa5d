import type { Backup, BackupReason, BackupState } from '@voltrek/contracts';
import { HOUR_MS, MINUTE_MS } from '@voltrek/core/quantities';
import type { Database } from '../db/database.js';
import { contentMark } from './content-mark.js';
import { backUp } from './backup.js';
import { listBackups } from './catalogue.js';

/** A backup is made when something was written since the last, and that is so old. */
const EVERY_MS = 6 * HOUR_MS;
/** How often it is looked, and the first time: the start has other things to do. */
const LOOK_MS = 10 * MINUTE_MS;

/** Makes backups of one data folder, one at a time, and knows how the last one went. */
export interface BackupKeeper {
  readonly make: (reason: BackupReason) => Promise<Backup>;
  readonly state: () => Promise<BackupState>;
  readonly stop: () => void;
}

/** @param say called with what went wrong with one that nobody waits for */
export function keepBackups(
  folder: string,
  { db, still }: Database,
  say: (problem: string) => void,
): BackupKeeper {
  let problem: string | null = null;
  let under: Promise<Backup> | null = null;
  let covered: string | null = null;

  async function make(reason: BackupReason): Promise<Backup> {
    under ??= (async () => {
      try {
        const written = await contentMark(db);
        const made = await backUp(folder, still, reason, new Date());
        covered = written;
        problem = null;
        return made;
      } catch (error) {
        problem = error instanceof Error ? error.message : String(error);
        throw error;
      } finally {
        under = null;
      }
    })();
    return under;
  }

  async function look(): Promise<void> {
    const [newest] = await listBackups(folder);
    const isOld = !newest || Date.now() - Date.parse(newest.at) >= EVERY_MS;
    if (isOld && (await contentMark(db)) !== covered) await make('by-time');
  }

  const timer = setInterval(() => {
    look().catch((error: unknown) => say(`no backup was made: ${String(error)}`));
  }, LOOK_MS);
  timer.unref();
  return {
    make,
    state: async () => ({
      backups: await listBackups(folder),
      isUnderWay: under !== null,
      problem,
    }),
    stop: () => clearInterval(timer),
  };
}
