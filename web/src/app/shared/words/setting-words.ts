import type { LanguageSetting } from '../model/language';
import type { SettingKey } from '../model/setting-table';
import { messagesOf } from './messages-of';

/** Each language by its own name, and the choice of the browser's. */
export const LANGUAGE_WORDS: Readonly<Record<LanguageSetting, string>> = messagesOf('language');

/** The settings of a device. */
export const SETTING_WORDS: Readonly<Record<SettingKey, { readonly name: string; readonly says: string }>> =
  messagesOf('setting');
