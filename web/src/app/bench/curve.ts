import {
  BENCH_FIELDS,
  BENCH_PATH_UNITS,
  BENCH_PATHS,
  type BenchField,
  type BenchPath,
  type BenchResult,
} from '@words/bench-words';
import { plainNumber } from '@words/numbers';
import type { BenchTool, CurveSpec, Given, NumberField, Pair } from './tool';

/** A curve of the values as they stand. */
export interface Curve {
  readonly xName: string;
  readonly xUnit: string;
  readonly yUnit: string;
  readonly xEnds: Pair;
  readonly lines: readonly { readonly key: BenchResult | BenchPath; readonly points: readonly Pair[] }[];
  /** The point of the values; null where the curve does not come to them. */
  readonly now: Pair | null;
  /** The figure that moving along the curve to `x` comes to, as it is typed; null where there is none. */
  readonly typedAt: (x: number) => { readonly field: BenchField; readonly text: string } | null;
}

const STEPS = 60;

/** The curve of a tool at these values; null where it has none, or a value cannot be computed. */
export function curveOf(tool: BenchTool, given: Given): Curve | null {
  const curve = typeof tool.curve === 'function' ? tool.curve(given) : tool.curve;
  return curve.kind === 'sweep' ? sweep(tool, curve, given) : path(tool, curve, given);
}

function sweep(
  tool: BenchTool,
  { over, results, from, to }: Extract<CurveSpec, { kind: 'sweep' }>,
  given: Given,
): Curve | null {
  const { range } = fieldOf(tool, over);
  const x = given.number(over);
  const least = Math.min(x, from ?? range.min);
  const most = Math.max(x, to ?? range.max);
  const at = (value: number, key: BenchResult): { value: number; unit: string } | null => {
    const changed: Given = { ...given, number: (k) => (k === over ? value : given.number(k)) };
    try {
      const found = tool.compute(changed).find((r) => r.key === key);
      return found?.value === undefined ? null : { value: found.value, unit: found.unit };
    } catch (error) {
      if (error instanceof RangeError) return null;
      throw error;
    }
  };
  const lines = results.map((key) => ({
    key,
    points: Array.from({ length: STEPS + 1 }, (_, i): Pair | null => {
      const value = least + ((most - least) * i) / STEPS;
      const y = at(value, key);
      return y && [value, y.value];
    }).filter((p) => p !== null),
  }));
  const here = at(x, results[0]!);
  if (!here || lines.every(({ points }) => points.length < 2)) return null;
  return {
    xName: BENCH_FIELDS[over],
    xUnit: range.unit,
    yUnit: here.unit,
    xEnds: [least, most],
    lines,
    now: [x, here.value],
    typedAt: (value) => ({ field: over, text: typed(value, most - least) }),
  };
}

function path(
  tool: BenchTool,
  { path: name, until, of }: Extract<CurveSpec, { kind: 'path' }>,
  given: Given,
): Curve | null {
  const points = of(given).filter(([x, y]) => Number.isFinite(x) && Number.isFinite(y));
  if (points.length < 2) return null;
  const goal = given.number(until);
  const isRising = points.at(-1)![1] >= points[0]![1];
  const now = points.find(([, y]) => (isRising ? y >= goal : y <= goal)) ?? null;
  const { range } = fieldOf(tool, until);
  return {
    xName: BENCH_PATHS[name].over,
    xUnit: BENCH_PATH_UNITS[name],
    yUnit: range.unit,
    xEnds: [points[0]![0], points.at(-1)![0]],
    lines: [{ key: name, points }],
    now,
    typedAt: (x) => {
      const nearest = points.reduce((a, b) => (Math.abs(b[0] - x) < Math.abs(a[0] - x) ? b : a));
      const y = Math.min(range.max, Math.max(range.min, nearest[1]));
      return { field: until, text: typed(y, Math.abs(points.at(-1)![1] - points[0]![1])) };
    },
  };
}

function fieldOf(tool: BenchTool, key: BenchField): NumberField {
  return tool.fields.find((f): f is NumberField => f.key === key && f.kind === 'number')!;
}

/** A figure as fine as a finger on a curve of this span can mean it. */
const typed = (value: number, span: number): string =>
  plainNumber(Number(value.toFixed(span > 100 ? 0 : span > 10 ? 1 : 2)));
