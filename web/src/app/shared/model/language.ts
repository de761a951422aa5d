import { signal } from '@angular/core';

/** The languages that have all messages. */
export const LANGUAGES = ['en', 'de'] as const;
export type Language = (typeof LANGUAGES)[number];

/** The setting of a device: one of them, or the browser's. */
export const LANGUAGE_SETTINGS = ['browser', ...LANGUAGES] as const;
export type LanguageSetting = (typeof LANGUAGE_SETTINGS)[number];

const current = signal<Language>('en');

/** The language on screen. Read in a template or `computed`, it follows a change. */
export const language = current.asReadonly();

/** Sets the language of figures, dates and messages. */
export const setLanguage = (to: Language): void => current.set(to);

const isOf = (locale: string, of: Language): boolean => locale.toLowerCase().split('-')[0] === of;

/**
 * Returns the language of a device: its setting, or the first of the browser's that has messages, else English.
 *
 * @param locales the browser's, the most wanted first
 * @example
 * languageBy('browser', ['fr-FR', 'de-AT']); // 'de'
 * languageBy('en', ['de-AT']); // 'en'
 */
export function languageBy(setting: LanguageSetting, locales: readonly string[]): Language {
  if (setting !== 'browser') return setting;
  for (const locale of locales) {
    const found = LANGUAGES.find((one) => isOf(locale, one));
    if (found) return found;
  }
  return 'en';
}

/** Locale of a language for a browser that has none of its own. */
const USUAL_LOCALE: Readonly<Record<Language, string>> = { en: 'en-GB', de: 'de-DE' };

/** Returns the locales for figures and dates: those of the browser in the language on screen, else its usual one. */
export function localesOf(of: Language, browser: readonly string[] = navigator.languages): readonly string[] {
  const own = browser.filter((locale) => isOf(locale, of));
  return own.length > 0 ? own : [USUAL_LOCALE[of]];
}
