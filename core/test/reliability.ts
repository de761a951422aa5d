/** Something that was claimed, and whether it came true. */
export interface Claim {
  /** 0 to 1. */
  readonly claim: number;
  readonly isMet: boolean;
}

/** Claims of about one size, and the share of them that came true. */
export interface ReliabilityRow {
  readonly from: number;
  readonly count: number;
  readonly claimed: number;
  readonly met: number;
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
