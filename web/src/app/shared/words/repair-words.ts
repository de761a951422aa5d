import type { CheckId, Repair, RepairStep } from '@voltrek/core/diagnosis';
import type { Finding, Mended } from '@voltrek/core/job';
import { FINDING_NAMES, foundWords } from './diagnosis-words';
import { messagesOf } from './messages-of';

const SIDE_WORDS = messagesOf('side');
const sideWord = ({ side }: Repair): string => (side ? SIDE_WORDS[side] : '');
const thing = (check: CheckId | undefined): string => (check ? FINDING_NAMES[check].toLowerCase() : 'switch');

/** The part that was mended. */
export function repairedPart(repair: Repair): string {
  switch (repair.kind) {
    case 'joint-cleaned':
    case 'clamp-resized':
      return `${sideWord(repair)} clamp`;
    case 'post-sleeved':
      return `${sideWord(repair)} post`;
    case 'strap-cleaned':
      return 'body strap';
    case 'fuse-renewed':
      return 'main fuse';
    case 'isolator-on':
      return 'isolator';
    case 'stop-released':
      return 'emergency stop';
    case 'switch-set':
      return thing(repair.check);
    case 'belt-tightened':
      return 'drive belt';
  }
}

/** A repair as an order. */
export function repairName(repair: Repair): string {
  switch (repair.kind) {
    case 'joint-cleaned':
      return `Clean and tighten the ${repairedPart(repair)}`;
    case 'clamp-resized':
      return `Make the ${repairedPart(repair)} grip again`;
    case 'post-sleeved':
      return `Sleeve the ${repairedPart(repair)}`;
    case 'strap-cleaned':
      return 'Clean the body strap';
    case 'fuse-renewed':
      return 'Put in a new main fuse';
    case 'isolator-on':
      return 'Turn the isolator on';
    case 'stop-released':
      return 'Pull the emergency stop out';
    case 'switch-set':
      return `Put right: ${repairedPart(repair)}`;
    case 'belt-tightened':
      return 'Tighten the drive belt';
  }
}

/** Each step of a repair as an order, and what to mind there. */
export const REPAIR_STEP_WORDS: Record<RepairStep, { readonly act: string; readonly why: string }> =
  messagesOf('repairStep');

const told = ({ check, found }: Finding): string => {
  const words = foundWords(check, found);
  return typeof found === 'number' ? `${words} lost` : words;
};

/** The findings before and after a repair. */
export function mendedProof({ before, after }: Mended): string {
  const was = before ? `before: ${told(before)}` : 'nothing recorded before';
  return after ? `${was}; after: ${told(after)}` : `${was}; not found again yet`;
}

/** A repair with its proof as one line. */
export function mendedLine(mended: Mended): string {
  return `${repairName(mended)}; ${mendedProof(mended)}`;
}
