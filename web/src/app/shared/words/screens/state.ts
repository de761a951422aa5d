/** Words of the screens of state, one list a part. */

export const PROBLEM = {
  somethingWentWrong: 'Something went wrong.',
  theServerDoesNotAnswer: 'The server does not answer.',
  itIsNotSaved: 'The server does not answer, and this device cannot keep it. It is not saved.',
} as const;
