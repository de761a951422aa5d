import { effect, ElementRef, inject, InjectionToken, signal, type Signal } from '@angular/core';

/** True where steps are watched; a test of one component has no screen that a step could be off. */
export const LOOKS_AT_STEPS = new InjectionToken<boolean>('looks at steps', { factory: () => true });

/** So much of a line must have been on the screen to have been seen. */
const SEEN_SHARE = 0.9;

/** The lines of a step that have not been on the screen yet. */
export interface StepSeen {
  /** All of it has been on the screen; true until the browser says otherwise, which is long before a tap is taken. */
  readonly isSeen: Signal<boolean>;
  /** Brings the first line that was not seen onto the screen. */
  readonly show: () => void;
}

/**
 * Watches which lines of a step have been on the screen: nothing of a step is confirmed before its point and each of its hazards was.
 *
 * @param step another value for each step
 * @param lines CSS selector of the lines within the component
 * @param drawn changes with the lines
 */
export function stepSeen(step: () => string, lines: string, drawn: () => unknown): StepSeen {
  const host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  const looks = inject(LOOKS_AT_STEPS);
  const isSeen = signal(true);
  let at = '';
  let seen = new Set<string>();
  const unseen = (): HTMLElement[] =>
    [...host.querySelectorAll<HTMLElement>(lines)].filter((line) => !seen.has(line.textContent));
  effect((onCleanup) => {
    drawn();
    if (step() !== at) {
      at = step();
      seen = new Set();
    }
    if (!looks) return;
    const watch = new IntersectionObserver(
      (entries) => {
        for (const { isIntersecting, target } of entries) if (isIntersecting) seen.add(target.textContent);
        isSeen.set(unseen().length === 0);
      },
      { threshold: SEEN_SHARE },
    );
    // The lines are there once they are drawn.
    const soon = setTimeout(() => {
      for (const line of host.querySelectorAll(lines)) watch.observe(line);
    });
    onCleanup(() => {
      clearTimeout(soon);
      watch.disconnect();
    });
  });
  return { isSeen, show: () => unseen()[0]?.scrollIntoView({ block: 'center' }) };
}
