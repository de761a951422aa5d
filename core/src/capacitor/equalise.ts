/** Two stores of charge about to be joined through a resistance. A battery counts as a very large capacitor. */
export interface Equalising {
  readonly highVolts: number;
  readonly lowVolts: number;
  readonly highFarads: number;
  readonly lowFarads: number;
  /** Resistor or lamp, leads and both internal resistances together. */
  readonly ohms: number;
}

export interface EqualiseResult {
  /** Current at the moment of contact. */
  readonly contactAmps: number;
  /** Both end here. */
  readonly endVolts: number;
  readonly tauSeconds: number;
  /** Until the difference is `safeVolts`. */
  readonly secondsToSafe: number;
  /** Burnt in the resistance on the way to equal. */
  readonly joules: number;
  /** The power in the resistor at the first moment. */
  readonly peakWatts: number;
}

/**
 * Joins two capacitances at unequal volts: resistance alone limits the current. The difference decays with tau = R C (C in series). Half C
 * dV^2 turns to heat whatever the resistance.
 *
 * @param safeVolts difference at which they may be joined directly
 * @throws RangeError for a resistance or capacitance that is not above zero
 */
export function equalise(input: Equalising, safeVolts: number): EqualiseResult {
  const { highVolts, lowVolts, highFarads, lowFarads, ohms } = input;
  if (!(ohms > 0 && highFarads > 0 && lowFarads > 0))
    throw new RangeError('resistance and farads must be above zero');
  if (!(safeVolts > 0)) throw new RangeError('the safe difference must be above zero');
  const difference = Math.abs(highVolts - lowVolts);
  const series = 1 / (1 / highFarads + 1 / lowFarads);
  const tauSeconds = ohms * series;
  return {
    contactAmps: difference / ohms,
    endVolts: (highVolts * highFarads + lowVolts * lowFarads) / (highFarads + lowFarads),
    tauSeconds,
    secondsToSafe: difference <= safeVolts ? 0 : tauSeconds * Math.log(difference / safeVolts),
    joules: (series / 2) * difference ** 2,
    peakWatts: difference ** 2 / ohms,
  };
}

/**
 * Resistance that keeps the current of contact at or below `maxAmps`, ohms.
 *
 * @example equalisingOhms(4, 20) // => 0.2
 */
export function equalisingOhms(differenceVolts: number, maxAmps: number): number {
  if (!(maxAmps > 0)) throw new RangeError('the current must be above zero');
  return Math.abs(differenceVolts) / maxAmps;
}

/** A cold filament has about this share of its hot resistance: a lamp lets ten times its rated current through at first. */
export const COLD_FILAMENT_SHARE = 0.1;

/**
 * Resistance of a lamp, ohms: hot by its rating, cold at the moment of contact.
 *
 * @throws RangeError for watts or volts at or below zero
 * @example lampOhms(36, 12) // => { hot: 4, cold: 0.4 }
 */
export function lampOhms(
  ratedWatts: number,
  ratedVolts: number,
): { readonly hot: number; readonly cold: number } {
  if (!(ratedWatts > 0 && ratedVolts > 0)) throw new RangeError('watts and volts must be above zero');
  const hot = ratedVolts ** 2 / ratedWatts;
  return { hot, cold: hot * COLD_FILAMENT_SHARE };
}

/**
 * The largest 12 V lamp that keeps the current of contact at or below `maxAmps` while still cold, watts.
 *
 * @example equalisingLampWatts(4, 20) // => 72
 */
export function equalisingLampWatts(differenceVolts: number, maxAmps: number): number {
  const coldOhms = equalisingOhms(differenceVolts, maxAmps);
  return LAMP_VOLTS ** 2 / (coldOhms / COLD_FILAMENT_SHARE);
}
const LAMP_VOLTS = 12;
