import { typedFigure } from '../shared/ui/typed-figure';
import { outOfRange } from '@words/range-words';
import { BENCH_FIELDS, type BenchChoice } from '@words/bench-words';
import type { BenchTool, Field, Given, Result } from './tool';
import { READ_FIELDS as T } from '@words/screens/bench';

/** The content of a field: text as typed, and why it is not taken, if it is not. */
export interface ReadField {
  readonly field: Field;
  readonly text: string;
  readonly fault: string | null;
}

/** The fields of a tool filled from what an address or hands gave; what was not given stands at its usual value. */
export function readFields(
  tool: BenchTool,
  typed: Readonly<Record<string, string | undefined>>,
): ReadField[] {
  return tool.fields.map((field) => {
    const text = typed[field.key] ?? String(field.usual);
    return { field, text, fault: faultOf(field, text) };
  });
}

function faultOf(field: Field, text: string): string | null {
  const name = BENCH_FIELDS[field.key];
  if (field.kind === 'choice')
    return field.options.some((option) => option === text)
      ? null
      : T.mustBeOneOf({ name, list: field.options.join(', ') });
  return outOfRange(name, typedFigure(text), field.range);
}

/** The values, where all of them are in range. */
export function givenOf(fields: readonly ReadField[]): Given {
  const textOf = (key: string): string => fields.find((f) => f.field.key === key)!.text;
  return {
    number: (key) => typedFigure(textOf(key)),
    choice: (key) => textOf(key) as BenchChoice,
  };
}

/** The answers of a tool, or what keeps it from answering. */
export function answersOf(
  tool: BenchTool,
  fields: readonly ReadField[],
): { readonly results: readonly Result[]; readonly problem: string | null } {
  if (fields.some((f) => f.fault)) return { results: [], problem: null };
  const given = givenOf(fields);
  try {
    return { results: tool.compute(given), problem: null };
  } catch (error) {
    if (error instanceof RangeError) return { results: [], problem: T.doNotGoTogether };
    throw error;
  }
}
