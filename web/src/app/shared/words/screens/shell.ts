import { messagesOf } from '../messages-of';

/** Words of the screens of shell, one list a part. */

export const KEY_HELP = messagesOf('keyHelp');

export const NOT_HERE = messagesOf('notHere');

export const REFUSALS = messagesOf('refusals');

export const THIS_DEVICE = messagesOf('thisDevice');

export const TOP_BAR = messagesOf('topBar');

export const WAITING_DIALOG = messagesOf('waitingDialog');

export const WHO_WORKS = messagesOf('whoWorks');
export const SPOKEN = messagesOf('spoken');
export const COLLEAGUE_LINE = messagesOf('colleagueLine');
