import { DestroyRef, effect, inject, InjectionToken, signal, type Signal } from '@angular/core';

/** For so long after an action has changed a tap is not taken: it was meant for what stood there before, ms. */
export const ARMS_AFTER_MS = new InjectionToken<number>('ARMS_AFTER_MS', {
  providedIn: 'root',
  factory: () => 400,
});

/** What must be held is held for so long, ms. */
export const HOLD_MS = new InjectionToken<number>('HOLD_MS', { providedIn: 'root', factory: () => 500 });

/** True once what would be done has stood still for a moment. */
export function armedFor(action: () => string): Signal<boolean> {
  const ms = inject(ARMS_AFTER_MS);
  const armed = signal(ms === 0);
  let timer: ReturnType<typeof setTimeout> | undefined;
  effect(() => {
    action();
    if (ms === 0) return;
    clearTimeout(timer);
    armed.set(false);
    timer = setTimeout(() => armed.set(true), ms);
  });
  inject(DestroyRef).onDestroy(() => clearTimeout(timer));
  return armed.asReadonly();
}
