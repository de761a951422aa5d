/** An inclusive range of a quantity, with the unit a person reads beside it. */
export interface Range {
  readonly min: number;
  readonly max: number;
  readonly unit: string;
}

/**
 * Returns the words for a value outside its range; null when the value is inside.
 *
 * @example outOfRange('volts', 41, { min: 0, max: 40, unit: 'V' }) // => 'volts must be between 0 and 40 V'
 */
export function outOfRange(name: string, value: number, range: Range): string | null {
  if (!Number.isFinite(value)) return `${name} must be a number`;
  if (value < range.min || value > range.max) {
    return `${name} must be between ${range.min} and ${range.max} ${range.unit}`;
  }
  return null;
}

/** Ranges of what a person may type. Wide enough for every honest reading, tight enough to catch a slip. */
export const TYPED_RANGES = {
  /** Coldest and hottest weather a technician works in. */
  ambientC: { min: -50, max: 60, unit: 'degC' },
  /** Minus sign allowed: it is how swapped probes or a reversed battery show. 32 V covers a charging 24 V string. */
  volts: { min: -32, max: 32, unit: 'V' },
  /** How long another van may take to come: within a shift. */
  fetchMinutes: { min: 1, max: 480, unit: 'min' },
  /** Readings taken at a running engine: up to a failed 24 V regulator. */
  chargingVolts: { min: 0, max: 40, unit: 'V' },
  /** Of a charger on a battery. */
  chargeAmps: { min: 0, max: 100, unit: 'A' },
  leadAmps: { min: 1, max: 3000, unit: 'A' },
} as const satisfies Record<string, Range>;

/**
 * Returns the volts that a meter can show at batteries of 12 V in series: half of what a string of two shows, for each.
 *
 * @param isCharging a charger or a running engine feeds them
 * @example voltsRange(1) // => { min: -16, max: 16, unit: 'V' }
 */
export function voltsRange(batteries: number, isCharging = false): Range {
  const { min, max, unit } = isCharging ? TYPED_RANGES.chargingVolts : TYPED_RANGES.volts;
  return { min: (min / 2) * batteries, max: (max / 2) * batteries, unit };
}

/** Throws when a computation is handed a value that is not physical. */
export function requireInRange(name: string, value: number, range: Range): void {
  const why = outOfRange(name, value, range);
  if (why) throw new RangeError(why);
}
