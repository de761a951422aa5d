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

/** How often each statement was asked, over all connections: those asked again and again come first. */
const asked = new Map<string, number>();

/**
 * Gives a name to what a connection is asked again and again, so that the database keeps it parsed and planned: of a short statement that is the
 * larger part of its time.
 */
export function prepareRepeated(client: pg.ClientBase): void {
  const query = client.query.bind(client) as (...all: unknown[]) => unknown;
  client.query = ((first: unknown, ...rest: unknown[]) => {
    const isRepeated = isAsked(first) && first.name === undefined && isOften(first.text);
    return query(isRepeated ? { ...first, name: nameOf(first.text) } : first, ...rest);
  }) as typeof client.query;
}

function isOften(text: string): boolean {
  const times = asked.get(text) ?? 0;
  if (times === 0 && asked.size >= COUNTED_MOST) return false;
  asked.set(text, times + 1);
  return times >= FROM_ASKED;
}

const nameOf = (text: string): string => createHash('sha1').update(text).digest('base64url');
