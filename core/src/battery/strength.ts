/**
 * How fast cold-cranking strength falls as a battery's resistance grows with age: it takes part of the growth only, since the worn paths
 * carry little at any current. A resistance twice new leaves two thirds of the rating.
 */
const STRENGTH_EXPONENT = 0.55;

/**
 * Cold-cranking strength left, as a share of the rating, of a battery whose resistance has grown this many times.
 *
 * @example strengthShare(1.25) // => 0.88
 */
export function strengthShare(ageing: number): number {
  return ageing ** -STRENGTH_EXPONENT;
}

/**
 * Growth of resistance of a battery that has this share of its rated strength left: the way back.
 *
 * @example ageingOfStrength(0.8) // => 1.50
 */
export function ageingOfStrength(share: number): number {
  return share ** (-1 / STRENGTH_EXPONENT);
}

/** Shares of the rating that tell sound from worn and worn from spent. */
export const WORN_BELOW_SHARE = 0.8;
export const SPENT_BELOW_SHARE = 0.6;
