import { mkdirSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { ROOT } from './steps.mjs';

/** Stand before and behind every message of the marked language. */
const MARKS = ['\u27e6', '\u27e7'];
/** How much longer than English a message of the marked language is: as much as German. */
const LONGER = 1 / 3;

const markedLine = (line) =>
  `${MARKS[0]}${line}${'\u00b7'.repeat(Math.ceil(line.length * LONGER))}${MARKS[1]}`;

const marked = (node) => {
  if (typeof node === 'string')
    return node.trim() === '' ? node : node.split('\n').map(markedLine).join('\n');
  return Object.fromEntries(Object.entries(node).map(([key, child]) => [key, marked(child)]));
};

/** Writes the English messages once more, each marked and a third longer: a third language, for tests alone. */
export function writeMarkedMessages() {
  const from = join(ROOT, 'web/src/messages/en');
  const to = join(ROOT, 'web/out/messages');
  mkdirSync(to, { recursive: true });
  for (const name of readdirSync(from).filter((file) => file.endsWith('.json')))
    writeFileSync(join(to, name), JSON.stringify(marked(JSON.parse(readFileSync(join(from, name), 'utf8')))));
}
