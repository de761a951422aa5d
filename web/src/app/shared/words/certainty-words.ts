import type { VerdictRecord } from '@voltrek/core/verdict';
import { inHundred } from './figures';
import { CERTAINTY_WORDS } from './verdict-words';

/** How sure a verdict is. What a test proves is as sure as the test: the share of its causes is another figure, and is not told beside it. */
export function sureWords({ certainty, share, ground }: VerdictRecord): string {
  const isProved = ground?.startsWith('proved') === true;
  return share === undefined || isProved
    ? CERTAINTY_WORDS[certainty]
    : `${CERTAINTY_WORDS[certainty]}, ${inHundred(share)}`;
}
