import { type Fault, faultAt } from '@voltrek/contracts';
import type { RequestHandler } from 'express';
import { HttpProblem } from './problem.js';

/** Nothing that is sent here nests deeper. */
const DEEPEST = 40;
/** Keys that would reach into every object of the program. */
const RESERVED_KEYS: readonly string[] = ['__proto__', 'prototype', 'constructor'];

/**
 * Refuses, by name, what no schema looks at and neither the program nor the database takes: text with a NUL or half a character in it,
 * keys that reach into prototypes, and nesting without end. In bodies, addresses and what is asked in them alike.
 */
export const plainInput: RequestHandler = (request, _response, next) => {
  const address = decoded(request.originalUrl);
  if (address === null || isBroken(address)) throw new HttpProblem(400, 'addressUnreadable');
  const fault = faultOf(request.body);
  if (fault) throw new HttpProblem(400, 'requestUnreadable', { fields: [fault] });
  next();
};

function decoded(address: string): string | null {
  try {
    return decodeURIComponent(address);
  } catch {
    return null;
  }
}

/** A NUL, or one half of a pair of code units that make one character. */
const BROKEN = /\0|\p{Surrogate}/u;
const isBroken = (text: string): boolean => BROKEN.test(text);

/** The first thing wrong, with its path; null for none. Walked by a list of its own, since a deep value would overrun the stack. */
function faultOf(body: unknown): Fault | null {
  const open: { readonly value: unknown; readonly path: string; readonly depth: number }[] = [
    { value: body, path: '', depth: 0 },
  ];
  for (let at = open.pop(); at; at = open.pop()) {
    const { value, path, depth } = at;
    if (typeof value === 'string') {
      if (isBroken(value)) return faultAt(path, 'badCharacter');
      continue;
    }
    if (typeof value !== 'object' || value === null) continue;
    if (depth === DEEPEST) return faultAt(path.slice(0, 100), 'tooDeep', { max: DEEPEST });
    for (const [key, held] of Object.entries(value)) {
      if (isBroken(key) || RESERVED_KEYS.includes(key)) return faultAt(path, 'badKey');
      open.push({
        value: held,
        path: Array.isArray(value) ? `${path}[${key}]` : path ? `${path}.${key}` : key,
        depth: depth + 1,
      });
    }
  }
  return null;
}
