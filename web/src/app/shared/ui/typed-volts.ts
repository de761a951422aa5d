/** Digits typed without a point: two are whole volts, three have one decimal, four have two. */
const DIVISOR_BY_DIGITS: Partial<Record<number, number>> = { 1: 1, 2: 1, 3: 10, 4: 100 };

/**
 * Volts from what gloves type: `1162` is 11.62, `126` is 12.6, `962` is 9.62, `12` is 12; a typed point is taken as it stands.
 *
 * @param most the most that can be read here, V: a shorter figure above it means the next decimal, so 290 at a 12 V battery is 2.90
 * @returns null when the text is not yet, or not at all, a figure
 */
export function typedVolts(text: string, most: number): number | null {
  const [, sign = '', digits = '', fraction] = /^(-?)(\d*)(?:[.,](\d*))?$/.exec(text.trim()) ?? [];
  if (fraction !== undefined) {
    const value = Number(`${digits || '0'}.${fraction || '0'}`);
    return digits || fraction ? (sign ? -value : value) : null;
  }
  const divisor = DIVISOR_BY_DIGITS[digits.length];
  if (divisor === undefined) return null;
  const isTooMuch = Number(digits) / divisor > most && digits.length < 4;
  const value = Number(digits) / (isTooMuch ? divisor * 10 : divisor);
  return sign ? -value : value;
}
