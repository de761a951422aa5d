import { type Shown, tell } from '../tell';

/** Words of the screens of bench, one list a part. */

export const BENCH_PAGE = {
  calculators: 'Calculators',
  copied: 'Copied',
  copyAsText: 'Copy as text',
  usualValues: 'Usual values',
  noAnswerUntilEveryFigureIs: 'No answer until every figure is in its range.',
  howItIsReckoned: 'How it is reckoned',
  formula: 'Formula',
  theUsualMistake: 'The usual mistake',
} as const;

export const CURVE_CHART = {
  over: (key: Shown, xName: Shown) => tell`${key} over ${xName}`,
  at: (over: Shown, round: Shown, unit: Shown, round2: Shown, unit2: Shown) =>
    tell`${over}: ${round} ${unit} at ${round2} ${unit2}`,
} as const;

export const READ_FIELDS = {
  mustBeOneOf: (name: Shown, join: Shown) => tell`${name} must be one of ${join}`,
  mustBeANumber: (name: Shown) => tell`${name} must be a number`,
} as const;

export const TOOL = {
  never: 'never',
} as const;
