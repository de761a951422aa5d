import { effect, type OutputEmitterRef, type Signal, untracked } from '@angular/core';
import type { NextAction, Stage } from '@voltrek/core/job';

/** The next action that opens another stage. */
export type Go = Extract<NextAction, { act: 'go' }>;

/**
 * Goes on to the next stage in the moment that nothing else is left at this one. A stage that is opened with nothing left stays. Call where a
 * stage is made.
 *
 * @param isLeft whether this stage is left for that one by itself
 */
export function goesOn(
  next: Signal<NextAction>,
  goOn: OutputEmitterRef<Stage>,
  isLeft: (go: Go) => boolean,
): void {
  let before: NextAction['act'] = 'go';
  effect(() => {
    const now = next();
    const isLast = before !== 'go' && before !== 'none' && now.act === 'go';
    before = now.act;
    if (isLast) untracked(() => isLeft(now) && goOn.emit(now.to));
  });
}
