import { calibrationError as errorOf, type ReliabilityRow } from '../src/quantities/index.js';

/** Something that was claimed, and whether it came true. */
export interface Claim {
  /** 0 to 1. */
  readonly claim: number;
  readonly isMet: boolean;
}

/** Claims gathered by size, each beside the share of them that came true. The last row takes its upper edge too. */
export function reliability(claims: readonly Claim[], edges: readonly number[]): ReliabilityRow[] {
  return edges.slice(0, -1).flatMap((from, i) => {
    const to = edges[i + 1]!;
    const isLast = i === edges.length - 2;
    const within = claims.filter(({ claim }) => claim >= from && (claim < to || isLast));
    if (within.length === 0) return [];
    const claimed = within.reduce((sum, { claim }) => sum + claim, 0) / within.length;
    const met = within.filter((c) => c.isMet).length / within.length;
    return [{ from, count: within.length, claimed, met }];
  });
}

/** The rows as they are told, one a line. */
export const reliabilityLines = (rows: readonly ReliabilityRow[]): string[] =>
  rows.map(
    ({ claimed, met, count }) =>
      `  claimed ${(100 * claimed).toFixed(1)} %, met ${(100 * met).toFixed(1)} % of ${count}`,
  );

/** Claims by tenths. */
export const deciles = (claims: readonly Claim[]): ReliabilityRow[] =>
  reliability(
    claims,
    Array.from({ length: 11 }, (_, i) => i / 10),
  );

/** How far claims of one size lie from what happened, on the average. */
export const calibrationError = (claims: readonly Claim[]): number => errorOf(deciles(claims));

/** Brier score: mean squared distance of a claim from what happened. */
export const brier = (claims: readonly Claim[]): number =>
  claims.reduce((sum, { claim, isMet }) => sum + (claim - Number(isMet)) ** 2, 0) / claims.length;
