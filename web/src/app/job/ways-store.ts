import { computed, inject, signal, type Signal } from '@angular/core';
import { waysInput } from '@voltrek/core/job';
import type { Findings, NoSource } from '@voltrek/core/belief';
import { afterTry, HAND_MINUTES, type Way, type WaysInput } from '@voltrek/core/plan';
import { Store } from '@ngrx/store';
import { patchState, signalStore, withComputed, withMethods, withState } from '@ngrx/signals';
import {
  selectFindings,
  selectOptions,
  selectOtherVans,
  selectPlanCases,
  selectWork,
} from '../shared/job/job-selectors';
import { Frames } from '../shared/model/frames';
import { PlanRunner } from '../workers/plan-runner';

/** Machines of the first pass and the second: the first shows where everything lies, the second how surely. */
const PASSES = [200, 1000] as const;
/** Time between two drawings of the list: each draws it anew, and nobody reads one that moves faster, ms. */
const TELL_EVERY_MS = 600;

/** A search for ways: what fits, and what the job says of its machine. */
export interface WaysQuestion {
  readonly input: WaysInput;
  readonly findings: Findings;
}

interface WaysState {
  readonly of: WaysQuestion | null;
  /** In the order they are searched; those of the last search stay until the first new one is there. */
  readonly ways: readonly Way[];
  /** The ways of the last whole pass: the list does not move while more is found. */
  readonly settled: readonly Way[];
  /** How likely no source starts it, and why. */
  readonly noSource: NoSource;
  /** Share of the search that is done; null when nothing is searched. */
  readonly progress: number | null;
  readonly failed: boolean;
}

const NOTHING_AMISS: NoSource = { share: 0, causes: [] };
const nothing: WaysState = {
  of: null,
  ways: [],
  settled: [],
  noSource: NOTHING_AMISS,
  progress: null,
  failed: false,
};

/**
 * Returns the question of ways of the job on screen; the same object while it says the same. A joined source goes on charging: it is of
 * one moment, not of each.
 *
 * @param at that moment, ISO 8601; null while there is nothing to search
 * @param fetchMinutes how long another van takes that has not been asked yet
 */
export function waysAsked(
  at: () => string | null,
  fetchMinutes: () => number = () => HAND_MINUTES.fetch,
): Signal<WaysQuestion | null> {
  const store = inject(Store);
  const work = store.selectSignal(selectWork);
  const options = store.selectSignal(selectOptions);
  const cases = store.selectSignal(selectPlanCases);
  const others = store.selectSignal(selectOtherVans);
  const findings = store.selectSignal(selectFindings);
  // The kit of other vans is ranked once the screen is drawn: a task of its own. The search, which waits for the same, begins with it, not anew.
  const isDrawn = signal(false);
  void inject(Frames).after('quiet', () => isDrawn.set(true));
  return computed(
    () => {
      const known = work();
      const moment = at();
      const minutes = fetchMinutes();
      const brought = isDrawn() ? others().map((van) => ({ ...van, minutes })) : [];
      const input =
        known && moment !== null
          ? waysInput(known.job, known.situation, options(), cases(), moment, brought)
          : null;
      const said = findings();
      return input && said && { input, findings: said };
    },
    { equal: (a, b) => JSON.stringify(a) === JSON.stringify(b) },
  );
}

/** Every way to get the machine going, searched in a worker while the screen stays. Dies with its component. */
export const WaysStore = signalStore(
  withState(nothing),
  withComputed(({ of, settled, noSource }) => ({
    /** The acts after a try that failed, the fewest expected minutes first. */
    next: computed(() =>
      settled().length > 0
        ? afterTry({ ways: settled(), elsewhere: noSource().share }, of()?.input.joinedOptionId ?? null)
        : [],
    ),
  })),
  withMethods((store, frames = inject(Frames)) => ({
    /** Draws a way as it is found; resolves when it is drawn, and the search may have the processor again. */
    _tell: async (found: Partial<WaysState>): Promise<void> => {
      await frames.after('now', () => patchState(store, found));
      await frames.after('quiet');
    },
  })),
  withMethods((store, runner = inject(PlanRunner), frames = inject(Frames)) => ({
    async ask(question: WaysQuestion | null): Promise<void> {
      runner.stop();
      if (!question) {
        patchState(store, nothing);
        return;
      }
      patchState(store, { of: question, progress: 0, failed: false });
      // The screen is drawn first.
      await frames.after('quiet');
      if (store.of() !== question) return;
      const run = runner.begin('ways');
      try {
        for (const [pass, machines] of PASSES.entries()) {
          const found: Way[] = [];
          let shownMs = -Infinity;
          const onWay = async (way: Way, share: number): Promise<void> => {
            found.push(way);
            if (performance.now() - shownMs < TELL_EVERY_MS) return;
            shownMs = performance.now();
            // Ways that were shown stay in place until the same way is there anew.
            const others = store.ways().filter((w) => pass === 1 && !found.some((f) => f.id === w.id));
            await store._tell({ ways: [...found, ...others], progress: (pass + share) / 2 });
          };
          const { ways, noSource } = await run.ask((worker, subscribe) =>
            worker.ways(question.input, question.findings, machines, subscribe(onWay)),
          );
          if (!run.isCurrent()) return;
          await store._tell({ noSource, settled: ways, ways });
          if (!run.isCurrent()) return;
        }
        patchState(store, { progress: null });
      } catch {
        if (run.isCurrent()) patchState(store, { progress: null, failed: true });
      }
    },
  })),
);
