import { Injectable } from '@angular/core';
import type { Odds, OddsInput } from '@voltrek/core';
import { proxy, type Remote, wrap } from 'comlink';
import type { OddsWorker } from './odds.worker';

/** One round of computing. Its results count only while it is the current one. */
export interface OddsRun {
  readonly isCurrent: () => boolean;
  readonly odds: (input: OddsInput, onProgress: (share: number) => void) => Promise<Odds | null>;
}

/** Owns the odds worker: a new round ends the one before, worker and all, which stops it at once. */
@Injectable({ providedIn: 'root' })
export class OddsRunner {
  private worker: Worker | undefined;
  private round = 0;

  begin(): OddsRun {
    this.stop();
    const round = this.round;
    const worker = new Worker(new URL('./odds.worker', import.meta.url), { type: 'module' });
    this.worker = worker;
    const remote: Remote<OddsWorker> = wrap<OddsWorker>(worker);
    // A worker that dies answers nothing: without this the screen would wait for ever.
    const crashed = new Promise<never>((_, reject) => {
      worker.onerror = ({ message }) => reject(new Error(message));
    });
    return {
      isCurrent: () => round === this.round,
      odds: (input, onProgress) => Promise.race([remote.odds(input, proxy(onProgress)), crashed]),
    };
  }

  stop(): void {
    this.worker?.terminate();
    this.worker = undefined;
    this.round++;
  }
}
