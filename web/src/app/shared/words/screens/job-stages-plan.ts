import { messagesOf } from '../messages-of';

/** Words of the screens of job, stages, plan, one list a part. */

export const OPTION_LIST = messagesOf('optionList');

export const PARAMETER_NOTES = messagesOf('parameterNotes');

export const PLAN_CHARTS = messagesOf('planCharts');

export const PLAN_COMPARE = messagesOf('planCompare');

export const PLAN_DETAIL = messagesOf('planDetail');

export const PLAN_INPUTS = messagesOf('planInputs');

export const PLAN_NOTES = messagesOf('planNotes');

export const PLAN_STORE = messagesOf('planStore');

export const PLAN_WAYS = messagesOf('planWays');

export const VAN_COMING = messagesOf('vanComing');

export const PLAN = messagesOf('plan');

export const UNFIT_LIST = messagesOf('unfitList');

export const WAY_LIST = messagesOf('wayList');

export const WAYS_CHART = messagesOf('waysChart');
