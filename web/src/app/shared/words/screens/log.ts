import { messagesOf } from '../messages-of';

/** Words of the screens of log, one list a part. */

export const LOG_PAGE = messagesOf('logPage');
