import { messagesOf } from '../messages-of';

/** Words of the screens of job, stages, one list a part. */

export const CHECKS = messagesOf('checks');

export const CLEARDOWN = messagesOf('cleardown');

export const CRANK_METER = messagesOf('crankMeter');

export const CRANK = messagesOf('crank');

export const HOOKUP = messagesOf('hookup');

export const MEASURE_LEADS = messagesOf('measureLeads');

export const NEXT_TRIES = messagesOf('nextTries');

export const PLAN_PROMISE = messagesOf('planPromise');

export const SCENE = messagesOf('scene');

export const STOP_SCREEN = messagesOf('stopScreen');

export const TRIES = messagesOf('tries');
