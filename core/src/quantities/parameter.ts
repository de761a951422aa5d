/** One default of the model, as a person may read and question it: it stands in the file that uses it. */
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
