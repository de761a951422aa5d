import { type Crowd, type DiagnosisEvidence, shareOfAny, type Walk } from '../diagnosis/index.js';
import type { LedgerLine } from './verdict.js';
import type { Ruling } from './rule.js';

/** A move of the odds smaller than this is no evidence. */
const LEAST_BITS = 0.05;

/** Returns the effect of each piece of evidence on the odds of the verdict's ground, strongest first. */
export function ledgerOf(
  crowd: Crowd,
  steps: Walk['steps'],
  evidence: readonly DiagnosisEvidence[],
  { causes, isAgainst = false }: Ruling,
): LedgerLine[] {
  if (causes.length === 0) return [];
  return ledgerBy(evidence, (count) => {
    const held = shareOfAny(crowd, steps[count]!, causes);
    return isAgainst ? 1 - held : held;
  });
}

/**
 * Returns the doublings of some odds by each piece of evidence, strongest first.
 *
 * @param heldAfter the weighed share after so many pieces of evidence
 */
export function ledgerBy(
  evidence: readonly DiagnosisEvidence[],
  heldAfter: (count: number) => number,
): LedgerLine[] {
  const odds = Array.from({ length: evidence.length + 1 }, (_, count) => {
    const held = heldAfter(count);
    return Math.log2(Math.max(held, 1e-9) / Math.max(1 - held, 1e-9));
  });
  return evidence
    .map(({ tried: _tried, ...piece }, i): LedgerLine => ({ ...piece, bits: odds[i + 1]! - odds[i]! }))
    .filter(({ bits }) => Math.abs(bits) >= LEAST_BITS)
    .sort((a, b) => Math.abs(b.bits) - Math.abs(a.bits));
}
