import { messagesOf } from '../messages-of';

/** Words of the screens of state, one list a part. */

export const PROBLEM = messagesOf('problem');
