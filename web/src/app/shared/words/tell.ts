/** The values of a sentence: nothing is told of a missing one. */
export type Shown = string | number | null | undefined;

/** A sentence with what stands in it. */
export const tell = (words: TemplateStringsArray, ...shown: readonly Shown[]): string =>
  words.map((word, i) => word + String(shown[i] ?? '')).join('');
