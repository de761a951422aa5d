import type { Cause } from '@voltrek/core/diagnosis';
import type { BeliefPoint } from '@voltrek/core/practice';
import type { EChartsCoreOption } from 'echarts/core';
import { CAUSE_WORDS } from '@words/diagnosis-words';
import { inHundred } from '@words/figures';
import { allOf } from '@words/numbers';
import { DEBRIEF as T } from '@words/screens/practice';
import { axis, line, type Pair } from '../shared/ui/chart-parts';
import type { ChartColours } from '../shared/ui/colours';

/** So many suspicions are drawn: those that stood highest at any moment. */
const DRAWN = 4;

const shareAt = ({ shares }: BeliefPoint, cause: Cause): number => shares.get(cause) ?? 0;

/** The causes that are drawn, the likeliest at the end first. */
function drawnOf(points: readonly BeliefPoint[]): readonly Cause[] {
  const last = points.at(-1)!;
  const highest = (cause: Cause): number => Math.max(...points.map((point) => shareAt(point, cause)));
  return [...last.shares.keys()]
    .sort((a, b) => highest(b) - highest(a))
    .slice(0, DRAWN)
    .sort((a, b) => shareAt(last, b) - shareAt(last, a));
}

/** The suspicion of each cause over the minutes of a run: it steps with each finding. */
export function beliefChart(points: readonly BeliefPoint[], c: ChartColours): EChartsCoreOption {
  const colours = [c.ink, c.bad, c.ok, c.dim];
  return {
    grid: { left: 46, right: 150, top: 30, bottom: 44 },
    xAxis: axis(c, T.minutesAxis, { max: points.at(-1)!.atMinutes, nameLocation: 'middle', nameGap: 26 }),
    yAxis: axis(c, T.inHundred, { min: 0, max: 100 }),
    series: drawnOf(points).map((cause, n) =>
      line(
        CAUSE_WORDS[cause],
        points.map((point): Pair => [point.atMinutes, 100 * shareAt(point, cause)]),
        colours[n]!,
        { step: 'end', labelLayout: { moveOverlap: 'shiftY' } },
      ),
    ),
  };
}

/** The same in words: where it ended. */
export const beliefSummary = (points: readonly BeliefPoint[]): string =>
  allOf(drawnOf(points).map((cause) => `${CAUSE_WORDS[cause]} ${inHundred(shareAt(points.at(-1)!, cause))}`));
