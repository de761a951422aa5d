import { DestroyRef, effect, inject, InjectionToken, signal, type Signal, untracked } from '@angular/core';

/** For so long after an action has changed a tap is not taken: it was meant for what stood there before, ms. */
export const ARMS_AFTER_MS = new InjectionToken<number>('ARMS_AFTER_MS', {
  providedIn: 'root',
  factory: () => 400,
});

/** Time of a hold, ms. */
export const HOLD_MS = new InjectionToken<number>('HOLD_MS', { providedIn: 'root', factory: () => 500 });

/** The aim of the press that ends: the button that stands there now, one that stood there before, or no press at all. */
export type Pressed = 'this' | 'another' | 'nothing';

/** Whether a tap counts. */
export interface Arming {
  /** True once what would be done has stood still for a moment. */
  readonly armed: Signal<boolean>;
  /** A finger or a key goes down. */
  press(event: Event): void;
  /** Tells once what the press was for that ends in this click. */
  pressed(click: MouseEvent): Pressed;
}

/** Watches what a button would do. Call where a component or directive is made. */
export function armedFor(action: () => string): Arming {
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
  let begun: { readonly by: Event; readonly for: string } | null = null;
  return {
    armed: armed.asReadonly(),
    press: (event) => (begun = { by: event, for: untracked(action) }),
    pressed: (click) => {
      const press = begun;
      begun = null;
      // A finger that slid off ends in no click; one that comes later from a key or an aid is not its.
      const isOfKey = click.detail === 0;
      if (press === null || press.by instanceof KeyboardEvent !== isOfKey) return 'nothing';
      return press.for === untracked(action) ? 'this' : 'another';
    },
  };
}
