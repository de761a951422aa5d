import { type Route, ROUTES } from './routes.js';

const PATTERNS = ROUTES.map((route) => ({
  route,
  pattern: new RegExp(`^${route.path.replaceAll('.', '\\.').replace(/:\w+/g, '[^/]+')}/?$`, 'i'),
  // A name that is written out goes before one that stands for any.
  named: route.path.split('/').filter((part) => !part.startsWith(':')).length,
})).sort((a, b) => b.named - a.named);

/** Returns the methods that an address takes, HEAD among them where it is read. Empty for an address that there is not. */
export function methodsAt(path: string): string[] {
  const methods = new Set<string>();
  for (const { route, pattern } of PATTERNS) if (pattern.test(path)) methods.add(route.method);
  return [...methods].flatMap((method) => (method === 'GET' ? ['GET', 'HEAD'] : [method]));
}

/** The route that a request asks for; null for an address that there is not. */
export function routeOf(method: string, path: string): Route | null {
  const asked = method === 'HEAD' ? 'GET' : method;
  return PATTERNS.find(({ route, pattern }) => route.method === asked && pattern.test(path))?.route ?? null;
}
