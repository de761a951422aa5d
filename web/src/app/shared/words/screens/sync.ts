import { type Shown, tell } from '../tell';

/** Words of the screens of sync, one list a part. */

export const ANSWER_TO = {
  itCouldNotBeSent: 'It could not be sent.',
} as const;

export const JOB_SYNC = {
  whatItStandsOnWasNot: (before: Shown) => tell`What it stands on was not taken: ${before}`,
} as const;
