import type { CallChangeKind } from '@voltrek/contracts';

/** What happened to a call. */
export const CALL_CHANGE_WORDS: Record<CallChangeKind, string> = {
  reported: 'reported',
  taken: 'taken',
  'passed-on': 'passed on',
  'given-back': 'given back',
  'called-off': 'called off',
  reopened: 'waits again',
};
