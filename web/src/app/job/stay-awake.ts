import { DestroyRef, inject } from '@angular/core';

/** Keeps the screen on while a page is open, where the browser can: gloves cannot wake it between two clamps. */
export function stayAwake(): void {
  if (!('wakeLock' in navigator)) return;
  let lock: WakeLockSentinel | null = null;
  let isOver = false;
  const ask = async (): Promise<void> => {
    if (document.visibilityState !== 'visible') return;
    // Refused on a battery that is nearly flat: then the screen goes dark as it always did.
    const given = await navigator.wakeLock.request('screen').catch(() => null);
    if (isOver) void given?.release();
    else lock = given;
  };
  const again = (): void => void ask();
  document.addEventListener('visibilitychange', again);
  void ask();
  inject(DestroyRef).onDestroy(() => {
    isOver = true;
    document.removeEventListener('visibilitychange', again);
    void lock?.release();
  });
}
