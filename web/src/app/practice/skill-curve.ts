import type { EChartsCoreOption } from 'echarts/core';
import { LADDER_PAGE as T } from '@words/screens/practice';
import { axis, line, type Pair } from '../shared/ui/chart-parts';
import type { ChartColours } from '../shared/ui/colours';
import type { EndedCase } from './practice-record';

/** The share is of so many of the newest skills that were asked for. */
const NEWEST = 20;

/** After so many cases: the share of the newest skills asked for that were shown, and how many those are. */
export interface CurvePoint {
  readonly cases: number;
  readonly share: number;
  readonly asked: number;
}

/** The curve of one who practises, a point for each case. @param ended oldest first */
export function skillCurve(ended: readonly EndedCase[]): readonly CurvePoint[] {
  let newest: readonly boolean[] = [];
  return ended.map(({ skills }, i) => {
    newest = [...newest, ...skills.map(({ good }) => good)].slice(-NEWEST);
    const asked = newest.length;
    return { cases: i + 1, share: asked > 0 ? newest.filter(Boolean).length / asked : 0, asked };
  });
}

export function curveChart(points: readonly CurvePoint[], c: ChartColours): EChartsCoreOption {
  return {
    grid: { left: 46, right: 20, top: 30, bottom: 44 },
    xAxis: axis(c, T.casesAxis, {
      min: 1,
      max: Math.max(2, points.length),
      minInterval: 1,
      nameLocation: 'middle',
      nameGap: 26,
    }),
    yAxis: axis(c, '%', { min: 0, max: 100, interval: 25 }),
    series: [
      line(
        '',
        points.map(({ cases, share }): Pair => [cases, 100 * share]),
        c.ink,
        { showSymbol: true, symbolSize: 8, endLabel: { show: false } },
      ),
    ],
  };
}
