import { messagesOf } from '../messages-of';

/** Words of the screens of followups, one list a part. */

export const FOLLOW_UPS_PAGE = messagesOf('followUpsPage');
