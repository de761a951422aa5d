/**
 * Returns the entry of a word in a table; undefined for a word that is not in it. A table asked straight answers also to what every object has:
 * "constructor" or "toString", which somebody may well type or send.
 */
export const underWord = <T>(table: Readonly<Record<string, T>>, word: string): T | undefined =>
  Object.hasOwn(table, word) ? table[word] : undefined;
