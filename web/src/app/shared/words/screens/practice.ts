import { messagesOf } from '../messages-of';

/** Words of the screens of practice, one list a part. */

export const LADDER_PAGE = messagesOf('ladderPage');

export const WRITE_PAGE = messagesOf('writePage');

export const TRAINING_BENCH = messagesOf('trainingBench');

export const CASE_PAGE = messagesOf('casePage');

export const DEBRIEF = messagesOf('debrief');

export const DRILL_PAGE = messagesOf('drillPage');
