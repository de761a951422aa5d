/** One machine of a file, unchecked, and where its parts stand. */
export interface FoundRow {
  readonly value: unknown;
  readonly lineOf: (path: string) => number;
}

/** A file with this many faults is read no further: more of them tell nothing new, and reading holds up everybody else. */
export const FAULTS_MOST = 50;
