import { inject } from '@angular/core';
import type { Odds, OddsInput } from '@voltrek/core';
import { patchState, signalStore, withHooks, withMethods, withState } from '@ngrx/signals';
import { OddsRunner } from '../../workers/odds-runner';

interface OddsState {
  /** Odds by option id, as far as they are computed for what was last asked. */
  readonly byOption: Readonly<Record<string, Odds>>;
  /** Share of the asked options that is done, 0 to 1; null when nothing is being computed. */
  readonly progress: number | null;
  readonly problem: string | null;
}

const nothing: OddsState = { byOption: {}, progress: null, problem: null };

/** The odds of the options on screen, computed in a worker while the screen stays. Dies with it. */
export const OddsStore = signalStore(
  withState(nothing),
  withMethods((store, runner = inject(OddsRunner)) => ({
    /** Computes anew, best option first; whatever was under way is stopped and its results are gone. */
    async ask(inputs: ReadonlyMap<string, OddsInput>): Promise<void> {
      const run = runner.begin();
      patchState(store, { ...nothing, progress: inputs.size > 0 ? 0 : null });
      let done = 0;
      try {
        for (const [optionId, input] of inputs) {
          const before = done;
          const odds = await run.odds(input, (share) => {
            if (run.isCurrent()) patchState(store, { progress: (before + share) / inputs.size });
          });
          if (!run.isCurrent() || !odds) return;
          done++;
          patchState(store, ({ byOption }) => ({ byOption: { ...byOption, [optionId]: odds } }));
        }
        patchState(store, { progress: null });
      } catch {
        if (run.isCurrent())
          patchState(store, { progress: null, problem: 'The odds could not be computed.' });
      }
    },
    /** Stops what is under way; what is already known stays. */
    cancel(): void {
      runner.stop();
      patchState(store, { progress: null });
    },
  })),
  withHooks(() => {
    const runner = inject(OddsRunner);
    return { onDestroy: () => runner.stop() };
  }),
);
