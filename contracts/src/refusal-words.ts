import type { Refusal } from '@voltrek/core';

/** What a refused event is told, on the wire and on the screen. */
export const REFUSAL_WORDS: Record<Refusal, string> = {
  'not-open': 'This job has not been opened.',
  'already-open': 'This call already has a job.',
  'job-closed': 'This job is closed. Open a new call to go on.',
  'stop-active': 'A stop stands. Nothing may be connected or cranked.',
  'polarity-unproved': 'Prove positive first: two signs that agree.',
  'no-plan': 'Choose a source in Plan first.',
  'plan-in-use': 'Clamps are on. Make safe before changing the plan.',
  'clamp-already-on': 'That clamp is already on.',
  'clamp-already-off': 'That clamp is already off.',
  'clamps-unfinished': 'Finish the hook-up, or take every clamp off, before cranking.',
  'pack-still-on': 'Switch the pack off before taking a clamp off.',
  'pack-already-so': 'The pack is already switched that way.',
  'donor-already-so': 'The donor engine is already so.',
  'clamps-still-on': 'Clamps are still on. Clear down first.',
  'attempt-running': 'A try is running. End it first.',
  'no-attempt-running': 'No try is running.',
  'tries-spent': 'Tries are spent. Go back to Checks, or say why you go on.',
  'rest-first': 'Starter and leads must rest first, or say why not.',
  'already-running': 'It already runs.',
  'stop-not-raised': 'That stop does not stand.',
  'value-out-of-range': 'That figure is out of range.',
  'reason-missing': 'Say why.',
  'no-verdict': 'Give the verdict before closing.',
  'cannot-undo': 'That can no longer be undone: something later rests on it.',
};
