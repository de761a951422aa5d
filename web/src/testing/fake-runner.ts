import type { Provider } from '@angular/core';
import { PlanRunner } from '../app/workers/plan-runner';

/** A runner whose worker answers at once, by what stands here; what it was asked is kept. */
export function fakeRunner(answers: Readonly<Record<string, unknown>>): {
  readonly provider: Provider;
  readonly asked: (readonly [name: string, args: readonly unknown[]])[];
} {
  const asked: (readonly [string, readonly unknown[]])[] = [];
  const worker = new Proxy(
    {},
    {
      get:
        (_, name: string) =>
        (...args: readonly unknown[]) => {
          asked.push([name, args]);
          const answer = answers[name];
          return typeof answer === 'function' ? (answer as (...a: unknown[]) => unknown)(...args) : answer;
        },
    },
  );
  const run = {
    isCurrent: () => true,
    ask: (what: (w: unknown, hears: <T>(listener: T) => T) => unknown) =>
      Promise.resolve(what(worker, (listener) => listener)),
  };
  const runner = { begin: () => run, stop: () => undefined };
  return { provider: { provide: PlanRunner, useValue: runner }, asked };
}
