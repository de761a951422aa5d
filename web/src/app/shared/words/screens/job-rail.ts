import { messagesOf } from '../messages-of';

/** Words of the screens of job, rail, one list a part. */

export const RAIL = messagesOf('rail');

export const STAGE_RESULTS = messagesOf('stageResults');
