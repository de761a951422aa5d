import { messagesOf } from '../messages-of';

/** Words of the screens of job, stages, locate, one list a part. */

export const IDENTIFY = messagesOf('identify');

export const LOCATE_HEAD = messagesOf('locateHead');

export const LOCATE_POINTS = messagesOf('locatePoints');

export const PARK_DONOR = messagesOf('parkDonor');

export const LATCH_PART = messagesOf('latchPart');
