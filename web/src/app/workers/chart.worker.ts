import { expose } from 'comlink';
import { HeatmapChart, LineChart, ScatterChart } from 'echarts/charts';
import { GridComponent, MarkAreaComponent, MarkLineComponent, VisualMapComponent } from 'echarts/components';
import { type EChartsCoreOption, init, use } from 'echarts/core';
import { LabelLayout } from 'echarts/features';
import { SVGRenderer } from 'echarts/renderers';
import { withTickWords } from '../shared/ui/tick-words';

// Without a window the library takes Node's name for what is global, in builds that are not the released one.
Object.assign(globalThis, { global: globalThis });

use([
  SVGRenderer,
  GridComponent,
  HeatmapChart,
  LabelLayout,
  LineChart,
  MarkAreaComponent,
  MarkLineComponent,
  ScatterChart,
  VisualMapComponent,
]);

/** The room of a chart, px. */
export interface Room {
  readonly width: number;
  readonly height: number;
}

/** The tasks of the chart worker. */
export interface ChartWorker {
  /** A still picture, as SVG. Widths of words are estimated: a worker has no fonts. */
  picture(of: EChartsCoreOption, room: Room): string;
}

/** Nothing of a picture moves or answers a pointer: a style sheet for that is refused by the page's policy. */
const STILL = { cssAnimation: false, cssEmphasis: false } as const;

interface SvgPainter {
  renderToString(as: typeof STILL): string;
}

const worker: ChartWorker = {
  picture: (of, room) => {
    const chart = init(null, null, { renderer: 'svg', ssr: true, ...room });
    chart.setOption(withTickWords(of));
    const svg = (chart.getZr().painter as unknown as SvgPainter).renderToString(STILL);
    chart.dispose();
    return svg;
  },
};

expose(worker);
