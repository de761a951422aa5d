import { readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { parse, TYPE } from '@formatjs/icu-messageformat-parser';
import { format, resolveConfig } from 'prettier';

const ROOT = join(import.meta.dirname, '..');
const FOLDER = join(ROOT, 'web/src/messages');
const TYPES = join(ROOT, 'web/src/app/shared/words/message-types.ts');

/** The language that the others are compared with. */
const FIRST = 'en';
const LANGUAGES = readdirSync(FOLDER, { withFileTypes: true })
  .filter((entry) => entry.isDirectory())
  .map(({ name }) => name);

/** Returns the messages of a language by section, and the file of each section. */
function messagesOf(language) {
  const files = readdirSync(join(FOLDER, language)).filter((name) => name.endsWith('.json'));
  const parts = files.map((file) => JSON.parse(readFileSync(join(FOLDER, language, file), 'utf8')));
  return Object.assign({}, ...parts);
}

/** Lists the messages under a node as pairs of path and text. */
function* leaves(node, path = []) {
  if (typeof node === 'string') yield [path.join('.'), node];
  else for (const [key, child] of Object.entries(node)) yield* leaves(child, [...path, key]);
}

/** Returns the names of the values that a message has places for. @throws Error for broken ICU syntax */
function placesOf(text) {
  const found = new Set();
  const visit = (elements) => {
    for (const element of elements) {
      if (element.type !== TYPE.literal && element.type !== TYPE.pound) found.add(element.value);
      for (const { value } of Object.values(element.options ?? {})) visit(value);
    }
  };
  visit(parse(text, { ignoreTag: true }));
  return [...found].sort();
}

/** Compares every language with the first: missing keys, spare keys, other places. */
function faultsOfMessages() {
  const first = new Map(leaves(messagesOf(FIRST)));
  const faults = [];
  const places = (language, key, text) => {
    try {
      return placesOf(text).join(', ');
    } catch (error) {
      faults.push(`${language} ${key}: ${error.message}`);
      return null;
    }
  };
  for (const language of LANGUAGES) {
    const own = new Map(leaves(messagesOf(language)));
    for (const [key, text] of first) {
      if (!own.has(key)) faults.push(`${language} ${key}: missing`);
      else if (places(FIRST, key, text) !== places(language, key, own.get(key)))
        faults.push(`${language} ${key}: other places than in ${FIRST}`);
    }
    for (const key of own.keys()) if (!first.has(key)) faults.push(`${language} ${key}: not in ${FIRST}`);
  }
  return faults;
}

const nameOf = (key) => (/^[A-Za-z_$][\w$]*$/.test(key) ? key : JSON.stringify(key));

function typeOf(node) {
  if (typeof node !== 'string')
    return `{ ${Object.entries(node)
      .map(([key, child]) => `readonly ${nameOf(key)}: ${typeOf(child)};`)
      .join(' ')} }`;
  const places = placesOf(node);
  return places.length === 0 ? 'string' : `Message<${places.map((p) => `'${p}'`).join(' | ')}>`;
}

/** Returns the types of all messages, from the first language. */
async function messageTypes() {
  const source = `/** A value of a message. A missing one leaves its place empty. */
export type Value = string | number | null | undefined;
/** A message with places for values, by their names. */
export type Message<K extends string> = (values: Readonly<Record<K, Value>>) => string;

/** The messages of a language by section and key. Written by \`npm run messages\` from web/src/messages/en. */
export interface Messages ${typeOf(messagesOf(FIRST))}
`;
  return format(source, { ...(await resolveConfig(TYPES)), filepath: TYPES });
}

/** Throws where the languages differ, or the types are not those of the messages. */
async function checkMessages() {
  const faults = faultsOfMessages();
  if (faults.length > 0) throw new Error(`Messages differ between languages:\n${faults.join('\n')}`);
  if (readFileSync(TYPES, 'utf8') !== (await messageTypes()))
    throw new Error('The types of the messages are old: run "npm run messages".');
}

if (process.argv[1] && import.meta.url === pathToFileURL(process.argv[1]).href) {
  if (process.argv[2] !== 'check') writeFileSync(TYPES, await messageTypes());
  await checkMessages();
  process.stdout.write('The languages have the same messages, with the same places.\n');
}
