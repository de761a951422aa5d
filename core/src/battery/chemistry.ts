import { type Knots, parameter } from '../quantities/index.js';

/** Of batteries proper. */
export const BATTERY_CHEMISTRIES = ['flooded', 'efb', 'agm', 'gel', 'lfp'] as const;
export type BatteryChemistry = (typeof BATTERY_CHEMISTRIES)[number];
export const CHEMISTRIES = [...BATTERY_CHEMISTRIES, 'capacitor'] as const;
/** The kind of a battery; `capacitor`: a capacitor bank that stands in a battery's place. */
export type Chemistry = (typeof CHEMISTRIES)[number];

/**
 * True for every chemistry with acid in it: it can gas, freeze and be judged on the lead-acid tables.
 *
 * @example isLeadAcid('lfp') // => false
 */
export function isLeadAcid(chemistry: Chemistry): boolean {
  return chemistry !== 'lfp' && chemistry !== 'capacitor';
}

/** Volts at which a capacitor bank in a battery's place counts as full: what an alternator holds it at. Its charge falls with its volts. */
export const BANK_FULL_VOLTS = 14.4;

/**
 * Open-circuit volts of one rested 12 V battery at 25 degC by state of charge (0 to 1). Flooded is the trade's usual
 * curve; EFB, AGM and gel sit higher by their stronger acid; LFP is four cells with their flat middle; a capacitor bank is a straight line
 * from nothing.
 */
export const REST_VOLTS: Record<Chemistry, Knots> = {
  flooded: [
    [0, 11.8],
    [0.25, 12.05],
    [0.5, 12.25],
    [0.75, 12.45],
    [1, 12.7],
  ],
  efb: [
    [0, 11.85],
    [0.25, 12.1],
    [0.5, 12.3],
    [0.75, 12.52],
    [1, 12.77],
  ],
  agm: [
    [0, 11.9],
    [0.25, 12.17],
    [0.5, 12.37],
    [0.75, 12.6],
    [1, 12.88],
  ],
  gel: [
    [0, 11.88],
    [0.25, 12.15],
    [0.5, 12.36],
    [0.75, 12.6],
    [1, 12.86],
  ],
  lfp: [
    [0, 11.6],
    [0.1, 12.9],
    [0.2, 13.1],
    [0.5, 13.2],
    [0.75, 13.28],
    [0.9, 13.34],
    [0.99, 13.4],
    [1, 13.6],
  ],
  capacitor: [
    [0, 0],
    [1, BANK_FULL_VOLTS],
  ],
};

/** Volts per degC that a rested lead-acid battery gains as it warms: six cells at about 0.2 mV each. */
export const REST_VOLTS_PER_DEGC = parameter(0.0012, {
  id: 'battery.voltsPerDegC',
  name: 'rest volts per degree',
  low: 0.0005,
  high: 0.002,
  unit: 'V/degC',
  reason: 'Six cells at about 0.2 mV each.',
});

/** Temperature the rest-volt curves are stated at, degC. */
export const REST_REFERENCE_C = 25;
