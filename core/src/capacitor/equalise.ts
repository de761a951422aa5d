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
  /** What the resistor stands at the first moment. */
  readonly peakWatts: number;
}

/**
 * What happens when two capacitances at unequal volts are joined: the current is limited only by the resistance, the difference dies
 * away with tau = R C (C in series), and half C dV^2 is burnt whatever the resistance.
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

/** Resistance that keeps the current of contact at or below `maxAmps`, ohms. */
export function equalisingOhms(differenceVolts: number, maxAmps: number): number {
  if (!(maxAmps > 0)) throw new RangeError('the current must be above zero');
  return Math.abs(differenceVolts) / maxAmps;
}
