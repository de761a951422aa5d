/** One thing that is typed or chosen. */
export interface FormField {
  /** Name of the value; dots lead into parts. */
  readonly key: string;
  readonly label: string;
  readonly kind: 'text' | 'number' | 'choice' | 'long';
  readonly unit?: string;
  readonly choices?: readonly { readonly value: string; readonly name: string }[];
  readonly most?: number;
}

/** Values to choose from, each under its word where it has one. */
export const choicesOf = (values: readonly string[], words: Readonly<Record<string, string>> = {}) =>
  values.map((value) => ({
    value,
    get name() {
      return words[value] ?? value;
    },
  }));

/** The typed text of each field, by its key. */
export type FormValues = Readonly<Record<string, string>>;
