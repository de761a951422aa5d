/** Returns as a list one value or several. */
export const oneOrSeveral = <T>(given: T | readonly T[]): readonly T[] => [given].flat() as T[];
