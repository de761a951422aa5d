import { setTimeout as pause } from 'node:timers/promises';

/**
 * The longest that a test waits for what is to come, ms: a machine with other work beside it is ten times as slow as a quiet one, and still
 * right.
 */
export const PATIENCE_MS = 240_000;
jasmine.DEFAULT_TIMEOUT_INTERVAL = PATIENCE_MS;

/** Waits until it is so. @throws Error that names what never came */
export async function until(test: () => boolean, what: string): Promise<void> {
  // Ends before the spec does, which could not name what it waited for.
  const deadline = Date.now() + PATIENCE_MS / 2;
  while (!test()) {
    if (Date.now() > deadline) throw new Error(`never: ${what}`);
    await pause(20);
  }
}
