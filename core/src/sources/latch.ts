import { type Range, requireInRange, parameter } from '../quantities/index.js';

/** Volts and amps between which a latch source is right: enough to pull, too little to wake or burn anything. */
export const LATCH_VOLTS = { min: 9, max: 12.8, unit: 'V' } as const satisfies Range;
export const LATCH_MAX_AMPS = 1;
/** Least current at which a usual bonnet latch pulls, A. */
export const LATCH_PULL_AMPS = 0.25;
/** A bonnet latch's coil and a small battery with its wires, where nobody has measured them, ohms. */
export const USUAL_COIL_OHMS = parameter(10, {
  id: 'latch-coil',
  name: 'coil of a bonnet latch',
  low: 5,
  high: 30,
  unit: 'ohm',
  reason: 'Pulls at a quarter of an amp, burns past one.',
});
export const USUAL_LATCH_SOURCE_OHMS = parameter(2, {
  id: 'latch-source',
  name: 'small source at the latch wires, with its wires',
  low: 0.5,
  high: 10,
  unit: 'ohm',
  reason: 'A 9 V battery sags by about a volt and a half.',
});
const OHMS = { min: 0.1, max: 1000, unit: 'ohm' } as const satisfies Range;

/** The effect of a small source at the latch wires of a dead EV. */
export interface LatchPoint {
  readonly amps: number;
  readonly coilVolts: number;
  readonly releases: boolean;
  /** Why it is not right, when it is not. */
  readonly fault: 'too-weak' | 'too-strong' | null;
}

/**
 * Current through a latch coil.
 *
 * @param sourceOhms the source with its wires
 * @throws RangeError for figures that are not physical
 * @example latchPoint(12, 1, 23).amps // => 0.5
 */
export function latchPoint(volts: number, sourceOhms: number, coilOhms: number): LatchPoint {
  requireInRange('volts', volts, { min: 0, max: 32, unit: 'V' });
  requireInRange('source resistance', sourceOhms, OHMS);
  requireInRange('coil resistance', coilOhms, OHMS);
  const amps = volts / (sourceOhms + coilOhms);
  const fault =
    volts > LATCH_VOLTS.max || amps > LATCH_MAX_AMPS
      ? 'too-strong'
      : volts < LATCH_VOLTS.min || amps < LATCH_PULL_AMPS
        ? 'too-weak'
        : null;
  return { amps, coilVolts: amps * coilOhms, releases: fault === null, fault };
}

/** Returns the effect of a latch source of so many volts at a usual latch, where nobody has measured either. */
export const usualLatchPoint = (volts: number): LatchPoint =>
  latchPoint(volts, USUAL_LATCH_SOURCE_OHMS, USUAL_COIL_OHMS);
