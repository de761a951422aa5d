import { messagesOf } from '../messages-of';

/** Words of the screens of job, charge, one list a part. */

export const CHARGE_WATCH = messagesOf('chargeWatch');

export const PUT_ON_CHARGE = messagesOf('putOnCharge');

export const LIFT = messagesOf('lift');
