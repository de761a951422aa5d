import { Injectable } from '@angular/core';
import { expose, proxy, type Remote, type TransferHandler, transferHandlers } from 'comlink';
import type { PlanWorker } from './plan.worker';
import { type WorkerLine, workerLine } from './worker-line';

/** The own end of each listener's line to a worker. */
const ends = new WeakMap<object, MessagePort>();
// A line stays open until the worker lets go of it, which one that is ended never does: the listener, and all it knows, would stay with it.
transferHandlers.set('proxy', {
  ...transferHandlers.get('proxy')!,
  serialize: (listener: object) => {
    const { port1, port2 } = new MessageChannel();
    expose(listener, port1);
    ends.set(listener, port1);
    return [port2, [port2]];
  },
} as TransferHandler<object, MessagePort>);

/** One round of computing. Its results count only while it is the current one. */
export interface PlanRun {
  readonly isCurrent: () => boolean;
  /** Asks the worker. Rejects when the worker dies or is stopped, which otherwise would answer nothing for ever. */
  readonly ask: <T>(what: (worker: Remote<PlanWorker>, hears: Hears) => Promise<T>) => Promise<T>;
}

/**
 * Makes a listener that the worker tells of its progress. What it is told goes another way than the answer, and may come after it: from the
 * answer on, or when a newer round has begun, the listener hears no more.
 */
export type Hears = <A extends unknown[]>(listener: (...told: A) => void) => (...told: A) => void;

/** Owns one worker: a new round ends the one before, worker and all, which stops it at once. */
@Injectable()
export class PlanRunner {
  private line: WorkerLine<PlanWorker> | null = null;
  private round = 0;

  begin(): PlanRun {
    this.stop();
    const round = this.round;
    const line = workerLine<PlanWorker>(
      new Worker(new URL('./plan.worker', import.meta.url), { type: 'module' }),
    );
    this.line = line;
    const isCurrent = (): boolean => round === this.round;
    return {
      isCurrent,
      ask: (what) => {
        let isAnswered = false;
        const heard: object[] = [];
        const hears: Hears = (listener) => {
          const told: typeof listener = proxy((...all) => {
            if (!isAnswered && isCurrent()) listener(...all);
          });
          heard.push(told);
          return told;
        };
        return Promise.race([what(line.remote, hears), line.ended]).finally(() => {
          isAnswered = true;
          for (const listener of heard) ends.get(listener)?.close();
        });
      },
    };
  }

  stop(): void {
    this.round++;
    this.line?.end(new Error('stopped'));
    this.line = null;
  }
}
