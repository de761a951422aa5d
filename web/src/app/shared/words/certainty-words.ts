import type { VerdictRecord } from '@voltrek/core/verdict';
import { inHundred } from './figures';
import { messagesOf } from './messages-of';
import { CERTAINTY_WORDS } from './verdict-words';

/**
 * Returns the share that is told beside a verdict; null where none is. A proof is as sure as its test: the share of its causes answers another
 * question.
 */
export const shareTold = ({ share, ground }: VerdictRecord): number | null =>
  share === undefined || ground?.startsWith('proved') ? null : share;

/** Says how sure a verdict is. */
export function sureWords(record: VerdictRecord): string {
  const share = shareTold(record);
  const certainty = CERTAINTY_WORDS[record.certainty];
  return share === null ? certainty : messagesOf('sure').share({ certainty, share: inHundred(share) });
}
