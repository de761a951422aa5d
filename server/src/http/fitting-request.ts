import type { Request, RequestHandler } from 'express';
import { HttpProblem, notFound } from './problem.js';
import { methodsAt, routeOf } from './route-of.js';
import { READS } from './same-site.js';

/**
 * Returns the problem of a request that no route answers: 405 with `Allow` where its address takes other methods, 404 where it takes none.
 */
export function noRoute({ method, originalUrl }: Request): HttpProblem {
  const path = originalUrl.split('?')[0]!;
  const allowed = methodsAt(path);
  if (allowed.length === 0) return notFound('route', `${method} ${path}`) as HttpProblem;
  const headers = { Allow: allowed.join(', ') };
  return new HttpProblem(405, 'methodNotHere', { params: [method, allowed], headers }) as HttpProblem;
}

/**
 * Refuses a request that no handler of the API can take: another method than its address has (405), or a body that is no JSON (no form, for
 * a file; 415). Reads of unknown addresses go on: documents are served beside the table.
 */
export const fittingRequest: RequestHandler = (request, _response, next) => {
  const path = request.originalUrl.split('?')[0]!;
  const route = routeOf(request.method, path);
  if (!route && !goesOn(request.method, path)) throw noRoute(request);
  if (route && hasBody(request)) {
    const isForm = route.form !== undefined;
    const type = isForm ? 'multipart/form-data' : 'application/json';
    if (!request.is(type))
      throw new HttpProblem(415, isForm ? 'sendForm' : 'sendJson', { headers: { Accept: type } });
  }
  next();
};

/** True for a read of an address that the table does not have: a later handler may. */
const goesOn = (method: string, path: string): boolean =>
  method === 'OPTIONS' || (READS.includes(method) && methodsAt(path).length === 0);

/** True where bytes follow the head: a length of nothing is no body. */
const hasBody = ({ headers }: Request): boolean =>
  headers['transfer-encoding'] !== undefined || Number(headers['content-length'] ?? 0) > 0;
