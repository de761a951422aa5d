import { language, localesOf } from './language';

/** Forms of a moment, by place: a list has room for less than a sheet. */
const STYLES = {
  time: { hour: 'numeric', minute: '2-digit' },
  seconds: { hour: 'numeric', minute: '2-digit', second: '2-digit' },
  day: { day: 'numeric', month: 'short' },
  dayTime: { day: 'numeric', month: 'short', hour: 'numeric', minute: '2-digit' },
  month: { month: 'short', year: 'numeric' },
  date: { day: 'numeric', month: 'short', year: 'numeric' },
  dateTime: { day: 'numeric', month: 'short', year: 'numeric', hour: 'numeric', minute: '2-digit' },
  longDate: { day: 'numeric', month: 'long', year: 'numeric' },
  weekdayTime: { weekday: 'short', hour: 'numeric', minute: '2-digit' },
  weekdayDate: { weekday: 'short', day: 'numeric', month: 'short', year: 'numeric' },
  weekdayLongDate: { weekday: 'long', day: 'numeric', month: 'long', year: 'numeric' },
} as const satisfies Record<string, Intl.DateTimeFormatOptions>;
export type DateStyle = keyof typeof STYLES;

/** A day without a time, which the browser would take for midnight in universal time. */
const DAY = /^\d{4}-\d\d-\d\d$/;

/** Making one takes longer than using it a hundred times. */
const formats = new Map<string, Intl.DateTimeFormat>();

/**
 * A moment as the language on screen writes it, in the browser's own locale of that language.
 *
 * @param at ISO 8601, milliseconds or a date; a day without a time is that day wherever one is
 * @param locales the user's, the most wanted first
 */
export function dateText(
  at: string | number | Date,
  style: DateStyle,
  locales: readonly string[] = localesOf(language()),
): string {
  const key = `${style} ${locales.join()}`;
  const format = formats.get(key) ?? formatOf(style, locales);
  formats.set(key, format);
  return format.format(new Date(typeof at === 'string' && DAY.test(at) ? `${at}T00:00` : at));
}

/** Hours of a whole day line up with two digits; those of half a day are written without a zero. */
function formatOf(style: DateStyle, locales: readonly string[]): Intl.DateTimeFormat {
  const options: Intl.DateTimeFormatOptions = STYLES[style];
  const format = new Intl.DateTimeFormat([...locales], options);
  return options.hour && !format.resolvedOptions().hour12
    ? new Intl.DateTimeFormat([...locales], { ...options, hour: '2-digit' })
    : format;
}

/** The time of day, as the user's clock shows it. */
export const timeOfDay = (at: string | number | Date): string => dateText(at, 'time');

/** The day that it is where one is, as the house writes days: YYYY-MM-DD. */
export function localDay(at: Date): string {
  const two = (figure: number): string => String(figure).padStart(2, '0');
  return `${at.getFullYear()}-${two(at.getMonth() + 1)}-${two(at.getDate())}`;
}
