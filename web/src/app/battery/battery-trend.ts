import type { BatteryRecord } from '@voltrek/contracts';
import { strengthPoints, type StrengthTrend, strengthTrend } from '@voltrek/core/verdict';
import type { EChartsCoreOption } from 'echarts/core';
import type { ChartColours } from '../shared/ui/colours';
import { axis, endName, line, type Pair } from '../shared/ui/chart-parts';
import { percent } from '@words/figures';
import { DAY_MS } from '@voltrek/core/quantities';
import { BATTERY_TREND as T } from '@words/screens/battery';

/** The trend is drawn this far on, days; further where the fall lies there. */
const AHEAD_DAYS = 400;
const DRAWN_POINTS = 24;
const MARGIN_DAYS = 20;
/** A band in which four in five readings would lie. */
const BAND_SPREADS = 1.28;

const timeOf = (day: number): number => day * DAY_MS;

/** The drawing of a battery's trend. */
export type BatteryLife = Pick<BatteryRecord, 'entries'>;

/** Strength of one battery over time and where it is going; null without a reading of it. */
export function trendOf(life: BatteryLife, needShare: number | null): StrengthTrend | null {
  const points = strengthPoints(life.entries);
  return points.length === 0 ? null : strengthTrend(points, needShare ?? 0);
}

/** Strength above with its trend and what the machine needs; rest volts below, and where it had to be helped. */
export function batteryChart(
  life: BatteryLife,
  needShare: number | null,
  trend: StrengthTrend | null,
  c: ChartColours,
): EChartsCoreOption {
  const strengths = strengthPoints(life.entries);
  const rest = life.entries.flatMap(({ at, volts }): Pair[] =>
    volts === null ? [] : [[Date.parse(at), volts]],
  );
  const jumps = life.entries.filter((e) => e.kind === 'jump').map((e) => ({ xAxis: Date.parse(e.at) }));
  const times = life.entries.map((e) => Date.parse(e.at));
  const from = Math.min(...times) - MARGIN_DAYS * DAY_MS;
  const last = Math.max(...times);
  const fall = trend?.fallsBelow.day ?? null;
  const to = Math.min(
    last + 6 * 365 * DAY_MS,
    Math.max(last + AHEAD_DAYS * DAY_MS, fall ? timeOf(fall + AHEAD_DAYS / 2) : 0),
  );
  const along = Array.from({ length: DRAWN_POINTS + 1 }, (_, i) => from + ((to - from) * i) / DRAWN_POINTS);
  const band = (spreads: number): Pair[] =>
    trend
      ? along.map((t) => {
          const { share, spread } = trend.at(t / DAY_MS);
          return [t, Math.max(0, (share + spreads * spread) * 100)];
        })
      : [];
  const likely = band(0);
  const isAbove = (likely.at(-1)?.[1] ?? 0) >= (needShare ?? 0) * 100;
  const time = (gridIndex: number, show: boolean) =>
    axis(c, '', {
      type: 'time',
      gridIndex,
      min: from,
      max: to,
      splitNumber: 6,
      axisLabel: { show, color: c.dim, fontSize: 14, hideOverlap: true },
      splitLine: { show: false },
    });
  const plain = { endLabel: { show: false } };
  const dots = (colour: string) => ({
    ...plain,
    showSymbol: true,
    symbolSize: 9,
    lineStyle: { width: 0 },
    itemStyle: { color: colour },
  });
  return {
    grid: [
      { left: 52, right: 96, top: 26, height: '54%' },
      { left: 52, right: 96, bottom: 30, height: '18%' },
    ],
    xAxis: [time(0, false), time(1, true)],
    yAxis: [
      axis(c, T.ofItsRating, { gridIndex: 0, min: 0, max: 120 }),
      axis(c, T.vAtRest, {
        gridIndex: 1,
        min: Math.floor(Math.min(11, ...rest.map(([, v]) => v))),
        max: 13,
        interval: 1,
      }),
    ],
    series: [
      line('likely', likely, c.ink, endName(isAbove ? -9 : 9)(c.ink)),
      line('low', band(-BAND_SPREADS), c.dim, {
        ...plain,
        lineStyle: { color: c.dim, type: 'dashed', width: 1.5 },
      }),
      line('high', band(BAND_SPREADS), c.dim, {
        ...plain,
        lineStyle: { color: c.dim, type: 'dashed', width: 1.5 },
      }),
      line(
        'needed',
        needShare === null
          ? []
          : [
              [from, needShare * 100],
              [to, needShare * 100],
            ],
        c.bad,
        { ...endName(isAbove ? 9 : -9)(c.bad), lineStyle: { color: c.bad, type: 'dotted', width: 2.5 } },
      ),
      line(
        'read',
        strengths.map(({ day, share }) => [timeOf(day), share * 100]),
        c.ink,
        dots(c.ink),
      ),
      line('rest', rest, c.ink, {
        ...dots(c.ink),
        xAxisIndex: 1,
        yAxisIndex: 1,
        markLine: {
          symbol: 'none',
          label: { show: false },
          lineStyle: { color: c.lamp, width: 2 },
          data: jumps,
        },
      }),
    ],
  };
}

export function batterySummary(life: BatteryLife, trend: StrengthTrend | null): string {
  const count = strengthPoints(life.entries).length;
  if (!trend) return T.noReadings;
  return T.summary({
    count,
    perYear: percent(Math.abs(trend.perYear)),
    direction: trend.perYear < 0 ? 'lost' : 'gained',
  });
}
