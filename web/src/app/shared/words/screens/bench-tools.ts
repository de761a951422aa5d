import { messagesOf } from '../messages-of';

/** Words of the screens of bench, tools, one list a part. */

export const BANKS = messagesOf('banks');
