/** One default of the model, as a person may read and question it. */
export interface Parameter {
  readonly id: string;
  readonly name: string;
  /** The default; null where it comes from the atlas, the kit or a reading. */
  readonly value: number | null;
  readonly low: number;
  readonly high: number;
  readonly unit: string;
  readonly reason: string;
}

const declared: Parameter[] = [];

/**
 * Declares a default of the model where it is used: the constant and its row in docs/model.md are one. Returns the value.
 *
 * @throws RangeError where the value lies outside of its plausible range
 * @example parameter(14.2, { id: 'test.volts', name: 'volts', low: 13, high: 15, unit: 'V', reason: 'A test.' }) // => 14.2
 */
export function parameter<V extends number | null>(value: V, row: Omit<Parameter, 'value'>): V {
  if (value !== null && !(value >= row.low && value <= row.high))
    throw new RangeError(`${row.id} is ${value}, not between ${row.low} and ${row.high}`);
  declared.push({ ...row, value });
  return value;
}

/** Returns the parameters of every floor that is loaded, by their ids. */
export const parameters = (): readonly Parameter[] => [...declared].sort((a, b) => (a.id < b.id ? -1 : 1));
