/** A stretch of a list: from this index up to, but without, that one. */
export interface Stretch {
  readonly from: number;
  readonly to: number;
}

/** Returns the mean of a stretch; NaN where it is empty. */
export function meanOf(values: Float64Array, { from, to }: Stretch): number {
  let sum = 0;
  for (let i = from; i < to; i++) sum += values[i]!;
  return sum / (to - from);
}

/** Returns the lowest value of a stretch; Infinity where it is empty. */
export function lowestOf(values: Float64Array, { from, to }: Stretch): number {
  let low = Infinity;
  for (let i = from; i < to; i++) if (values[i]! < low) low = values[i]!;
  return low;
}

/** The middle value; of an even count, the upper of the two. */
export function medianOf(values: Float64Array, { from, to }: Stretch): number {
  const sorted = values.slice(from, to).sort();
  return sorted[Math.floor(sorted.length / 2)]!;
}

/** Mean over a window of `width` points around each point; narrower at both ends. */
export function smoothed(values: Float64Array, width: number): Float64Array {
  const half = Math.max(0, Math.floor(width / 2));
  const sums = new Float64Array(values.length + 1);
  for (let i = 0; i < values.length; i++) sums[i + 1] = sums[i]! + values[i]!;
  return Float64Array.from(values, (_, i) => {
    const from = Math.max(0, i - half);
    const to = Math.min(values.length, i + half + 1);
    return (sums[to]! - sums[from]!) / (to - from);
  });
}

/** How strongly a list repeats itself after `lag` points: 1 is quite, 0 not at all. The list's mean must be about zero. */
export function likeness(values: Float64Array, lag: number): number {
  let product = 0;
  let first = 0;
  let second = 0;
  for (let i = lag; i < values.length; i++) {
    const a = values[i - lag]!;
    const b = values[i]!;
    product += a * b;
    first += a * a;
    second += b * b;
  }
  const size = Math.sqrt(first * second);
  return size === 0 ? 0 : product / size;
}

/** Slope of `y` by `x` over a stretch, by least squares; 0 when `x` does not vary. */
export function slopeOf(x: Float64Array, y: Float64Array, stretch: Stretch): number {
  const mx = meanOf(x, stretch);
  const my = meanOf(y, stretch);
  let xy = 0;
  let xx = 0;
  for (let i = stretch.from; i < stretch.to; i++) {
    xy += (x[i]! - mx) * (y[i]! - my);
    xx += (x[i]! - mx) ** 2;
  }
  return xx === 0 ? 0 : xy / xx;
}
