import { language, localesOf } from '../model/language';

/** Making one takes longer than using it a hundred times. */
const formats = new Map<string, Intl.NumberFormat>();

function formatOf(least: number, most: number): Intl.NumberFormat {
  const key = `${language()} ${least} ${most}`;
  const made =
    formats.get(key) ??
    new Intl.NumberFormat([...localesOf(language())], {
      minimumFractionDigits: least,
      maximumFractionDigits: most,
      useGrouping: false,
    });
  formats.set(key, made);
  return made;
}

/**
 * Returns a figure with fixed places, as the language on screen writes it.
 *
 * @example
 * fixed(11.8, 2); // '11.80', in German '11,80'
 */
export const fixed = (value: number, places = 0): string => formatOf(places, places).format(value + 0);

/** Returns a figure with all its places: 3.5 or 3,5. */
export const plainNumber = (value: number): string => formatOf(0, 12).format(value);

/** Returns a text that goes on within a sentence. German nouns keep their capital. */
export const withinSentence = (text: string): string =>
  language() === 'de' ? text : text.charAt(0).toLowerCase() + text.slice(1);

/** Returns a text that begins a sentence or a line. */
export const asBeginning = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);

/** Returns alternatives as a list: "AGM or gel". */
export const anyOf = (items: readonly string[]): string =>
  new Intl.ListFormat([...localesOf(language())], { type: 'disjunction' }).format(items);

/** Returns all of them as a list: "hatch and van". */
export const allOf = (items: readonly string[]): string =>
  new Intl.ListFormat([...localesOf(language())], { type: 'conjunction' }).format(items);
