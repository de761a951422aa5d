import { metres, section, unitWord } from '@words/units';
import { fixed } from '@words/numbers';
import type { CrankTrace, WakeTrace } from '@voltrek/core/crank';
import type { LeadSet } from '@voltrek/core/leads';
import type { LeadCell, WaitCurve } from '@voltrek/core/plan';
import type { EChartsCoreOption } from 'echarts/core';
import type { ChartColours } from '../../../shared/ui/colours';
import { axis, endName, line, type Pair } from '../../../shared/ui/chart-parts';
import { PLAN_CHARTS as T } from '@words/screens/job-stages-plan';

/** Points drawn of a trace: more than a chart has pixels for nothing. */
const DRAWN_POINTS = 160;

function pairs(seconds: Float64Array, values: Float64Array): Pair[] {
  const every = Math.max(1, Math.floor(seconds.length / DRAWN_POINTS));
  const list: Pair[] = [];
  for (let i = 0; i < seconds.length; i += every) list.push([seconds[i]!, values[i]!]);
  return list;
}

const tooltip = (c: ChartColours) => ({
  trigger: 'axis',
  backgroundColor: c.sheet,
  borderColor: c.ink,
  textStyle: { color: c.ink, fontSize: 14 },
});

const above = endName(-9);
const below = endName(9);

/** Volts above, speed against what is needed below, in time. Lines differ by dash and by name, not by colour alone. */
export function crankChart(trace: CrankTrace, c: ChartColours): EChartsCoreOption {
  const { seconds } = trace;
  const grid = { left: 46, right: 84, height: '30%' };
  const end = seconds.at(-1) ?? 1;
  const x = (gridIndex: number, isLast: boolean) =>
    axis(c, isLast ? 's' : '', { gridIndex, max: Math.ceil(end), axisLabel: { show: isLast, color: c.dim } });
  return {
    tooltip: { ...tooltip(c), valueFormatter: (v: unknown) => (typeof v === 'number' ? fixed(v, 1) : '') },
    grid: [
      { ...grid, top: 22 },
      { ...grid, top: '45%', height: '17%' },
      { ...grid, top: '73%', height: '17%' },
    ],
    xAxis: [x(0, false), x(1, false), x(2, true)],
    yAxis: [
      axis(c, 'V', { scale: true, splitNumber: 3 }),
      axis(c, 'A', { gridIndex: 1, splitNumber: 2, min: 0 }),
      axis(c, unitWord('rpm'), { gridIndex: 2, splitNumber: 2, min: 0 }),
    ],
    series: [
      line('battery', pairs(seconds, trace.postVolts), c.dim, {
        ...above(c.dim),
        lineStyle: { color: c.dim, width: 2, type: 'dashed' },
      }),
      line('starter', pairs(seconds, trace.starterVolts), c.ink, below(c.ink)),
      line('starter', pairs(seconds, trace.starterAmps), c.ink, {
        ...above(c.ink),
        xAxisIndex: 1,
        yAxisIndex: 1,
      }),
      line('help', pairs(seconds, trace.sourceAmps), c.dim, {
        ...below(c.dim),
        xAxisIndex: 1,
        yAxisIndex: 1,
        lineStyle: { color: c.dim, width: 2, type: 'dashed' },
      }),
      line('speed', pairs(seconds, trace.rpm), c.ink, {
        ...above(c.ink),
        xAxisIndex: 2,
        yAxisIndex: 2,
        markLine: {
          silent: true,
          symbol: 'none',
          data: [{ yAxis: trace.neededRpm }],
          lineStyle: { color: c.lamp, width: 2, type: 'solid' },
          label: { formatter: 'needed', color: c.ink, fontSize: 14 },
        },
      }),
    ],
  };
}

/** Odds by minutes waited, with the knee marked. */
export function waitChart(curve: WaitCurve, c: ChartColours): EChartsCoreOption {
  const data = curve.start.map((share, minute): Pair => [minute, Math.round(share * 1000) / 10]);
  return {
    tooltip: {
      ...tooltip(c),
      valueFormatter: (v: unknown) => (typeof v === 'number' ? T.odds({ odds: fixed(v) }) : ''),
    },
    grid: { left: 46, right: 24, top: 26, bottom: 40 },
    xAxis: axis(c, 'min', { max: Math.max(1, curve.start.length - 1), minInterval: 1 }),
    yAxis: axis(c, 'in 100', { min: 0, max: 100, splitNumber: 4 }),
    series: [
      line('odds', data, c.ink, {
        endLabel: { show: false },
        showSymbol: true,
        symbolSize: 6,
        markLine: {
          silent: true,
          symbol: 'none',
          data: [{ xAxis: curve.kneeMinutes }],
          lineStyle: { color: c.lamp, width: 3, type: 'solid' },
          label: {
            formatter: T.min({ minutes: curve.kneeMinutes }),
            color: c.ink,
            fontSize: 15,
            fontWeight: 700,
          },
        },
      }),
    ],
  };
}

export type LeadMetric = 'odds' | 'rpm' | 'starterVolts' | 'riseC';

/** How each figure of the grid is shown. */
export const LEAD_METRICS: Record<LeadMetric, { readonly show: (cell: LeadCell) => string }> = {
  odds: { show: (cell) => fixed(cell.odds * 100) },
  rpm: { show: (cell) => fixed(cell.rpm) },
  starterVolts: { show: (cell) => fixed(cell.starterVolts, 1) },
  riseC: { show: (cell) => `+${fixed(cell.riseC)}` },
};

/**
 * Section by length, copper above, clad below; each cell says its figure, so that nothing depends on shade alone.
 *
 * @param own the set in use, framed where the grid holds it
 */
export function leadChart(
  cells: readonly LeadCell[],
  own: LeadSet | null,
  metric: LeadMetric,
  c: ChartColours,
): EChartsCoreOption {
  const sections = [...new Set(cells.map((cell) => cell.sectionMm2))];
  const lengths = [...new Set(cells.map((cell) => cell.lengthM))];
  const values = cells.map((cell) => cell[metric]);
  const materials = ['copper', 'copper-clad-aluminium'] as const;
  return {
    grid: materials.map((_, i) => ({ left: 62, right: 8, top: i === 0 ? 28 : '57%', height: '31%' })),
    xAxis: materials.map((_, gridIndex) => ({
      type: 'category',
      gridIndex,
      data: sections.map((mm2, k) =>
        k === sections.length - 1 ? section(mm2) : section(mm2).split(' ')[0]!,
      ),
      axisLabel: { color: c.dim, fontSize: 14, interval: 0, show: gridIndex === 1 },
      axisLine: { lineStyle: { color: c.line } },
      axisTick: { show: false },
    })),
    yAxis: materials.map((material, gridIndex) => ({
      type: 'category',
      gridIndex,
      name: material === 'copper' ? T.copper : T.clad,
      nameTextStyle: { color: c.ink, fontSize: 15, fontWeight: 700 },
      nameGap: 8,
      data: lengths.map((l) => metres(l)),
      axisLabel: { color: c.dim, fontSize: 14 },
      axisLine: { lineStyle: { color: c.line } },
      axisTick: { show: false },
    })),
    visualMap: {
      show: false,
      min: Math.min(...values),
      max: Math.max(Math.min(...values) + 1e-6, ...values),
      inRange: { color: metric === 'riseC' ? [c.sheet, c.lamp] : [c.sheet, c.body] },
    },
    series: materials.map((material, i) => ({
      type: 'heatmap',
      xAxisIndex: i,
      yAxisIndex: i,
      data: cells
        .filter((cell) => cell.conductor === material)
        .map((cell) => ({
          value: [sections.indexOf(cell.sectionMm2), lengths.indexOf(cell.lengthM), cell[metric]],
          // The set in use is framed.
          ...(own?.sectionMm2 === cell.sectionMm2 &&
            own.lengthM === cell.lengthM &&
            own.conductor === cell.conductor && { itemStyle: { borderColor: c.ink, borderWidth: 3 } }),
          label: { show: true, formatter: LEAD_METRICS[metric].show(cell), color: c.ink, fontSize: 14 },
        })),
      itemStyle: { borderColor: c.line, borderWidth: 1 },
    })),
  };
}

/** Volts at the posts while the control units wake: with the traction battery charged, and flat. */
export function wakeChart(
  charged: WakeTrace,
  flat: WakeTrace,
  minVolts: number,
  c: ChartColours,
): EChartsCoreOption {
  return {
    tooltip: {
      ...tooltip(c),
      valueFormatter: (v: unknown) => (typeof v === 'number' ? `${fixed(v, 1)} V` : ''),
    },
    grid: { left: 46, right: 116, top: 26, bottom: 40 },
    xAxis: axis(c, 's', { max: Math.ceil(charged.seconds.at(-1) ?? 1) }),
    yAxis: axis(c, 'V', { scale: true, splitNumber: 4 }),
    series: [
      line(T.tractionFlat, pairs(flat.seconds, flat.postVolts), c.dim, {
        lineStyle: { color: c.dim, width: 2, type: 'dashed' },
      }),
      line('converter', pairs(charged.seconds, charged.postVolts), c.ink, {
        markLine: {
          silent: true,
          symbol: 'none',
          data: [{ yAxis: minVolts }],
          lineStyle: { color: c.lamp, width: 2, type: 'solid' },
          label: { formatter: 'least', color: c.ink, fontSize: 14 },
        },
      }),
    ],
  };
}
