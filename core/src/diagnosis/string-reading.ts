/** More than this no 12 V battery shows, at rest or under a charger: what reads more was read to the chassis, across its fellows too. V */
export const ONE_BATTERY_MOST_VOLTS = 16;

/**
 * Returns the volts of one battery of a string by itself, from the meter at its plus: across it alone, or from there to the chassis.
 *
 * @param volts as the meter showed them
 * @param below rest volts of the batteries between it and the chassis; null where not read
 * @returns null while those are not all known and the meter was at the chassis
 * @example ownVolts(24.8, [12.3]) // => 12.5
 */
export function ownVolts(volts: number, below: readonly (number | null)[]): number | null {
  if (below.length === 0 || volts <= ONE_BATTERY_MOST_VOLTS) return volts;
  if (below.some((v) => v === null)) return null;
  return volts - below.reduce<number>((sum, v) => sum + v!, 0);
}
