import { type Shown, tell } from '../tell';

/** Words of the screens of bench, tools, one list a part. */

export const BANKS = {
  times: 'times',
  aMinEach: (minutesEach: Shown) => tell`A, ${minutesEach} min each`,
} as const;
