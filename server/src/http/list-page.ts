import type { Request, Response } from 'express';
import { HttpProblem } from './problem.js';

/** Rows of a page at most; a job of the log is read from its own large row. */
export const PAGE_MAX = 500;
export const JOBS_PAGE_MAX = 200;
/** Of watched vehicles: each is read from the snapshot of its last job. */
export const WATCH_PAGE_MAX = 200;

/**
 * Answers a list. With `limit` it answers one page, and `Link` (RFC 8288) names the next. Without it the answer is the whole list: a device
 * keeps lists whole for work without network.
 *
 * @param keyOf the cursor of a row: unique, and the same at the next request
 * @throws HttpProblem 400 for a cursor of no row, 422 for a limit that is none
 * @example sendList(request, response, await allCrew(db), ({ id }) => id); // GET /api/crew?limit=20&after=crew-7
 */
export function sendList<T>(
  request: Request,
  response: Response,
  rows: readonly T[],
  keyOf: (row: T) => string,
): void {
  const { after } = request.query;
  const limit = limitOf(request, PAGE_MAX, 1);
  const at = after === undefined ? -1 : rows.findIndex((row) => keyOf(row) === after);
  if (after !== undefined && at < 0) throw new HttpProblem(400, 'brokenCursor');
  const page = rows.slice(at + 1, limit === null ? undefined : at + 1 + limit);
  const isLast = at + 1 + page.length >= rows.length;
  if (!isLast) response.links({ next: addressAfter(request, keyOf(page.at(-1)!)) });
  response.json(page);
}

/** Returns the rows that a request wants; null where it does not say. @throws HttpProblem 422 outside what a page may hold */
export function limitOf(
  { query: { limit } }: Pick<Request, 'query'>,
  most: number,
  least: number,
): number | null {
  if (limit === undefined) return null;
  const rows = typeof limit === 'string' && /^\d+$/.test(limit) ? Number(limit) : NaN;
  if (!(rows >= least && rows <= most))
    throw new HttpProblem(422, 'wholeNumber', { params: ['limit', most] });
  return rows;
}

function addressAfter({ originalUrl }: Request, after: string): string {
  const [path, query] = originalUrl.split('?');
  const next = new URLSearchParams(query);
  next.set('after', after);
  return `${path}?${next.toString()}`;
}
