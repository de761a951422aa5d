import { Injectable, type OnDestroy } from '@angular/core';
import { type Remote, wrap } from 'comlink';
import type { EChartsCoreOption } from 'echarts/core';
import type { ChartWorker, Room } from './chart.worker';

interface Running {
  readonly worker: Worker;
  readonly remote: Remote<ChartWorker>;
  /** Rejects when the worker fails, which then would answer nothing for ever. */
  readonly failed: Promise<never>;
}

/** Pictures of charts, drawn by a worker: a chart that is drawn on the screen's own thread holds up every tap meanwhile. */
@Injectable({ providedIn: 'root' })
export class ChartPictures implements OnDestroy {
  private running: Running | null = null;

  /** Starts the worker, so that the first picture need not wait for its code. */
  prepare(): void {
    this.running ??= this.start();
  }

  /**
   * A still picture in SVG. What answers to a pointer is no part of it.
   *
   * @param of with no functions in it but for its tooltip's, since it goes to another thread
   * @throws when there is no worker, as after an update that took its code away; the next picture asks a new one
   */
  async draw({ tooltip: _, ...of }: EChartsCoreOption, room: Room): Promise<string> {
    this.prepare();
    const asked = this.running!;
    try {
      return await Promise.race([asked.remote.picture(of, room), asked.failed]);
    } catch (error) {
      if (this.running === asked) this.stop();
      throw error;
    }
  }

  ngOnDestroy(): void {
    this.stop();
  }

  private start(): Running {
    const worker = new Worker(new URL('./chart.worker', import.meta.url), { type: 'module' });
    const failed = new Promise<never>((_, reject) => {
      worker.onerror = ({ message }) => reject(new Error(message));
    });
    // Nobody may be asking in the moment it fails.
    failed.catch(() => undefined);
    return { worker, remote: wrap<ChartWorker>(worker), failed };
  }

  private stop(): void {
    this.running?.worker.terminate();
    this.running = null;
  }
}
