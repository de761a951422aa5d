import type { TraceDrill } from '@voltrek/core/practice';
import { volts } from '@words/figures';
import { DRILL_PAGE as T } from '@words/screens/practice';
import type { EChartsCoreOption } from 'echarts/core';
import type { ChartColours } from '../shared/ui/colours';
import { axis, line, shaded } from '../shared/ui/chart-parts';

/** Volts against time with the start shaded: what a meter logged, and nothing that names it. */
export function drillTrace({ points, crank }: TraceDrill, c: ChartColours): EChartsCoreOption {
  const values = points.map(([, v]) => v);
  return {
    grid: { left: 46, right: 18, top: 22, bottom: 30 },
    xAxis: axis(c, 's', { max: Math.ceil(points.at(-1)![0]) }),
    yAxis: axis(c, 'V', {
      min: Math.floor(Math.min(...values) - 0.5),
      max: Math.ceil(Math.max(...values) + 0.5),
    }),
    series: [
      line(
        'volts',
        points.map(([x, y]) => [x, y]),
        c.ink,
        {
          endLabel: { show: false },
          lineStyle: { color: c.ink, width: 1.6 },
          markArea: shaded(c, T.keyAtStart, crank.fromSeconds, crank.toSeconds),
        },
      ),
    ],
  };
}

/** The same in words, for who cannot see it: these figures are enough to answer. */
export function drillTraceWords({ points, crank, restVolts, lastVolts }: TraceDrill): string {
  const inCrank = points.filter(([s]) => s >= crank.fromSeconds && s < crank.toSeconds).map(([, v]) => v);
  const late = inCrank.slice(Math.floor(inCrank.length / 2));
  return T.traceInWords({
    rest: volts(restVolts),
    least: volts(Math.min(...inCrank)),
    low: volts(Math.min(...late)),
    high: volts(Math.max(...late)),
    last: volts(lastVolts),
  });
}
