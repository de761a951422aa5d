import {
  afterNextRender,
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  effect,
  ElementRef,
  inject,
  input,
  signal,
  viewChild,
} from '@angular/core';
import type { ECharts, EChartsCoreOption } from 'echarts/core';
import { type ChartColours, Colours } from './colours';
import { Drawings } from './idle';

/** From one picture to the next at the least, ms. */
const REDRAW_MS = 600;

/** What every chart has. */
const BASE: EChartsCoreOption = {
  animation: false,
  textStyle: { fontFamily: 'Overpass Variable, system-ui, sans-serif', fontSize: 14 },
};

/** A chart in the house style. `draw` makes it from the colours of the light level; `summary` says it in words. */
@Component({
  selector: 'vt-chart',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `<div #canvas class="canvas" role="img" [attr.aria-label]="summary()"></div>`,
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
    return { ...BASE, ...others, ...(grid !== undefined && { grid: partsOf(grid).map(asGiven) }) };
  });
  private readonly canvas = viewChild.required<ElementRef<HTMLElement>>('canvas');
  private readonly chart = signal<ECharts | null>(null);
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  private readonly destroyed = inject(DestroyRef);
  private readonly drawings = inject(Drawings);
  /** When the last picture was drawn. */
  private drawnAtMs = -Infinity;
  private finished: () => void = () => undefined;

  constructor() {
    this.drawings.add(new Promise((resolve) => (this.finished = resolve)));
    this.destroyed.onDestroy(() => {
      this.chart()?.dispose();
      this.finished();
    });
    afterNextRender(() => void this.begin());
    let isFirst = true;
    effect(() => {
      const chart = this.chart();
      if (!chart) return;
      // Not before: asked for its colours in the middle of a change of the page, the browser would work out all styles twice.
      const whole = this.whole();
      if (isFirst) void this.drawSteps(chart, whole);
      else setTimeout(() => void this.drawWhole(chart, whole), this.untilNextMs());
      isFirst = false;
    });
  }

  /** Its code comes late, maybe when its place is gone again: the library would hold on to a chart that is made then. */
  private async begin(): Promise<void> {
    const code = await import('./echarts').catch(() => null);
    if (this.destroyed.destroyed) return;
    if (!code) {
      // The picture stays away; its summary is there in words.
      this.finished();
      return;
    }
    const chart = code.default.init(this.canvas().nativeElement, null, { renderer: 'svg' });
    chart.setOption(BASE);
    this.follow(chart);
    this.chart.set(chart);
  }

  /** Draws again when the room changes. The observer's first call, for the room it was made in, would draw everything twice. */
  private follow(chart: ECharts): void {
    let size = `${this.host.clientWidth}x${this.host.clientHeight}`;
    const observer = new ResizeObserver(() => {
      const now = `${this.host.clientWidth}x${this.host.clientHeight}`;
      if (now === size || chart.isDisposed()) return;
      size = now;
      chart.resize();
    });
    observer.observe(this.host);
    this.destroyed.onDestroy(() => observer.disconnect());
  }

  /** What is computed tells more and more: pictures follow one another no faster than they are looked at, the last of them always. */
  private untilNextMs(): number {
    return Math.max(0, this.drawnAtMs + REDRAW_MS - performance.now());
  }

  /** Afterwards all at once, and not at all when a newer picture waits behind it. */
  private async drawWhole(chart: ECharts, of: EChartsCoreOption): Promise<void> {
    await this.drawings.turn();
    if (chart.isDisposed() || this.whole() !== of) return;
    // What is to be drawn is worked out now, and drawn in the next frame.
    chart.setOption(of, { notMerge: true, lazyUpdate: true });
    this.drawnAtMs = performance.now();
  }

  /** Each step in a task of its own. A newer picture, which comes whole, ends them. */
  private async drawSteps(chart: ECharts, of: EChartsCoreOption): Promise<void> {
    for (const step of stepsOf(of)) {
      await new Promise((resolve) => setTimeout(resolve));
      if (chart.isDisposed() || this.whole() !== of) break;
      chart.setOption(step);
    }
    this.finished();
  }
}

/**
 * A first drawing in one go would hold the screen for too long: what all share, the bare first grid, then grid by grid with its axes, the one
 * across and the one up, then line by line. Each step has what came before it.
 */
function stepsOf(whole: EChartsCoreOption): EChartsCoreOption[] {
  const { grid, xAxis, yAxis, series } = whole;
  const axes = (all: unknown, count: number, shown: number) =>
    partsOf(all)
      .slice(0, count)
      .map((axis, i) => ({ ...axis, show: i < shown && axis.show !== false }));
  const grids = (count: number, shown: { across: number; up: number }): EChartsCoreOption => ({
    grid: partsOf(grid).slice(0, count),
    xAxis: axes(xAxis, count, shown.across),
    yAxis: axes(yAxis, count, shown.up),
  });
  return [
    { ...whole, grid: [], xAxis: [], yAxis: [], series: [] },
    grids(1, { across: 0, up: 0 }),
    ...partsOf(grid).flatMap((_, i) => [
      grids(i + 1, { across: i + 1, up: i }),
      grids(i + 1, { across: i + 1, up: i + 1 }),
    ]),
    ...partsOf(series).map((_, i) => ({ series: partsOf(series).slice(0, i + 1) })),
  ];
}

interface Part {
  readonly show?: boolean;
}

/** What may be given as one or as several. */
const partsOf = (given: unknown): readonly Part[] => [(given ?? []) as Part | readonly Part[]].flat();

/** A grid where it is given: to move it by how wide its names come out, the library would lay out each axis twice. */
const asGiven = (grid: Part): Part & { readonly outerBoundsMode: 'none' } => ({
  ...grid,
  outerBoundsMode: 'none',
});
