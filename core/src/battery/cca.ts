export const CCA_STANDARDS = ['SAE', 'EN', 'DIN', 'IEC', 'JIS'] as const;
/** The standard a cold-cranking figure is printed to. */
export type CcaStandard = (typeof CCA_STANDARDS)[number];

/**
 * Amps of SAE per amp of each standard. Approximate: the standards differ in temperature, seconds and end volts, so a
 * battery has no exact conversion; the ratios are the trade's usual ones.
 */
export const SAE_PER: Record<CcaStandard, number> = { SAE: 1, EN: 1.04, DIN: 1.7, IEC: 1.5, JIS: 1 };

/** Converts a cold-cranking rating between standards, amps. Approximate, and shown as such. */
export function convertCca(amps: number, from: CcaStandard, to: CcaStandard): number {
  return (amps * SAE_PER[from]) / SAE_PER[to];
}
