import type { CheckId, Repair, RepairStep } from '@voltrek/core/diagnosis';
import type { Finding, Mended } from '@voltrek/core/job';
import { FINDING_NAMES, foundWords } from './diagnosis-words';

const SIDE_WORDS = { plus: 'positive', minus: 'negative' } as const;
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
export const REPAIR_STEP_WORDS: Record<RepairStep, { readonly act: string; readonly why: string }> = {
  'all-off': { act: 'Key out, all consumers off', why: 'Nothing draws, nothing sparks, nothing turns.' },
  secured: { act: 'Brake on, out of gear, nobody before it', why: 'Once put right it may start at a touch.' },
  'minus-off': { act: 'Take the negative clamp off first', why: 'A spanner here meets only its own metal.' },
  'plus-off': { act: 'Take the positive clamp off', why: 'Wrap it: it must not fall on metal.' },
  'bright-metal': {
    act: 'Clean post and clamp to bright metal',
    why: 'Gloves and eyes: the white crust is acid.',
  },
  'clamp-spread': {
    act: 'Open the clamp, two blades in its slot',
    why: 'At its stop it cannot close on the post. Prise, never hammer: the post breaks off.',
  },
  'sleeve-on': { act: 'Push the sleeve over the post', why: 'Bright metal on both sides of it.' },
  'plus-on': {
    act: 'Put the positive clamp back, right down',
    why: 'Negative is still off: a slip carries nothing.',
  },
  'minus-on': { act: 'Put the negative clamp back last', why: 'The last contact is the harmless one.' },
  tightened: { act: 'Tighten until it cannot be turned by hand', why: 'No further: lead gives way.' },
  greased: { act: 'A thin film of grease over the made joint', why: 'Over it, not in it.' },
  'strap-off': { act: 'Undo the strap at body and engine', why: 'Both ends: either one may be the bad one.' },
  'strap-bright': { act: 'Sand lugs and seats to bright metal', why: 'Paint and rust carry nothing.' },
  'strap-on': { act: 'Bolt the strap back tight', why: 'A torn or green strap is for the workshop.' },
  'fuse-out': { act: 'Take the blown fuse out', why: 'Live on one side: insulated tool.' },
  'fuse-cause': {
    act: 'Look for what blew it: chafed cable, dropped tool',
    why: 'A fuse dies of something. If it is not found, this one may go too.',
  },
  'fuse-same': {
    act: 'Put in the same rating, never more',
    why: 'If it blows again, stop: no jump, workshop.',
  },
  'isolator-turned': { act: 'Turn the isolator on', why: 'It may have been off for a reason: ask first.' },
  'stop-reason': { act: 'Find out why it was pressed', why: 'Somebody may have their hands in it.' },
  'stop-pulled': { act: 'Turn and pull the emergency stop out', why: 'All clear of the machine first.' },
  'switch-set': { act: 'Put it right, then turn the key', why: 'Nothing else is changed: so it was that.' },
  'belt-looked-at': { act: 'Look at the whole belt', why: 'Cracked, glazed or oily: a new one, not this.' },
  'belt-tensioned': {
    act: 'Tension it: a thumb pushes the long run in a finger’s width',
    why: 'Fingers out before the key goes in. One that tensions itself is for the workshop.',
  },
  'turned-by-hand': { act: 'Try to turn the clamp by hand', why: 'Then look again, or read what it loses.' },
};

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
