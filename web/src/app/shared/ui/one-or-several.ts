/** What may be given as one or as several, as a list. */
export const oneOrSeveral = <T>(given: T | readonly T[]): readonly T[] => [given].flat() as T[];
