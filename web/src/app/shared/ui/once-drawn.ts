import { DestroyRef, inject, type Signal, signal } from '@angular/core';
import { drawnApart } from './drawn-apart';
import { Drawings } from '../model/idle';

/**
 * False until what is made along with it is on the screen; then true, in a task of its own. The framework draws what it may put off in the same
 * task, once the code for it is here. Call where a component is made.
 */
export function onceDrawn(): Signal<boolean> {
  const draw = drawnApart();
  const destroyed = inject(DestroyRef);
  const isDrawn = signal(false);
  void inject(Drawings)
    .turn()
    .then(() => {
      if (!destroyed.destroyed) draw(() => isDrawn.set(true));
    });
  return isDrawn.asReadonly();
}
