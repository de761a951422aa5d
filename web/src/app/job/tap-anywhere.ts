import { DestroyRef, effect, inject } from '@angular/core';
import { Voice } from '../shared/ui/voice';

/** Keys of a headset or a remote, as browsers name them. */
const HEADSET_KEYS: readonly string[] = ['MediaPlayPause', 'MediaPlay', 'MediaTrackNext', 'HeadsetHook'];
/** The same as the browser's media session tells them. */
const SESSION_ACTS = ['play', 'pause', 'nexttrack'] as const satisfies readonly MediaSessionAction[];

/** Parts that a tap on the stage belongs to. */
const OWN =
  'button, a, input, select, textarea, label, summary, [role=button], [role=radio], [tabindex]:not(h1)';

/**
 * Steps are done without a look while they are spoken: a tap anywhere on the stage that is on no key of its own, and a headset's key. Call where
 * the next action is made.
 *
 * @param press a finger goes down on the stage
 * @param tap it went up again on the same spot
 * @param key a headset's key
 */
export function tapAnywhere(act: {
  readonly press: (event: Event) => void;
  readonly tap: (event: MouseEvent) => void;
  readonly key: () => void;
}): void {
  const voice = inject(Voice);
  const ofStage = (event: Event): boolean => {
    const target = event.target instanceof Element ? event.target : null;
    return target?.closest('.stage') != null && !target.closest(OWN) && !document.querySelector('.modal');
  };
  const listeners = new AbortController();
  inject(DestroyRef).onDestroy(() => listeners.abort());
  effect((onCleanup) => {
    if (!voice.isOn()) return;
    const whileOn = new AbortController();
    onCleanup(() => whileOn.abort());
    const signal = AbortSignal.any([listeners.signal, whileOn.signal]);
    document.addEventListener('pointerdown', (event) => void (ofStage(event) && act.press(event)), {
      signal,
    });
    document.addEventListener('click', (event) => void (ofStage(event) && act.tap(event)), { signal });
    document.addEventListener(
      'keydown',
      (event) => {
        if (!HEADSET_KEYS.includes(event.key) || event.repeat || document.querySelector('.modal')) return;
        event.preventDefault();
        act.key();
      },
      { signal },
    );
    if (!('mediaSession' in navigator)) return;
    for (const name of SESSION_ACTS) navigator.mediaSession.setActionHandler(name, () => act.key());
    signal.addEventListener('abort', () => {
      for (const name of SESSION_ACTS) navigator.mediaSession.setActionHandler(name, null);
    });
  });
}
