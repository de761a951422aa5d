import { messagesOf } from '../messages-of';

/** Words of the screens of files, one list a part. */

export const FILES_PAGE = messagesOf('filesPage');
