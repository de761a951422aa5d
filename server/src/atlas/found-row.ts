/** One machine of a file, unchecked, and where its parts stand. */
export interface FoundRow {
  readonly value: unknown;
  readonly lineOf: (path: string) => number;
}
