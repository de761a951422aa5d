import { messagesOf } from '../messages-of';

/** Words of the screens of job, stages, verdict, one list a part. */

export const CHANGE_BATTERY = messagesOf('changeBattery');

export const FITTING_STEPS_PART = messagesOf('fittingStepsPart');

export const TAKE_OUT = messagesOf('takeOut');

export const MAINTAINER_PART = messagesOf('maintainerPart');

export const CHARGE_ADVICE = messagesOf('chargeAdvice');

export const JOB_SHEET = messagesOf('jobSheet');

export const LEDGER = messagesOf('ledger');

export const OWNER_PAGE = messagesOf('ownerPage');

export const OWNER_PDF = messagesOf('ownerPdf');

export const RECHECK = messagesOf('recheck');

export const SHEET_PDF = messagesOf('sheetPdf');

export const SHEET_TEXT = messagesOf('sheetText');

export const VERDICT = messagesOf('verdictPage');

export const WORKSHOP_NOTE = messagesOf('workshopNote');
