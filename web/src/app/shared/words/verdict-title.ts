import type { Repair, Suspect } from '@voltrek/core/diagnosis';
import type { VerdictKind } from '@voltrek/core/verdict';
import { messagesOf } from './messages-of';
import { repairedPart } from './repair-words';
import { SUSPECT_WORDS, VERDICT_WORDS } from './verdict-words';

const T = messagesOf('verdictTitle');

/** A verdict with the part it names: the one to blame, what was mended, or what must be mended as well. */
export function verdictTitle(
  verdict: VerdictKind,
  suspect: Suspect | null,
  repaired: readonly Repair[] = [],
): string {
  const { name } = VERDICT_WORDS[verdict];
  if (verdict === 'repaired' && repaired.length > 0)
    return T.repaired({ verdict: name, parts: [...new Set(repaired.map(repairedPart))].join(', ') });
  if (!suspect) return name;
  const values = { verdict: name, part: SUSPECT_WORDS[suspect] };
  return verdict === 'not-the-battery' || verdict === 'repaired' ? T.blames(values) : T.andMend(values);
}
