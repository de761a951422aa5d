import { LineChart } from 'echarts/charts';
import { GridComponent, MarkLineComponent, TooltipComponent } from 'echarts/components';
import { type ECharts, init, use } from 'echarts/core';
import { SVGRenderer } from 'echarts/renderers';

use([SVGRenderer, GridComponent, LineChart, MarkLineComponent, TooltipComponent]);

/** A chart of lines that tells its figures to a pointer. */
export const liveChart = (room: HTMLElement): ECharts => init(room, null, { renderer: 'svg' });
