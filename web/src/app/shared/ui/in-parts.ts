import { computed, effect, inject, type Signal, signal } from '@angular/core';
import { drawnApart } from './drawn-apart';
import { Drawings } from '../model/idle';

/**
 * A list that is drawn part by part, each in its own task, before the frame that paints it: made in
 * one, a long one would hold up a tap. What is on the screen stays there when the list changes. Call where a component is made.
 *
 * @param part how many more come with each frame
 */
export function inParts<T>(list: Signal<readonly T[]>, part: number): Signal<readonly T[]> {
  const drawings = inject(Drawings);
  const draw = drawnApart();
  const room = signal(part);
  effect((onCleanup) => {
    if (list().length <= room()) return;
    let isHere = true;
    onCleanup(() => (isHere = false));
    drawings.add(
      drawings.turn().then(() => {
        if (isHere) draw(() => room.update((now) => now + part));
      }),
    );
  });
  return computed(() => list().slice(0, room()));
}
