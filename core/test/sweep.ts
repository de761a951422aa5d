/** A test over many generated cases, left out while single faults are tried one by one: it would take longer than all others together. */
export const sweep = process.env.MUTATING ? xit : it;
