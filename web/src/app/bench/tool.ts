import { shownUnit } from '@words/units';
import { fixed } from '@words/numbers';
import type { Range } from '@voltrek/core/quantities';
import type { BenchChoice, BenchField, BenchPath, BenchResult, BenchToolId } from '@words/bench-words';
import { TOOL as T } from '@words/screens/bench';

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
  /** The figure itself, in the unit shown; left out for words and for what is never reached. */
  readonly value?: number;
  readonly tone?: 'good' | 'watch' | 'bad';
}

/** The values of a tool, all of them in range. */
export interface Given {
  readonly number: (key: BenchField) => number;
  readonly choice: (key: BenchField) => BenchChoice;
}

export type Pair = readonly [x: number, y: number];

/** The curve of a tool: an answer over one of its figures, or something as it goes on until a figure is reached. */
export type CurveSpec =
  | {
      readonly kind: 'sweep';
      readonly over: BenchField;
      readonly results: readonly BenchResult[];
      /** Drawn where the range of the figure is far wider than anybody's values. */
      readonly from?: number;
      readonly to?: number;
    }
  | {
      readonly kind: 'path';
      readonly path: BenchPath;
      /** Until this figure is reached. */
      readonly until: BenchField;
      readonly of: (given: Given) => readonly Pair[];
    };

/** A calculator over the core. */
export interface BenchTool {
  readonly id: BenchToolId;
  readonly fields: readonly Field[];
  /** Its curve. */
  readonly curve: CurveSpec | ((given: Given) => CurveSpec);
  /** @throws RangeError for figures that do not go together */
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
  text: value === null ? T.never : fixed(shownUnit(unit).show(value), places),
  unit: value === null ? '' : shownUnit(unit).unit,
  ...(value !== null && { value: shownUnit(unit).show(value) }),
  ...(tone && { tone }),
});

export const word = (key: BenchResult, text: string, tone?: Result['tone']): Result => ({
  key,
  text,
  unit: '',
  ...(tone && { tone }),
});
