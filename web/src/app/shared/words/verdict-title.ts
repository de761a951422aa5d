import type { Repair, Suspect } from '@voltrek/core/diagnosis';
import type { VerdictKind } from '@voltrek/core/verdict';
import { repairedPart } from './repair-words';
import { SUSPECT_WORDS, VERDICT_WORDS } from './verdict-words';

/** A verdict with the part it names: the one to blame, what was mended, or what must be mended as well. */
export function verdictTitle(
  verdict: VerdictKind,
  suspect: Suspect | null,
  repaired: readonly Repair[] = [],
): string {
  const { name } = VERDICT_WORDS[verdict];
  if (verdict === 'repaired' && repaired.length > 0)
    return `${name}: ${[...new Set(repaired.map(repairedPart))].join(', ')}`;
  if (!suspect) return name;
  return verdict === 'not-the-battery' || verdict === 'repaired'
    ? `${name}: ${SUSPECT_WORDS[suspect]}`
    : `${name}, and mend: ${SUSPECT_WORDS[suspect]}`;
}
