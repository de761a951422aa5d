import type { RepairStep } from '@voltrek/core/hookup';
import type { CheckId, Repair } from '@voltrek/core/diagnosis';
import type { Finding, Mended } from '@voltrek/core/job';
import { FINDING_NAMES, foundWords } from './diagnosis-words';
import { messagesOf } from './messages-of';
import { withinSentence } from './numbers';

const SIDE_WORDS = messagesOf('side');
const PART = messagesOf('repairedPart');
const REPAIR = messagesOf('repair');
const MENDED = messagesOf('mended');

const sideWord = ({ side }: Repair): string => (side ? SIDE_WORDS[side] : '');
const thing = (check: CheckId | undefined): string =>
  check ? withinSentence(FINDING_NAMES[check]) : PART.switch;

/** The part that was mended. */
export function repairedPart(repair: Repair): string {
  switch (repair.kind) {
    case 'joint-cleaned':
    case 'clamp-resized':
      return PART.clamp({ side: sideWord(repair) });
    case 'post-sleeved':
      return PART.post({ side: sideWord(repair) });
    case 'strap-cleaned':
      return PART.strap;
    case 'fuse-renewed':
      return PART.fuse;
    case 'isolator-on':
      return PART.isolator;
    case 'stop-released':
      return PART.stop;
    case 'switch-set':
      return thing(repair.check);
    case 'belt-tightened':
      return PART.belt;
  }
}

/** A repair as an order. */
export function repairName(repair: Repair): string {
  switch (repair.kind) {
    case 'joint-cleaned':
    case 'clamp-resized':
    case 'post-sleeved':
    case 'switch-set':
      return REPAIR[repair.kind]({ part: repairedPart(repair) });
    default:
      return REPAIR[repair.kind];
  }
}

/** Each step of a repair as an order, and what to mind there. */
export const REPAIR_STEP_WORDS: Record<RepairStep, { readonly act: string; readonly why: string }> =
  messagesOf('repairStep');

const foundAt = ({ check, found }: Finding): string => {
  const words = foundWords(check, found);
  return typeof found === 'number' ? MENDED.lost({ found: words }) : words;
};

/** The findings before and after a repair. */
export function mendedProof({ before, after }: Mended): string {
  const was = before ? MENDED.before({ found: foundAt(before) }) : MENDED.nothingBefore;
  return after ? MENDED.after({ before: was, found: foundAt(after) }) : MENDED.notAgain({ before: was });
}

/** A repair with its proof as one line. */
export function mendedLine(mended: Mended): string {
  return MENDED.line({ repair: repairName(mended), proof: mendedProof(mended) });
}
