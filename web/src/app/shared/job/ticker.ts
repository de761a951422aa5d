import { computed, DestroyRef, inject, type Signal, signal } from '@angular/core';
import { Store } from '@ngrx/store';
import { jobFeature } from '../model/job-state';

/** The time in milliseconds since the epoch, kept current while its component lives. */
export function ticker(everyMs = 200): Signal<number> {
  const now = signal(Date.now());
  const timer = setInterval(() => now.set(Date.now()), everyMs);
  inject(DestroyRef).onDestroy(() => clearInterval(timer));
  return now.asReadonly();
}

/** The time by the server's clock, as far as it is known: what is counted from events must not run on a clock that may be set. */
export function serverTicker(everyMs = 200): Signal<number> {
  const now = ticker(everyMs);
  const ahead = inject(Store).selectSignal(jobFeature.selectClockAheadMs);
  return computed(() => now() + ahead());
}
