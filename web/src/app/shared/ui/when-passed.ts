import { effect, type Signal, untracked } from '@angular/core';

/**
 * Does something in the moment a count comes to its end while it is watched: not for one that was over when it was first seen, as after a
 * reload.
 *
 * @param secondsLeft what is left of it, s; null while nothing is counted
 */
export function whenPassed(secondsLeft: Signal<number | null>, act: () => void): void {
  let wasLeft = 0;
  effect(() => {
    const left = secondsLeft();
    const isOver = wasLeft > 0 && left !== null && left <= 0;
    wasLeft = left ?? 0;
    if (isOver) untracked(act);
  });
}
