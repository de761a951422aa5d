import { signal } from '@angular/core';
import { translate } from '@jsverse/transloco';
import type { Messages, Value } from './message-types';
import { plainNumber } from './numbers';

/** The messages of the language in use, as a tree by section and key. */
export interface MessageTree {
  readonly [key: string]: string | MessageTree;
}

const messages = signal<MessageTree>({});

/** Shows the messages of another language: every text that was read from a section is read again. */
export const showMessages = (tree: MessageTree): void => messages.set(tree);

/** Whether the messages of a section are loaded: those of the first page come before the others. */
export const areLoaded = (name: keyof Messages): boolean => name in messages();

function nodeAt(path: readonly string[]): string | MessageTree | undefined {
  let node: string | MessageTree | undefined = messages();
  for (const key of path) node = typeof node === 'object' ? node[key] : undefined;
  return node;
}

function textAt(path: readonly string[], values?: Readonly<Record<string, Value>>): string {
  const filled: Record<string, string | number> = {};
  for (const [name, value] of Object.entries(values ?? {}))
    filled[name] = typeof value === 'number' && !Number.isInteger(value) ? plainNumber(value) : (value ?? '');
  return translate(path.join('.'), filled);
}

function reader(path: readonly string[]): object {
  const under = new Map<string, object>();
  const read = (key: string): unknown => {
    const at = [...path, key];
    const node = nodeAt(at);
    if (node === undefined) return undefined;
    if (typeof node === 'string')
      return node.includes('{') ? (values: Record<string, Value>) => textAt(at, values) : node;
    if (!under.has(key)) under.set(key, reader(at));
    return under.get(key);
  };
  return new Proxy(
    {},
    {
      get: (_, key) => {
        if (typeof key === 'symbol') return undefined;
        if (nodeAt(path.slice(0, 1)) === undefined) throw new Error(`Unloaded: ${path.join('.')}.${key}`);
        return read(key);
      },
      has: (_, key) => typeof key === 'string' && nodeAt([...path, key]) !== undefined,
      ownKeys: () => Object.keys(nodeAt(path) ?? {}),
      getOwnPropertyDescriptor: (_, key) =>
        typeof key === 'string' && nodeAt([...path, key]) !== undefined
          ? { configurable: true, enumerable: true, writable: false, value: read(key) }
          : undefined,
    },
  );
}

/**
 * Returns a part of the messages, read in the language in use at each access. A message with places is a function of their values. Read it
 * inside a function, a template or `computed`: a copy in a constant keeps the language of its moment.
 *
 * @throws Error at a read before the messages are loaded
 * @example
 * const T = messagesOf('boardPage');
 * T.newCall; // 'New call'
 * T.at({ stage: 'Plan' }); // 'at Plan'
 */
export const messagesOf = <K extends keyof Messages>(name: K): Messages[K] => reader([name]) as Messages[K];
