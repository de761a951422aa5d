import { effect, type Signal, signal, untracked } from '@angular/core';
import { drawnApart } from './drawn-apart';

/** After a tap this is soon enough for all but what it was made for, ms: in a frame of its own, and before an eye has left that. */
const AFTER_A_TAP_MS = 40;

/**
 * A value as it was a moment ago: its drawing comes in its own task, after the part that a tap waits for and before the frame: left to the
 * framework it may share one long task with that. The first value comes at once, and so does none. Call where a component is made.
 *
 * @param ms how long after
 */
export function later<T>(value: Signal<T | null>, ms = AFTER_A_TAP_MS): Signal<T | null> {
  const draw = drawnApart();
  const shown = signal<T | null>(null);
  effect((onCleanup) => {
    const now = value();
    if (now === null || untracked(shown) === null) return shown.set(now);
    const soon = setTimeout(() => draw(() => shown.set(now)), ms);
    onCleanup(() => clearTimeout(soon));
  });
  return shown.asReadonly();
}
