import { messagesOf } from '../messages-of';

/** Words of the screens of entry, one list a part. */

export const ENTRY_EDITOR = messagesOf('entryEditor');

export const ENTRY_FIELDS = messagesOf('entryFields');
