import { computed, inject, type Signal } from '@angular/core';
import { type NextAction, nextAction, type Stage } from '@voltrek/core/job';
import { Store } from '@ngrx/store';
import type { HookupAction } from '@voltrek/core/hookup';
import {
  selectClearingRun,
  selectHookupRun,
  selectMakeSafe,
  selectRescue,
  selectWork,
} from './job-selectors';
import { judgedStep } from './judged-step';

/**
 * Returns the one next action of the job on screen at a stage; nothing to do until the job is here.
 *
 * @param now the moment, ms: of a ticker where a rest runs down, else of the log
 */
export function nextActionAt(stage: Stage, now?: Signal<number>): Signal<NextAction> {
  const store = inject(Store);
  const work = store.selectSignal(selectWork);
  const hookup = store.selectSignal(selectHookupRun);
  const clearing = store.selectSignal(selectClearingRun);
  const makeSafe = store.selectSignal(selectMakeSafe);
  const rescue = store.selectSignal(selectRescue);
  const hazardsOf = (action: HookupAction) => {
    const planned = rescue();
    const of = work();
    return planned && of ? judgedStep(planned.scene, of.job.hookup, action, of.rules).hazards : [];
  };
  return computed((): NextAction => {
    const of = work();
    if (!of) return { act: 'none' };
    const at = now ? new Date(now()).toISOString() : of.job.lastAt;
    const runs = { hookup: hookup(), clearing: clearing(), makeSafe, hazardsOf };
    return nextAction(stage, of.job, of.situation, runs, at);
  });
}
