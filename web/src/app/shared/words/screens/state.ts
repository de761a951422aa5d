/** Words of the screens of state, one list a part. */

export const PROBLEM = {
  somethingWentWrong: 'Something went wrong.',
  theServerDoesNotAnswer: 'The server does not answer.',
} as const;
