import { type Chosen, frontier, type Way } from '@voltrek/core/plan';
import type { EChartsCoreOption } from 'echarts/core';
import type { ChartColours } from '../../../shared/ui/colours';
import { axis, type Pair } from '../../../shared/ui/chart-parts';
import { WAYS_CHART as T } from '@words/screens/job-stages-plan';

/** A part that answers to no pointer needs no looks for when it is pointed at. */
const STILL = { silent: true, emphasis: { disabled: true } } as const;

/** Beyond this many minutes nothing is drawn that does not have to be. */
const USUAL_MINUTES = 30;

/**
 * Odds by minutes: the best odds as a line, all else as dots behind it, the chosen way filled, and the wanted certainty.
 *
 * @param chosen what is looked at; null while nothing is known
 */
export function waysChart(
  ways: readonly Way[],
  chosen: Chosen | null,
  sureness: number,
  c: ChartColours,
): EChartsCoreOption {
  const best = frontier(ways);
  const longest = Math.max(
    USUAL_MINUTES,
    chosen?.point.minutes ?? 0,
    ...best.filter((b) => b.point.start < sureness).map((b) => b.point.minutes),
    best.find((b) => b.point.start >= sureness)?.point.minutes ?? 0,
  );
  const end = Math.ceil(longest / 10) * 10;
  const at = ({ minutes, start }: { minutes: number; start: number }): Pair => [minutes, start * 100];
  const isDrawn = ([minutes]: Pair): boolean => minutes <= end;
  const behind = ways.flatMap((way) => way.points.map(at)).filter(isDrawn);
  const front = best.map(({ point }) => at(point)).filter(isDrawn);
  // A way that could be had stays to be had.
  const held: Pair[] = front.length > 0 ? [...front, [end, front.at(-1)![1]]] : [];
  return {
    grid: { left: 58, right: 28, top: 14, bottom: 30 },
    xAxis: axis(c, '', {
      min: 0,
      max: end,
      axisLabel: {
        color: c.dim,
        fontSize: 14,
        words: { 0: T.now, [end]: T.min({ minutes: end }) },
      },
      splitLine: { show: false },
    }),
    yAxis: axis(c, '', {
      min: 0,
      max: 100,
      interval: 50,
      axisLabel: {
        color: c.dim,
        fontSize: 14,
        words: { 0: T.never, 50: T.half, 100: T.surely },
        onlyWords: true,
      },
    }),
    series: [
      {
        type: 'scatter',
        data: behind,
        symbolSize: 7,
        // One path for all of them, once there are some: each as an element of its own is what makes the picture slow.
        large: behind.length > 0,
        largeThreshold: 0,
        itemStyle: { color: c.dim, opacity: 0.55 },
        ...STILL,
      },
      {
        type: 'line',
        data: held,
        step: 'end',
        showSymbol: false,
        lineStyle: { color: c.ink, width: 3 },
        ...STILL,
        markLine: {
          silent: true,
          symbol: 'none',
          data: [{ yAxis: sureness * 100 }],
          lineStyle: { color: c.lamp, width: 2.5, type: 'solid' },
          label: { show: false },
        },
      },
      {
        type: 'scatter',
        data: front,
        symbolSize: 13,
        itemStyle: { color: c.sheet, borderColor: c.ink, borderWidth: 2.5 },
        ...STILL,
      },
      {
        type: 'scatter',
        data: chosen ? [at(chosen.point)].filter(isDrawn) : [],
        symbolSize: 20,
        itemStyle: { color: c.lamp, borderColor: c.ink, borderWidth: 3 },
        ...STILL,
      },
    ],
  };
}
