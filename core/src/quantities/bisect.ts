/** Halvings after which a range is narrower than anything here is known. */
const HALVINGS = 40;

/**
 * Returns the point at which something that holds below it no longer holds.
 *
 * @param holds at the low end it does, at the high end it does not: neither is asked
 * @returns both ends of what is left of the range, the change-over between them
 */
export function bisect(
  holds: (at: number) => boolean,
  from: number,
  to: number,
  halvings = HALVINGS,
): { readonly low: number; readonly high: number } {
  let low = from;
  let high = to;
  for (let i = 0; i < halvings; i++) {
    const middle = (low + high) / 2;
    if (holds(middle)) low = middle;
    else high = middle;
  }
  return { low, high };
}
