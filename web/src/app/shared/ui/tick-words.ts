import type { EChartsCoreOption } from 'echarts/core';
import { oneOrSeveral } from './one-or-several';

/** The text at the ticks of an axis, in a form that can go to another thread. A function of its labels cannot. */
export interface TickWords {
  /** Words in place of a figure. */
  readonly words: Readonly<Record<number, string>>;
  /** At the other ticks stands nothing; otherwise their figure. */
  readonly onlyWords?: boolean;
}

/** A tick has no more digits than these but for what floating numbers add. */
const TICK_DIGITS = 9;

/** The same with what stands at the ticks told as the library wants it told. */
export function withTickWords(of: EChartsCoreOption): EChartsCoreOption {
  const axes = ['xAxis', 'yAxis'].filter((name) => of[name] !== undefined);
  return {
    ...of,
    ...Object.fromEntries(
      axes.map((name) => [name, oneOrSeveral(of[name] as Axis | readonly Axis[]).map(withWords)]),
    ),
  };
}

interface Axis {
  readonly axisLabel?: Partial<TickWords>;
}

function withWords(axis: Axis) {
  const { words, onlyWords, ...looks } = axis.axisLabel ?? {};
  if (!words) return axis;
  const figure = (tick: number) => (onlyWords ? '' : String(Number(tick.toPrecision(TICK_DIGITS))));
  return { ...axis, axisLabel: { ...looks, formatter: (tick: number) => words[tick] ?? figure(tick) } };
}
