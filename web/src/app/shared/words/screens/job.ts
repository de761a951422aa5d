import { messagesOf } from '../messages-of';

/** Words of the screens of job, one list a part. */

export const ANOTHER_BATTERY = messagesOf('anotherBattery');

export const DRIVER_SAYS_DIALOG = messagesOf('driverSaysDialog');

export const GUARD_LAMP = messagesOf('guardLamp');

export const MAKE_SAFE_DIALOG = messagesOf('makeSafeDialog');

export const MEND_HERE = messagesOf('mendHere');

export const NEXT_ACTION = messagesOf('nextAction');

export const OPTION_NAME = messagesOf('optionName');

export const REPAIR_PROMPT = messagesOf('repairPrompt');

export const ROLL_PROMPT = messagesOf('rollPrompt');

export const SOMETHING_ELSE_DIALOG = messagesOf('somethingElseDialog');

export const STEP_CARD = messagesOf('stepCard');

export const STEP_LINE = messagesOf('stepLine');

export const STEP_WORDS = messagesOf('step');

export const SUSPECTS = messagesOf('suspects');

export const COUNTDOWN = messagesOf('countdown');

export const JOB_PAGE = messagesOf('jobPage');
