import { messagesOf } from '../messages-of';

/** Words of the screens of battery, one list a part. */

export const BATTERIES_PAGE = messagesOf('batteriesPage');

export const BATTERY_LABELS = messagesOf('batteryLabels');

export const BATTERY_PAGE = messagesOf('batteryPage');

export const BATTERY_TREND = messagesOf('batteryTrend');

export const FIT_INTO = messagesOf('fitInto');
