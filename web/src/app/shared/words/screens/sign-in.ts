import { messagesOf } from '../messages-of';

/** Words of the door, one list a part. */

export const SIGN_IN_DIALOG = messagesOf('signInDialog');

export const SIGN_IN_BAR = messagesOf('signInBar');

export const SIGN_IN_PART = messagesOf('signInPart');

export const AUDIT_WORDS = messagesOf('audit');
