import type { ChartColours } from './colours';

/** A point of a line. */
export type Pair = [x: number, y: number];

/** An axis in the house style. */
export const axis = (c: ChartColours, name: string, extra: object = {}) => ({
  type: 'value',
  name,
  nameTextStyle: { color: c.dim, fontSize: 14 },
  nameGap: 10,
  axisLine: { show: true, lineStyle: { color: c.line } },
  axisLabel: { color: c.dim, fontSize: 14 },
  splitLine: { lineStyle: { color: c.line, opacity: 0.6 } },
  ...extra,
});

/** A line that is named at its end. */
export const line = (name: string, data: Pair[], colour: string, extra: object = {}) => ({
  type: 'line',
  name,
  data,
  showSymbol: false,
  lineStyle: { color: colour, width: 2.5 },
  itemStyle: { color: colour },
  endLabel: { show: true, formatter: '{a}', color: colour, fontSize: 14 },
  ...extra,
});

/** A stretch of a line that is shaded and named: its crank, for one. */
export const shaded = (c: ChartColours, name: string, from: number, to: number) => ({
  itemStyle: { color: c.lamp, opacity: 0.22 },
  label: { show: true, color: c.dim, fontSize: 14, position: 'inside' },
  data: [[{ name, xAxis: from }, { xAxis: to }]],
});

/** Names at the end of two lines that run close together. */
export const endName = (dy: number) => (colour: string) => ({
  endLabel: { show: true, formatter: '{a}', color: colour, fontSize: 14, offset: [0, dy] },
});
