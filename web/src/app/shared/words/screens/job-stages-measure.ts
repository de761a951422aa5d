import { messagesOf } from '../messages-of';

/** Words of the screens of job, stages, measure, one list a part. */

export const BANK_NOW = messagesOf('bankNow');

export const LIVE_LINE = messagesOf('liveLine');

export const LIVE_STORE = messagesOf('liveStore');

export const MEANING = messagesOf('meaning');

export const MEASURE = messagesOf('measure');

export const TAKEN = messagesOf('taken');

export const TRACE_CHART = messagesOf('traceChart');

export const TRACE_PART = messagesOf('tracePart');
