/** Claims of about one size, and the share of them that came true. */
export interface ReliabilityRow {
  /** Lower edge of the claims, 0 to 1. */
  readonly from: number;
  readonly count: number;
  /** Mean of the claims, 0 to 1. */
  readonly claimed: number;
  /** Share that came true, 0 to 1. */
  readonly met: number;
}

/**
 * Expected calibration error: how far claims of one size lie from what happened, on the average. Use it to tell whether odds can be trusted.
 *
 * @returns 0 to 1; 0 of no claim
 * @example calibrationError([{ from: 0.9, count: 4, claimed: 0.95, met: 0.75 }]) // => 0.2
 */
export function calibrationError(rows: readonly ReliabilityRow[]): number {
  const claims = rows.reduce((sum, { count }) => sum + count, 0);
  const off = rows.reduce((sum, { count, claimed, met }) => sum + Math.abs(claimed - met) * count, 0);
  return claims === 0 ? 0 : off / claims;
}

/** Fewer claims tell nothing: of 30 throws of a coin the share of heads strays by 9 in 100 (one standard deviation). */
export const CLAIMS_TO_TELL = 30;
