/** A table of [x, y] knots, ordered by rising x. */
export type Knots = readonly (readonly [x: number, y: number])[];

/**
 * Piecewise-linear value of a table at `x`, held flat beyond both ends.
 *
 * @param knots at least one knot, x strictly rising
 * @throws RangeError when the table is empty or `x` is not a number
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
