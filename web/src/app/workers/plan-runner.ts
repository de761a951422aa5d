import { inject, Injectable, type OnDestroy } from '@angular/core';
import { expose, proxy, type Remote, type TransferHandler, transferHandlers } from 'comlink';
import type { PlanWorker } from './plan.worker';
import { type Frequent, SpareWorkers } from './spare-workers';
import type { WorkerLine } from './worker-line';

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
  readonly ask: <T>(what: (worker: Remote<PlanWorker>, subscribe: Subscribe) => Promise<T>) => Promise<T>;
}

/**
 * Makes a listener that the worker calls with its progress. Progress goes another way than the answer, and may come after it: from the
 * answer on, or when a newer round has begun, the listener is not called.
 */
export type Subscribe = <A extends unknown[], R>(
  listener: (...progress: A) => R,
) => (...progress: A) => R | undefined;

/** Owns one worker: a new round ends the one before. A worker that is still at it is ended, which stops it at once; one that is not may be kept. */
@Injectable()
export class PlanRunner implements OnDestroy {
  private readonly spare = inject(SpareWorkers);
  private current: {
    readonly work: Frequent | null;
    readonly line: WorkerLine<PlanWorker>;
    /** Asked, and not answered. */
    unanswered: number;
  } | null = null;
  private round = 0;

  /** @param work what will be asked, if it is of those that are asked often */
  begin(work: Frequent | null = null): PlanRun {
    this.stop();
    const round = this.round;
    const current = { work, line: this.spare.take(work), unanswered: 0 };
    this.current = current;
    const isCurrent = (): boolean => round === this.round;
    return {
      isCurrent,
      ask: async (what) => {
        let isAnswered = false;
        const listeners: object[] = [];
        const subscribe: Subscribe = (listener) => {
          const proxied = proxy((...all: Parameters<typeof listener>) =>
            !isAnswered && isCurrent() ? listener(...all) : undefined,
          );
          listeners.push(proxied);
          return proxied;
        };
        current.unanswered++;
        try {
          const answer = await Promise.race([what(current.line.remote, subscribe), current.line.ended]);
          current.unanswered--;
          return answer;
        } finally {
          isAnswered = true;
          for (const listener of listeners) ends.get(listener)?.close();
        }
      },
    };
  }

  /** The page is left: nobody waits for an answer any more. */
  ngOnDestroy(): void {
    this.stop();
  }

  stop(): void {
    this.round++;
    const current = this.current;
    this.current = null;
    if (current?.unanswered === 0) this.spare.give(current.work, current.line);
    else current?.line.end(new Error('stopped'));
  }
}
