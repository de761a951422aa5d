import { shownUnit } from '../shared/words/units';
import type { Range } from '@voltrek/core/quantities';
import type { BenchChoice, BenchField, BenchResult, BenchToolId } from '../shared/words/bench-words';

/** A figure that is typed. `scale` turns what is shown into what the core takes: shown / scale. */
export interface NumberField {
  readonly kind: 'number';
  readonly key: BenchField;
  /** In the unit shown. */
  readonly range: Range;
  readonly usual: number;
}

/** One of a few. */
export interface ChoiceField {
  readonly kind: 'choice';
  readonly key: BenchField;
  readonly options: readonly BenchChoice[];
  readonly usual: BenchChoice;
}
export type Field = NumberField | ChoiceField;

export const number = (
  key: BenchField,
  usual: number,
  min: number,
  max: number,
  unit: string,
): NumberField => ({
  kind: 'number',
  key,
  usual,
  range: { min, max, unit },
});

export const choice = (key: BenchField, options: readonly BenchChoice[]): ChoiceField => ({
  kind: 'choice',
  key,
  options,
  usual: options[0]!,
});

/** One answer of a tool. */
export interface Result {
  readonly key: BenchResult;
  readonly text: string;
  readonly unit: string;
  readonly tone?: 'good' | 'watch' | 'bad';
}

/** What was given to a tool, all of it in range. */
export interface Given {
  readonly number: (key: BenchField) => number;
  readonly choice: (key: BenchField) => BenchChoice;
}

/** A calculator over the core. */
export interface BenchTool {
  readonly id: BenchToolId;
  readonly fields: readonly Field[];
  /** @throws RangeError for figures that do not fit together; its message is shown */
  readonly compute: (given: Given) => readonly Result[];
}

export const figure = (
  key: BenchResult,
  value: number | null,
  places: number,
  unit: string,
  tone?: Result['tone'],
): Result => ({
  key,
  text: value === null ? 'never' : shownUnit(unit).show(value).toFixed(places),
  unit: value === null ? '' : shownUnit(unit).unit,
  ...(tone && { tone }),
});

export const word = (key: BenchResult, text: string, tone?: Result['tone']): Result => ({
  key,
  text,
  unit: '',
  ...(tone && { tone }),
});
