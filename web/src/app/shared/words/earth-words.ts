import { mirroredWords } from './mirrored-words';
import { OTHER_POST_REPAIR, type RepairStep } from '@voltrek/core/hookup';
import { type Confirmation, type FittingStep, type HookupStep, OTHER_POST_STEP } from '@voltrek/core/hookup';
import { isPositiveEarth, type Machine } from '@voltrek/core/machine';
import { FITTING_WORDS } from './plan-words';
import { REPAIR_STEP_WORDS } from './repair-words';
import {
  CONFIRM_OF_MOTORCYCLE,
  CONFIRM_OF_WAKING,
  CONFIRM_WORDS,
  type ConfirmWords,
  REASON_OF_WAKING,
  REASON_WORDS,
} from './words';

/** Words of steps, turned round for a machine whose plus is on its body. */

type Earthed = Pick<Machine, 'earth'>;
interface ActWords {
  readonly act: string;
  readonly why: string;
}

/** Words of the usual machine, as they are true of this one. */
export const earthedWords = (words: string, machine: Earthed): string =>
  isPositiveEarth(machine) ? mirroredWords(words) : words;

/** Why a step of an order stands where it does. */
export function reasonWords(
  { reason, isMirrored }: Pick<HookupStep, 'reason' | 'isMirrored'>,
  machine?: Pick<Machine, 'engine'>,
): string {
  const own = machine?.engine === null ? REASON_OF_WAKING[reason] : undefined;
  const words = own ?? REASON_WORDS[reason];
  return isMirrored ? mirroredWords(words) : words;
}

/** A look, a wait or a setting. */
export function confirmWords(
  what: Confirmation,
  machine: Pick<Machine, 'earth' | 'engine' | 'machineClass'> | null,
): ConfirmWords {
  const usual = CONFIRM_WORDS[what];
  if (!machine) return usual;
  const ofClass = machine.machineClass === 'motorcycle' ? CONFIRM_OF_MOTORCYCLE : {};
  const words = (machine.engine === null ? CONFIRM_OF_WAKING : ofClass)[what] ?? usual;
  return {
    title: earthedWords(words.title, machine),
    detail: earthedWords(words.detail, machine),
    go: earthedWords(words.go, machine),
  };
}

const turned = ({ act, why }: ActWords): ActWords => ({ act: mirroredWords(act), why: mirroredWords(why) });

/** A step of changing a battery: what is said of minus elsewhere is said of plus here. */
export const fittingWords = (step: FittingStep, machine: Earthed): ActWords =>
  isPositiveEarth(machine) ? turned(FITTING_WORDS[OTHER_POST_STEP[step] ?? step]) : FITTING_WORDS[step];

/** A step of a repair. */
export const repairStepWords = (step: RepairStep, machine: Earthed): ActWords =>
  isPositiveEarth(machine)
    ? turned(REPAIR_STEP_WORDS[OTHER_POST_REPAIR[step] ?? step])
    : REPAIR_STEP_WORDS[step];
