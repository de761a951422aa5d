import { effect, type OutputEmitterRef, type Signal, untracked } from '@angular/core';
import type { NextAction, Stage } from '@voltrek/core/job';

type Go = Extract<NextAction, { act: 'go' }>;

/**
 * Goes on to the next stage in the moment that nothing else is left at this one. A stage that is opened with nothing left stays. Call where a
 * stage is made.
 *
 * @param isAll whether nothing that the screen offers beside its next action is still to do
 */
export function goesOn(
  next: Signal<NextAction>,
  goOn: OutputEmitterRef<Stage>,
  isAll: (to: Go) => boolean,
): void {
  let before: NextAction['act'] = 'go';
  effect(() => {
    const now = next();
    const isLast = before !== 'go' && before !== 'none' && now.act === 'go';
    before = now.act;
    if (isLast) untracked(() => isAll(now) && goOn.emit(now.to));
  });
}
