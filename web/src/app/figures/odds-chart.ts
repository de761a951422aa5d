import type { ReliabilityRow } from '@voltrek/core/quantities';
import type { EChartsCoreOption } from 'echarts/core';
import { FIGURES_PAGE as T } from '@words/screens/figures';
import { axis, line } from '../shared/ui/chart-parts';
import type { ChartColours } from '../shared/ui/colours';

/** The smallest and the largest dot, px across. */
const DOT_PX = { least: 8, most: 30 };

/** Odds that were said beside what happened; the dashed line is where they would be the same. Larger dots are more tries. */
export function oddsChart(rows: readonly ReliabilityRow[], c: ChartColours): EChartsCoreOption {
  const most = Math.max(1, ...rows.map(({ count }) => count));
  const scale = { min: 0, max: 100, interval: 25 };
  return {
    grid: { left: 46, right: 20, top: 30, bottom: 44 },
    xAxis: axis(c, T.said, { ...scale, nameLocation: 'middle', nameGap: 26 }),
    yAxis: axis(c, T.happened, { ...scale, nameTextStyle: { color: c.dim, fontSize: 14, align: 'left' } }),
    series: [
      line(
        '',
        [
          [0, 0],
          [100, 100],
        ],
        c.dim,
        { endLabel: { show: false }, lineStyle: { color: c.dim, width: 2, type: 'dashed' } },
      ),
      {
        type: 'scatter',
        itemStyle: { color: c.ink },
        data: rows.map(({ claimed, met, count }) => ({
          value: [100 * claimed, 100 * met],
          symbolSize: DOT_PX.least + (DOT_PX.most - DOT_PX.least) * Math.sqrt(count / most),
        })),
      },
    ],
  };
}
