import type { Pool } from 'pg';

/** How often it is looked whether a checkpoint is due, ms. */
const LOOKS_EVERY_MS = 10_000;
/** The log grows to this before a checkpoint, MB: a start after a power cut reads all of it, at some 50 MB a second. */
const LOG_MOST_MB = 32;
/** And stays without one no longer than this while anything is written, min. */
const MOST_MINUTES = 15;

/**
 * The embedded database makes no checkpoint by itself while it runs: its log would grow until it is closed, and so would the time of a
 * start after a power cut. One is made when the log has grown, and by time.
 * One that fails leaves the log as it was, and the next is tried; its sync reports a failing disk.
 *
 * @returns ends it
 */
export function keepCheckpoints(pool: Pool): () => Promise<void> {
  const mostMb = Number(process.env.VOLTREK_LOG_MB ?? LOG_MOST_MB) || LOG_MOST_MB;
  const lookEveryMs = Math.min(LOOKS_EVERY_MS, (LOOKS_EVERY_MS * mostMb) / LOG_MOST_MB);
  let looking: Promise<void> = Promise.resolve();
  const look = async (): Promise<void> => {
    const { rows } = await pool.query<{ mb: number; minutes: number }>(
      `SELECT pg_wal_lsn_diff(pg_current_wal_insert_lsn(), redo_lsn)::float8 / 1048576 AS mb,
         extract(epoch FROM now() - checkpoint_time)::float8 / 60 AS minutes
       FROM pg_control_checkpoint()`,
    );
    const { mb, minutes } = rows[0]!;
    if (mb >= mostMb || (minutes >= MOST_MINUTES && mb >= LEAST_MB)) await pool.query('CHECKPOINT');
  };
  const timer = setInterval(() => {
    looking = looking.then(look).catch(() => undefined);
  }, lookEveryMs);
  timer.unref();
  return async () => {
    clearInterval(timer);
    await looking;
  };
}
/** A checkpoint itself writes to the log: with no more than that there is nothing to do. */
const LEAST_MB = 0.1;
