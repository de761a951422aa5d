import {
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  effect,
  ElementRef,
  inject,
  input,
  signal,
  untracked,
  viewChild,
} from '@angular/core';
import type { ECharts, EChartsCoreOption } from 'echarts/core';
import type { Room } from '../../workers/chart.worker';
import { ChartPictures } from '../../workers/chart-pictures';
import { type ChartColours, Colours } from './colours';
import { Frames } from '../model/frames';
import { oneOrSeveral } from './one-or-several';
import { withTickWords } from './tick-words';

/** From one picture to the next at the least, ms: what is computed tells more and more, faster than anybody looks. */
const REDRAW_MS = 600;

/** The parts of every chart. */
const BASE: EChartsCoreOption = {
  animation: false,
  textStyle: { fontFamily: 'Overpass Variable, system-ui, sans-serif', fontSize: 14 },
};

/**
 * A chart in the house style: a still picture that a worker draws. One that tells its figures to a pointer is drawn here once a pointer comes.
 * `draw` makes it from the colours of the light level; `summary` says it in words, which is all there is where no picture can be had.
 */
@Component({
  selector: 'vt-chart',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `<div
    #canvas
    class="canvas"
    role="img"
    [attr.aria-label]="summary()"
    (pointerenter)="pointed($event)"
  ></div>`,
  styles: `
    :host {
      display: block;
      height: 100%;
      min-height: 0;
    }
    .canvas {
      width: 100%;
      height: 100%;
      /* What is drawn anew lays out nothing else; a tooltip may stand out of it. */
      contain: layout style;
    }
  `,
})
export class Chart {
  readonly draw = input.required<(colours: ChartColours) => EChartsCoreOption>();
  readonly summary = input.required<string>();

  private readonly colours = inject(Colours).now;
  private readonly whole = computed((): EChartsCoreOption => {
    const { grid, ...others } = this.draw()(this.colours());
    return {
      ...BASE,
      ...others,
      ...(grid !== undefined && {
        grid: oneOrSeveral(grid as object | readonly object[]).map(withoutAutoMargin),
      }),
    };
  });
  private readonly canvas = viewChild.required<ElementRef<HTMLElement>>('canvas');
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  private readonly destroyed = inject(DestroyRef);
  private readonly frames = inject(Frames);
  private readonly pictures = inject(ChartPictures);
  /** Null until it is laid out. */
  private readonly room = signal<Room | null>(null);
  private readonly requested = computed(() => {
    const room = this.room();
    return room && { of: this.whole(), room };
  });
  /** The chart that answers to the pointer, once there was one. */
  private readonly live = signal<ECharts | null>(null);
  private goesLive = false;
  private isDrawing = false;
  private finished: () => void = () => undefined;

  constructor() {
    this.frames.during(new Promise<void>((resolve) => (this.finished = resolve)));
    const observer = new ResizeObserver(([entry]) => {
      const { width, height } = entry!.contentRect;
      this.room.set(width > 0 && height > 0 ? { width, height } : null);
    });
    observer.observe(this.host);
    this.destroyed.onDestroy(() => {
      observer.disconnect();
      this.live()?.dispose();
      this.finished();
    });
    effect(() => {
      const requested = this.requested();
      const live = this.live();
      if (!requested) return;
      if (live) redraw(live, requested.of, requested.room);
      else void untracked(() => this.paint());
    });
  }

  /** Picture after picture, until the last is the requested one. Requests that passed are not drawn. */
  private async paint(): Promise<void> {
    if (this.isDrawing) return;
    this.isDrawing = true;
    let painted = null;
    for (let requested = this.requested(); requested && requested !== painted; requested = this.requested()) {
      const svg = await this.pictures.draw(requested.of, requested.room).catch(() => null);
      await this.frames.after('turn');
      if (this.destroyed.destroyed || this.goesLive) break;
      if (svg !== null) this.canvas().nativeElement.innerHTML = svg;
      this.finished();
      painted = requested;
      await new Promise((resolve) => setTimeout(resolve, REDRAW_MS));
    }
    this.isDrawing = false;
  }

  /** Draws here what has figures to tell, and tells those under the pointer. */
  protected async pointed({ offsetX: x, offsetY: y }: PointerEvent): Promise<void> {
    if (this.goesLive || !('tooltip' in this.whole())) return;
    this.goesLive = true;
    const code = await import('./live-chart').catch(() => null);
    if (this.destroyed.destroyed) return;
    this.goesLive = code !== null;
    if (!code) return;
    const canvas = this.canvas().nativeElement;
    canvas.replaceChildren();
    const chart = code.liveChart(canvas);
    chart.setOption(withTickWords(this.whole()));
    chart.dispatchAction({ type: 'showTip', x, y });
    this.live.set(chart);
  }
}

function redraw(chart: ECharts, of: EChartsCoreOption, { width, height }: Room): void {
  if (chart.getWidth() !== width || chart.getHeight() !== height) chart.resize();
  chart.setOption(withTickWords(of), { notMerge: true, lazyUpdate: true });
}

/** A grid where it is given: to move it by how wide its names come out, the library would lay out each axis twice. */
const withoutAutoMargin = (grid: object) => ({ ...grid, outerBoundsMode: 'none' });
