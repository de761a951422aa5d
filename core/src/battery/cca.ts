import { parameter } from '../quantities/index.js';
export const CCA_STANDARDS = ['SAE', 'EN', 'DIN', 'IEC', 'JIS'] as const;
/** The standard a cold-cranking figure is printed to. */
export type CcaStandard = (typeof CCA_STANDARDS)[number];

/**
 * Amps of SAE per amp of each standard. Approximate: the standards differ in temperature, seconds and end volts, so a
 * battery has no exact conversion; the ratios are the trade's usual ones.
 */
export const SAE_PER: Record<CcaStandard, number> = {
  SAE: 1,
  EN: parameter(1.04, {
    id: 'cca.en',
    name: 'SAE amps per EN amp',
    low: 0.97,
    high: 1.08,
    unit: '',
    reason: 'The standards differ in seconds and end volts: approximate.',
  }),
  DIN: parameter(1.7, {
    id: 'cca.din',
    name: 'SAE amps per DIN amp',
    low: 1.5,
    high: 1.8,
    unit: '',
    reason: 'DIN holds for longer: approximate.',
  }),
  IEC: parameter(1.5, {
    id: 'cca.iec',
    name: 'SAE amps per IEC amp',
    low: 1.35,
    high: 1.6,
    unit: '',
    reason: 'IEC ends higher: approximate.',
  }),
  JIS: 1,
};

/**
 * Converts a cold-cranking rating between standards, amps. Approximate, and shown as such.
 *
 * @example convertCca(600, 'EN', 'SAE') // => 624
 */
export function convertCca(amps: number, from: CcaStandard, to: CcaStandard): number {
  return (amps * SAE_PER[from]) / SAE_PER[to];
}
