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

/** Codes to choose from, each by its word. */
export const choicesOf = <Code extends string>(
  codes: readonly Code[],
  words: Readonly<Record<Code, string>>,
) => codes.map((value) => ({ value, name: words[value] }));

/** Values to choose from that read alike in every language. */
export const plainChoices = (values: readonly string[]) => values.map((value) => ({ value, name: value }));

/** The typed text of each field, by its key. */
export type FormValues = Readonly<Record<string, string>>;
