/** Days of a year on the average. */
export const DAYS_A_YEAR = 365.25;
/** Milliseconds of a minute, an hour and a day, as clocks count them. */
export const MINUTE_MS = 60_000;
export const HOUR_MS = 60 * MINUTE_MS;
export const HOURS_A_DAY = 24;
export const DAY_MS = HOURS_A_DAY * HOUR_MS;
