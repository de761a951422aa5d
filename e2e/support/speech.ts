import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';

const FOLDER = fileURLToPath(new URL('../../web/src/messages', import.meta.url));

interface Tree {
  readonly [key: string]: string | Tree;
}

function messagesOf(language: string): Map<string, string> {
  const found = new Map<string, string>();
  const walk = (node: Tree, path: string): void => {
    for (const [key, child] of Object.entries(node)) {
      if (typeof child === 'string') found.set(`${path}.${key}`, child);
      else walk(child, `${path}.${key}`);
    }
  };
  for (const file of readdirSync(join(FOLDER, language)).filter((name) => name.endsWith('.json')))
    walk(JSON.parse(readFileSync(join(FOLDER, language, file), 'utf8')) as Tree, file);
  return found;
}

const PLACE = /\{(\w+)\}/g;
const escaped = (text: string): string => text.replace(/[.*+?^${}()|[\]\\]/g, '\\$&');

/**
 * Returns a translator of what an English screen says. It finds the message with these words, with its places filled, and fills the same
 * message of the other language.
 *
 * @example
 * inLanguage('de')('Go on to Plan'); // 'Weiter: Plan'
 */
export function inLanguage(language: string): (english: string) => string {
  if (language === 'en') return (english) => english;
  const [english, other] = [messagesOf('en'), messagesOf(language)];
  const whole = new Map([...english].map(([key, text]) => [text.trim(), key]));
  const withPlaces = [...english].filter(([, text]) => /\{\w+\}/.test(text) && !text.includes('plural'));
  const say = (text: string): string => {
    const key = whole.get(text.trim());
    if (key !== undefined) return other.get(key)!.trim();
    for (const [at, pattern] of withPlaces) {
      const names = [...pattern.matchAll(PLACE)].map(([, name]) => name!);
      const parts = pattern.split(/\{\w+\}/).map(escaped);
      const match = new RegExp(`^${parts.join('(.+)')}$`).exec(text);
      if (!match || parts.join('').replace(/\W/g, '').length < 4) continue;
      const values = Object.fromEntries(names.map((name, i) => [name, say(match[i + 1]!)]));
      return other.get(at)!.replace(PLACE, (_, name: string) => values[name] ?? '');
    }
    return text;
  };
  return say;
}
