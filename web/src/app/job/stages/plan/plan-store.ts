import { inject, InjectionToken } from '@angular/core';
import type { CrankTrace, WakeCase, WakeTrace } from '@voltrek/core/crank';
import type { Findings, Odds } from '@voltrek/core/belief';
import type { HelpGain, LeadCell, PlanCase, WaitCurve } from '@voltrek/core/plan';
import { patchState, signalStore, withHooks, withMethods, withState } from '@ngrx/signals';
import { Frames } from '../../../shared/model/frames';
import pLimit from 'p-limit';
import type { PlanRun, PlanRunner } from '../../../workers/plan-runner';
import { PLAN_STORE as T } from '@words/screens/job-stages-plan';

/**
 * Two workers: the odds of all options, and the detail of the one looked at. Ending one, to ask something newer, leaves the other at work.
 */
export const ODDS_RUNNER = new InjectionToken<PlanRunner>('odds runner');
export const DETAIL_RUNNER = new InjectionToken<PlanRunner>('detail runner');

/** Machines of the population that a figure is read from: comparisons over the same machines need fewer. */
const MACHINES = 1000;
const WAIT_MACHINES = 500;
const GRID_MACHINES = 200;
/** The longest wait that is looked at. */
export const LONGEST_WAIT_MIN = 15;
const TRACE_SECONDS = 3;

/** The figures so far of one option in depth. */
export interface PlanDetail {
  readonly of: PlanCase;
  readonly trace: CrankTrace | null;
  readonly odds: Odds | null;
  readonly curve: WaitCurve | null;
  readonly helps: readonly HelpGain[] | null;
  readonly cells: readonly LeadCell[] | null;
}

export interface WakeDetail {
  readonly charged: WakeTrace;
  readonly flat: WakeTrace;
}

interface PlanState {
  /** Odds by option id, as far as they are computed for what was last asked. */
  readonly byOption: Readonly<Record<string, Odds>>;
  /** Share of the asked odds that is done; null when nothing is being computed. */
  readonly oddsProgress: number | null;
  readonly detail: PlanDetail | null;
  readonly wake: WakeDetail | null;
  readonly detailProgress: number | null;
  readonly problem: string | null;
  /** A worker died and was started again. */
  readonly restarts: number;
}

const nothing: PlanState = {
  byOption: {},
  oddsProgress: null,
  detail: null,
  wake: null,
  detailProgress: null,
  problem: null,
  restarts: 0,
};
/** How often a worker that dies is started again before the screen says so and asks. */
const MOST_RESTARTS = 1;

/** The figures of Plan, computed in workers while the screen stays. Dies with it. */
export const PlanStore = signalStore(
  withState(nothing),
  withMethods(
    (
      store,
      oddsRunner = inject(ODDS_RUNNER),
      detailRunner = inject(DETAIL_RUNNER),
      frames = inject(Frames),
    ) => {
      /** Runs one round, and once more when its worker dies. */
      async function round(runner: PlanRunner, work: (run: PlanRun) => Promise<void>): Promise<void> {
        for (let tries = 0; ; tries++) {
          const run = runner.begin();
          try {
            await work({ ...run, ask: (what) => turns(() => run.ask(what)) });
            return;
          } catch {
            if (!run.isCurrent()) return;
            if (tries >= MOST_RESTARTS) {
              patchState(store, {
                oddsProgress: null,
                detailProgress: null,
                problem: T.failed,
              });
              return;
            }
            patchState(store, ({ restarts }) => ({ restarts: restarts + 1 }));
          }
        }
      }

      /**
       * As many compute at once as leaves the screen a core of its own; with two cores, or where the browser does not tell, they take
       * turns.
       */
      const turns = pLimit(Math.max(1, (navigator.hardwareConcurrency || 2) - 1));

      /** The odds asked for last: what waits for an idle moment is dropped when something newer is asked, or nothing is any more. */
      let requested: ReadonlyMap<string, PlanCase> | null = null;

      return {
        /** The odds of every option anew, best ranked first; whatever was under way is stopped. */
        async askOdds(cases: ReadonlyMap<string, PlanCase>, findings: Findings | null): Promise<void> {
          patchState(store, { byOption: {}, problem: null, oddsProgress: cases.size > 0 ? 0 : null });
          if (cases.size === 0 || !findings) return;
          // The screen is drawn first.
          requested = cases;
          await frames.after('quiet');
          if (requested !== cases) return;
          await round(oddsRunner, async (run) => {
            let done = 0;
            for (const [optionId, plan] of cases) {
              const before = done;
              const odds = await run.ask((worker, subscribe) =>
                worker.odds(
                  plan,
                  findings,
                  MACHINES,
                  subscribe((share) => patchState(store, { oddsProgress: (before + share) / cases.size })),
                ),
              );
              if (!run.isCurrent()) return;
              done++;
              patchState(store, ({ byOption }) => ({ byOption: { ...byOption, [optionId]: odds } }));
            }
            patchState(store, { oddsProgress: null });
          });
        },

        /** Everything about one option. What was known of another stays until the first new figure is there. */
        async askDetail(plan: PlanCase, findings: Findings): Promise<void> {
          patchState(store, { detailProgress: 0, problem: null });
          await round(detailRunner, async (run) => {
            let detail: PlanDetail = {
              of: plan,
              trace: null,
              odds: null,
              curve: null,
              helps: null,
              cells: null,
            };
            const know = (part: Partial<PlanDetail>, share: number): boolean => {
              if (!run.isCurrent()) return false;
              detail = { ...detail, ...part };
              patchState(store, { detail, detailProgress: share });
              return true;
            };
            const within = (from: number, to: number) => (share: number) =>
              patchState(store, { detailProgress: from + (to - from) * share });
            const trace = await run.ask((worker) => worker.trace(plan, TRACE_SECONDS));
            if (!know({ trace }, 0.1)) return;
            await frames.after('quiet');
            if (!run.isCurrent()) return;
            const odds = await run.ask((worker, subscribe) =>
              worker.odds(plan, findings, MACHINES, subscribe(within(0.1, 0.3))),
            );
            if (!know({ odds }, 0.3)) return;
            const curve = await run.ask((worker, subscribe) =>
              worker.wait(plan, findings, LONGEST_WAIT_MIN, WAIT_MACHINES, subscribe(within(0.3, 0.6))),
            );
            if (!know({ curve }, 0.6)) return;
            const helps = await run.ask((worker) => worker.helps(plan, findings, odds.start, MACHINES));
            if (!know({ helps }, 0.7)) return;
            const cells = await run.ask((worker, subscribe) =>
              worker.leads(plan, findings, GRID_MACHINES, subscribe(within(0.7, 1))),
            );
            if (know({ cells }, 1)) patchState(store, { detailProgress: null });
          });
        },

        /** The wake-up of one option in time. */
        async askWake(charged: WakeCase, flat: WakeCase): Promise<void> {
          patchState(store, { detailProgress: 0, problem: null });
          await round(detailRunner, async (run) => {
            const wake = {
              charged: await run.ask((worker) => worker.wake(charged)),
              flat: await run.ask((worker) => worker.wake(flat)),
            };
            if (run.isCurrent()) patchState(store, { wake, detailProgress: null });
          });
        },

        /** Stops what is under way; what is already known stays. */
        cancel(): void {
          requested = null;
          oddsRunner.stop();
          detailRunner.stop();
          patchState(store, { oddsProgress: null, detailProgress: null });
        },
      };
    },
  ),
  withHooks({ onDestroy: (store) => store.cancel() }),
);
