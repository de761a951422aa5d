/** The longest wait for an idle moment: work that is put off must still come, milliseconds. */
const LONGEST_MS = 1_000;

/** Resolves when the page has nothing more pressing to do, such as drawing what was just opened. */
export function whenIdle(): Promise<void> {
  return new Promise((resolve) => requestIdleCallback(() => resolve(), { timeout: LONGEST_MS }));
}
