import { Injectable } from '@angular/core';
import type { PlanWorker } from './plan.worker';
import { type WorkerLine, workerLine } from './worker-line';

/** Work that many stages ask for and that is slow in a worker that has not done it yet. */
export type Frequent = 'ways' | 'crowd';

/**
 * Keeps one worker for each work that is asked for often, while nobody needs it. To start another and compile its code again takes the
 * processor from a stage that is being drawn; and the crowd that this one drew would have to be drawn again.
 */
@Injectable({ providedIn: 'root' })
export class SpareWorkers {
  private readonly lines = new Map<Frequent, WorkerLine<PlanWorker>>();

  take(work: Frequent | null): WorkerLine<PlanWorker> {
    const spare = work && this.lines.get(work);
    if (!spare) return workerLine(new Worker(new URL('./plan.worker', import.meta.url), { type: 'module' }));
    this.lines.delete(work);
    return spare;
  }

  /** Takes back one that has answered all it was asked; one that nobody will ask for is ended. */
  give(work: Frequent | null, line: WorkerLine<PlanWorker>): void {
    if (!work || this.lines.has(work)) {
      line.end(new Error('not needed'));
      return;
    }
    this.lines.set(work, line);
    void line.ended.catch(() => {
      if (this.lines.get(work) === line) this.lines.delete(work);
    });
  }
}
