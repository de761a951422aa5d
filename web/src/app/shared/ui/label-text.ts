/** The address of a battery's record, as its label holds it. */
const RECORD_ADDRESS = /^https?:\/\/[^/]+\/battery\/(?<named>[\w-]{1,64})$/;
/** The code of a battery as it is typed: six signs, mostly with a blank in the middle. */
const CODE = /^[0-9A-Z]{3} ?[0-9A-Z]{3}$/i;

/**
 * Returns the battery that the text of a label names, by its id or its code; null for the label of anything else. A label that another
 * address of the house printed counts too.
 *
 * @example batteryNamedBy('ABC 234') // => 'ABC234'
 */
export function batteryNamedBy(text: string): string | null {
  const named = RECORD_ADDRESS.exec(text.trim())?.groups?.named;
  if (named) return named;
  return CODE.test(text.trim()) ? text.trim().replace(' ', '').toUpperCase() : null;
}
