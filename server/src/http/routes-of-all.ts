import type { Act } from '@voltrek/contracts';

export type Method = 'GET' | 'POST' | 'PUT' | 'DELETE';

/** One address of the API, and what asking it does to the house; `open` ones are for whoever stands at the door. */
export interface Route {
  readonly method: Method;
  /** As Express writes it. */
  readonly path: string;
  readonly act: Act | 'open';
}

const routes = (act: Route['act'], ...lines: readonly string[]): Route[] =>
  lines.map((line) => {
    const [method, path] = line.split(' ') as [Method, string];
    return { method, path, act };
  });

/** Every address there is. What stands in none of these lines is refused while the door is shut. */
export const ROUTES: readonly Route[] = [
  ...routes(
    'open',
    'GET /api/health',
    'GET /api/sign-in',
    'POST /api/sign-in/pin',
    'POST /api/sign-in/passkey-question',
    'POST /api/sign-in/passkey',
  ),
  ...routes(
    'look',
    'GET /api/openapi.json',
    'GET /api/stream',
    'GET /api/device',
    'POST /api/device/jobs',
    'GET /api/board',
    'GET /api/board/:callId/changes',
    'GET /api/house',
    'GET /api/crew',
    'GET /api/vans',
    'GET /api/vehicles',
    'GET /api/vehicles/:vehicleId',
    'GET /api/models',
    'GET /api/models/schema.json',
    'GET /api/models/:modelId',
    'GET /api/models/:modelId/photos/:photoId',
    'GET /api/batteries',
    'GET /api/batteries/:batteryId',
    'GET /api/rules',
    'GET /api/backups',
    'GET /api/files/:noun/schema.json',
    'GET /api/follow-ups',
    'GET /api/follow-ups/calendar.ics',
    'GET /api/instruments',
    'GET /api/instruments/stream',
    'GET /api/instruments/weather',
    'GET /api/jobs',
    'GET /api/jobs/:jobId',
    'GET /api/jobs/:jobId/sheet',
    'GET /api/sign-in/house',
    'POST /api/sign-in/out',
    'PUT /api/sign-in/pins/:crewId',
    'POST /api/sign-in/passkeys/question',
    'POST /api/sign-in/passkeys',
    'DELETE /api/sign-in/passkeys/:passkeyId',
    'DELETE /api/sign-in/sessions/:sessionId',
  ),
  ...routes(
    'assist',
    'POST /api/jobs/:jobId/events',
    'PUT /api/instruments/probes',
    'POST /api/instruments/capture',
  ),
  ...routes(
    'work',
    'POST /api/board',
    'POST /api/board/:callId/changes',
    'POST /api/vehicles',
    'PUT /api/vehicles/:vehicleId',
    'POST /api/batteries',
    'POST /api/batteries/:batteryId/moves',
    'POST /api/vans/items/:itemId/recharge',
    'POST /api/vans/marks/:markId/done',
    'GET /api/models/export.json',
    'GET /api/models/export.csv',
    'GET /api/files/:noun/export.json',
    'GET /api/files/:noun/export.csv',
  ),
  ...routes(
    'find',
    'POST /api/models',
    'PUT /api/models/:modelId',
    'POST /api/models/:modelId/confirmations',
    'POST /api/models/:modelId/photos',
  ),
  ...routes(
    'lead',
    'POST /api/house',
    'POST /api/crew',
    'PUT /api/crew/:crewId',
    'POST /api/vans',
    'PUT /api/vans/:vanId',
    'POST /api/vans/:vanId/items',
    'PUT /api/vans/items/:itemId',
    'POST /api/vans/items/:itemId/retire',
    'GET /api/people/:personId/export',
    'POST /api/people/:personId/erase',
    'POST /api/models/preview',
    'POST /api/models/import',
    'POST /api/rules',
    'POST /api/backups',
    'POST /api/files/:noun/preview',
    'POST /api/files/:noun/import',
    'PUT /api/sign-in/door',
  ),
];

const PATTERNS = ROUTES.map((route) => ({
  route,
  pattern: new RegExp(`^${route.path.replaceAll('.', '\\.').replace(/:\w+/g, '[^/]+')}/?$`, 'i'),
  // A name that is written out goes before one that stands for any.
  named: route.path.split('/').filter((part) => !part.startsWith(':')).length,
})).sort((a, b) => b.named - a.named);

/** The route that a request asks for; null for an address that there is not. */
export function routeOf(method: string, path: string): Route | null {
  const asked = method === 'HEAD' ? 'GET' : method;
  return PATTERNS.find(({ route, pattern }) => route.method === asked && pattern.test(path))?.route ?? null;
}
