import { messagesOf } from '../messages-of';

/** Words of the screen of the watch. */

export const WATCH_PAGE = messagesOf('watchPage');
