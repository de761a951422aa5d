/** A table of [x, y] knots, ordered by rising x. */
export type Knots = readonly (readonly [x: number, y: number])[];

/**
 * Piecewise-linear value of a table at `x`, held flat beyond both ends.
 *
 * @param knots at least one knot, x strictly rising
 * @throws RangeError when the table is empty or `x` is not a number
 * @example interpolate([[0, 0], [10, 100]], 2.5) // => 25
 */
export function interpolate(knots: Knots, x: number): number {
  const first = knots[0];
  const last = knots[knots.length - 1];
  if (!first || !last) throw new RangeError('interpolate: the table is empty');
  if (Number.isNaN(x)) throw new RangeError('interpolate: x is not a number');
  if (x <= first[0]) return first[1];
  for (let i = 1; i < knots.length; i++) {
    const above = knots[i]!;
    if (x > above[0]) continue;
    // By index, not by destructuring: simulations ask this thousands of times a crank.
    const below = knots[i - 1]!;
    return below[1] + ((above[1] - below[1]) * (x - below[0])) / (above[0] - below[0]);
  }
  return last[1];
}

/** The same table read the other way round; y must rise with x, so that the answer is unique. */
export function inverseOf(knots: Knots): Knots {
  return knots.map(([x, y]) => [y, x] as const);
}

/**
 * The same table made ready to be asked many times at values that move little: it remembers the stretch it last answered from.
 * Gives exactly what `interpolate` gives.
 */
export function interpolator(knots: Knots): (x: number) => number {
  let from = NaN;
  let to = NaN;
  let start = 0;
  let slope = 0;
  return (x) => {
    if (x > from && x <= to) return start + slope * (x - from);
    for (let i = 1; i < knots.length; i++) {
      const [x0, y0] = knots[i - 1]!;
      const [x1, y1] = knots[i]!;
      if (x <= x0 || x > x1) continue;
      from = x0;
      to = x1;
      start = y0;
      slope = (y1 - y0) / (x1 - x0);
      return start + slope * (x - from);
    }
    return interpolate(knots, x);
  };
}
