import { DestroyRef, inject, type Signal, signal } from '@angular/core';

/** The time in milliseconds since the epoch, kept current while its component lives. */
export function ticker(everyMs = 200): Signal<number> {
  const now = signal(Date.now());
  const timer = setInterval(() => now.set(Date.now()), everyMs);
  inject(DestroyRef).onDestroy(() => clearInterval(timer));
  return now.asReadonly();
}
