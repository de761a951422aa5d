import { messagesOf } from '../messages-of';

/** Words of the screens of bench, one list a part. */

export const BENCH_PAGE = messagesOf('benchPage');

export const CURVE_CHART = messagesOf('curveChart');

export const READ_FIELDS = messagesOf('readFields');

export const TOOL = messagesOf('tool');
