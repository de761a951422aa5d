import type { RequestHandler, Router } from 'express';
import type { Address, Method } from './routes.js';

/** Parameters that stand in a path. */
type PathParameters<A extends string> = A extends `${string}:${infer Name}/${infer Rest}`
  ? Record<Name, string> & PathParameters<Rest>
  : A extends `${string}:${infer Name}`
    ? Record<Name, string>
    : Record<never, string>;

/**
 * Gives an address of the table its handler.
 *
 * @example serve(router, 'GET /api/crew', async (_request, response) => { response.json(await allCrew(db)); });
 */
export function serve<A extends Address>(
  router: Pick<Router, 'get' | 'post' | 'put' | 'delete'>,
  address: A,
  ...handlers: readonly RequestHandler<PathParameters<A>>[]
): void {
  const [method, path] = address.split(' ') as [Method, string];
  const verb = method.toLowerCase() as 'get' | 'post' | 'put' | 'delete';
  router[verb](path, ...(handlers as readonly RequestHandler[]));
}
