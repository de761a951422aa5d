import { Injectable, type OnDestroy } from '@angular/core';
import type { EChartsCoreOption } from 'echarts/core';
import type { ChartWorker, Room } from './chart.worker';
import { type WorkerLine, workerLine } from './worker-line';

/** Pictures of charts, drawn by a worker: a chart that is drawn on the screen's own thread holds up every tap meanwhile. */
@Injectable({ providedIn: 'root' })
export class ChartPictures implements OnDestroy {
  private line: WorkerLine<ChartWorker> | null = null;

  /** Starts the worker, so that the first picture need not wait for its code. */
  prepare(): void {
    this.line ??= workerLine(new Worker(new URL('./chart.worker', import.meta.url), { type: 'module' }));
  }

  /**
   * A still picture in SVG. What answers to a pointer is no part of it.
   *
   * @param of with no functions in it but for its tooltip's, since it goes to another thread
   * @throws when there is no worker, as after an update that took its code away; the next picture asks a new one
   */
  async draw({ tooltip: _, ...of }: EChartsCoreOption, room: Room): Promise<string> {
    this.prepare();
    const asked = this.line!;
    try {
      return await Promise.race([asked.remote.picture(of, room), asked.ended]);
    } catch (error) {
      if (this.line === asked) this.stop();
      throw error;
    }
  }

  ngOnDestroy(): void {
    this.stop();
  }

  private stop(): void {
    this.line?.end(new Error('stopped'));
    this.line = null;
  }
}
