import { IntlMessageFormat } from 'intl-messageformat';

const parsed = new Map<string, IntlMessageFormat>();

/** Returns a message in its form for these values. A parsed message is kept: parsing takes longer than a hundred uses. */
export function formOf(text: string, language: string, values: Readonly<Record<string, unknown>>): string {
  const key = `${language} ${text}`;
  const message = parsed.get(key) ?? new IntlMessageFormat(text, language, undefined, { ignoreTag: true });
  parsed.set(key, message);
  return String(message.format(values as Record<string, string | number>));
}
