import { messagesOf } from '../messages-of';

/** Words of the linked instruments under Kit. */
export const INSTRUMENTS_PART = messagesOf('instrumentsPart');
