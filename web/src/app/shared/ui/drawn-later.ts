import { computed, DestroyRef, effect, inject, type Signal, signal, untracked } from '@angular/core';
import { Frames } from '../model/frames';

/** Delay before redrawing the parts that a tap does not wait for, ms: in a frame of their own, and before an eye has left the tap. */
const AFTER_A_TAP_MS = 40;

/**
 * Returns a value as it was a moment ago. Its drawing comes in a task of its own, after the part that a tap waits for. The first value comes
 * at once, and so does null. Call where a component is made.
 *
 * @param ms delay
 */
export function later<T>(value: Signal<T | null>, ms = AFTER_A_TAP_MS): Signal<T | null> {
  const frames = inject(Frames);
  const shown = signal<T | null>(null);
  effect((onCleanup) => {
    const now = value();
    if (now === null || untracked(shown) === null) return shown.set(now);
    const soon = setTimeout(() => void frames.after('now', () => shown.set(now)), ms);
    onCleanup(() => clearTimeout(soon));
  });
  return shown.asReadonly();
}

/**
 * Returns a list that grows part by part, each drawn in its own task: drawn at once, a long list would hold up a tap. Rows on the screen stay
 * when the list changes. Call where a component is made.
 *
 * @param part rows that come with each frame
 */
export function inParts<T>(list: Signal<readonly T[]>, part: number): Signal<readonly T[]> {
  const frames = inject(Frames);
  const room = signal(part);
  effect((onCleanup) => {
    if (list().length <= room()) return;
    let isHere = true;
    onCleanup(() => (isHere = false));
    void frames.after('turn', () => {
      if (isHere) room.update((now) => now + part);
    });
  });
  return computed(() => list().slice(0, room()));
}

/** Returns false until the rest of the component is on the screen; then true, in a task of its own. Call where a component is made. */
export function onceDrawn(): Signal<boolean> {
  const destroyed = inject(DestroyRef);
  const isDrawn = signal(false);
  void inject(Frames).after('turn', () => {
    if (!destroyed.destroyed) isDrawn.set(true);
  });
  return isDrawn.asReadonly();
}
