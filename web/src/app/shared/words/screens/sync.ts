import { messagesOf } from '../messages-of';

/** Words of the screens of sync, one list a part. */

export const ANSWER_TO = messagesOf('answerTo');

export const JOB_SYNC = messagesOf('jobSync');
