import { createHash } from 'node:crypto';
import type pg from 'pg';

/** A statement asked for so often is prepared: parsed and planned once for its connection. */
const FROM_ASKED = 4;
/** Of so many different statements it is counted how often they are asked; lists of any length make ever new ones. */
const COUNTED_MOST = 500;

interface Asked {
  readonly text: string;
  name?: string;
}
const isAsked = (query: unknown): query is Asked =>
  typeof query === 'object' && query !== null && 'text' in query && typeof query.text === 'string';

/** How often each statement was asked, over all connections, and its name once it has one: those asked again and again come first. */
const asked = new Map<string, { times: number; name?: string }>();

/**
 * Names the statements that a connection runs again and again, so that the database keeps them parsed and planned: of a short statement
 * that is the larger part of its time.
 */
export function prepareRepeated(client: pg.ClientBase): void {
  const query = client.query.bind(client) as (...all: unknown[]) => unknown;
  client.query = ((first: unknown, ...rest: unknown[]) => {
    const name = isAsked(first) && first.name === undefined ? nameOfRepeated(first.text) : undefined;
    return query(name === undefined ? first : { ...(first as Asked), name }, ...rest);
  }) as typeof client.query;
}

/** The name of a statement that was asked often enough; undefined for every other, and for several in one, which nothing prepares. */
function nameOfRepeated(text: string): string | undefined {
  if (text.includes(';')) return undefined;
  const known = asked.get(text);
  if (!known) {
    if (asked.size < COUNTED_MOST) asked.set(text, { times: 1 });
    return undefined;
  }
  known.times++;
  if (known.times > FROM_ASKED) known.name ??= createHash('sha1').update(text).digest('base64url');
  return known.name;
}
