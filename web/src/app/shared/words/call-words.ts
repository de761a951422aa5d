import { NOT_NUMBERED } from '../model/errand';
import type { CallChangeKind } from '@voltrek/contracts';

/** Acts on a call. */
export const CALL_CHANGE_WORDS: Record<CallChangeKind, string> = {
  reported: 'reported',
  taken: 'taken',
  'passed-on': 'passed on',
  'given-back': 'given back',
  'called-off': 'called off',
  reopened: 'waits again',
};

/** A call by its number; one that no server has numbered yet is the new one. */
export const callWord = (number: number): string => (number === NOT_NUMBERED ? 'New call' : `Call ${number}`);
