import { messagesOf } from '../messages-of';

/** Words of the screens of set, up, one list a part. */

export const SET_UP_PAGE = messagesOf('setUpPage');
