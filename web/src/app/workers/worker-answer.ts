import { computed, effect, inject, signal, type Signal, untracked } from '@angular/core';
import type { Remote } from 'comlink';
import { type PlanRun, PlanRunner } from './plan-runner';
import type { PlanWorker } from './plan.worker';

/** A worker's answer to a question that changes with every tap. */
export interface WorkerAnswer<R> {
  /** The last answer; null until there is one. */
  readonly result: Signal<R | null>;
  /** The question has moved on since. */
  readonly isStale: Signal<boolean>;
  readonly hasFailed: Signal<boolean>;
}

/**
 * Asks a worker whenever the question says something else, and keeps what it answers to the newest. Use it where a component is made,
 * with a `PlanRunner` of its own: the worker lives as long as the component, so that what it prepared is kept.
 *
 * @param question null while there is nothing to ask
 */
export function workerAnswer<Q, R>(
  question: Signal<Q | null>,
  ask: (worker: Remote<PlanWorker>, question: Q) => Promise<R>,
): WorkerAnswer<R> {
  const runner = inject(PlanRunner);
  const result = signal<R | null>(null);
  const answeredFor = signal('');
  const hasFailed = signal(false);
  // As text: folding makes new lists at every tap, and only another question is asked again.
  const asked = computed(() => JSON.stringify(question()));
  let run: PlanRun | null = null;

  async function answer(text: string, about: Q): Promise<void> {
    run ??= runner.begin('crowd');
    try {
      const found = await run.ask((worker) => ask(worker, about));
      if (text !== asked()) return;
      result.set(found);
      answeredFor.set(text);
      hasFailed.set(false);
    } catch {
      // The next question asks a new worker.
      run = null;
      hasFailed.set(true);
    }
  }

  effect(() => {
    const text = asked();
    untracked(() => {
      const about = question();
      if (about !== null) void answer(text, about);
    });
  });
  return {
    result: result.asReadonly(),
    isStale: computed(() => answeredFor() !== asked()),
    hasFailed: hasFailed.asReadonly(),
  };
}
