import {
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  ElementRef,
  inject,
  input,
  linkedSignal,
} from '@angular/core';
import type { ECharts, EChartsCoreOption } from 'echarts/core';
import { Store } from '@ngrx/store';
import { NgxEchartsDirective, provideEchartsCore } from 'ngx-echarts';
import { sessionFeature } from '../state/session';

/** The colours of the light level as it is now, for what is drawn on a canvas. */
export interface ChartColours {
  readonly ink: string;
  readonly dim: string;
  readonly line: string;
  readonly sheet: string;
  readonly body: string;
  readonly lamp: string;
  readonly ok: string;
  readonly bad: string;
  readonly positive: string;
}
const TOKENS = ['ink', 'dim', 'line', 'sheet', 'body', 'lamp', 'ok', 'bad', 'positive'] as const;

/** A chart in the house style. `draw` makes it from the colours of the light level; `summary` says it in words. */
@Component({
  selector: 'vt-chart',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [NgxEchartsDirective],
  providers: [provideEchartsCore({ echarts: () => import('./echarts').then((m) => m.default) })],
  template: `<div
    class="canvas"
    echarts
    [options]="options()"
    [autoResize]="false"
    [initOpts]="{ renderer: 'svg' }"
    (chartInit)="follow($event)"
    role="img"
    [attr.aria-label]="summary()"
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
    }
  `,
})
export class Chart {
  readonly draw = input.required<(colours: ChartColours) => EChartsCoreOption>();
  readonly summary = input.required<string>();

  private readonly light = inject(Store).selectSignal(sessionFeature.selectLight);
  private readonly colours = computed(() => {
    this.light();
    const style = getComputedStyle(document.documentElement);
    return Object.fromEntries(
      TOKENS.map((name) => [name, style.getPropertyValue(`--${name}`).trim()]),
    ) as unknown as ChartColours;
  });
  private readonly whole = computed(
    (): EChartsCoreOption => ({
      animation: false,
      textStyle: { fontFamily: 'Overpass Variable, system-ui, sans-serif', fontSize: 14 },
      ...this.draw()(this.colours()),
    }),
  );
  /** Axes first, then line by line, each in a task of its own: a first drawing in one go would hold the screen for too long. */
  protected readonly options = linkedSignal<EChartsCoreOption, EChartsCoreOption>({
    source: this.whole,
    computation: (whole, previous) => (previous ? whole : { ...whole, series: [] }),
  });
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  private readonly destroyed = inject(DestroyRef);

  /** Draws again when the room changes. The observer's first call, for the room it was made in, would draw everything twice. */
  protected follow(chart: ECharts): void {
    this.addLines(chart, 1);
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

  private addLines(chart: ECharts, count: number): void {
    setTimeout(() => {
      if (chart.isDisposed()) return;
      const whole = this.whole();
      const series = Array.isArray(whole.series) ? whole.series : [];
      this.options.set({ ...whole, series: series.slice(0, count) });
      if (count < series.length) this.addLines(chart, count + 1);
    });
  }
}
