import type { Act } from '@voltrek/contracts';

type Method = 'GET' | 'POST' | 'PUT' | 'DELETE';

/** One address of the API, and what asking it does to the house; `open` ones are for whoever stands at the door. */
export interface Route {
  readonly method: Method;
  /** As Express writes it. */
  readonly path: string;
  readonly act: Act | 'open';
  /** Its purpose, in a line. */
  readonly summary: string;
}

const routes = (act: Route['act'], ...lines: readonly string[]): Route[] =>
  lines.map((line) => {
    const [method, path, ...summary] = line.split(' ') as [Method, string, ...string[]];
    return { method, path, act, summary: summary.join(' ') };
  });

/** Every address there is. What stands in none of these lines is refused while the door is shut. */
export const ROUTES: readonly Route[] = [
  ...routes(
    'open',
    'GET /api/health Whether the server is well, and how old its last good backup is',
    'GET /api/sign-in How this device stands with the door',
    'POST /api/sign-in/pin Sign in with a name and a PIN',
    'POST /api/sign-in/passkey-question What a passkey must answer',
    'POST /api/sign-in/passkey Sign in with a passkey',
  ),
  ...routes(
    'look',
    'GET /api/openapi.json This description',
    'GET /api/stream What happens, as it happens (server-sent events)',
    'GET /api/device What a device keeps for a time with no network',
    'POST /api/device/jobs Several jobs at once',
    'GET /api/board The calls of the board',
    'GET /api/board/:callId/changes What was done with a call',
    'GET /api/house Whether the house is set up',
    'GET /api/crew Everybody of the crew, those who left included',
    'GET /api/vans The vans and what they carry',
    'GET /api/vehicles Vehicles by plate, number or model',
    'GET /api/vehicles/:vehicleId A vehicle with its batteries and visits',
    'GET /api/models Machines of the atlas by what was typed',
    'GET /api/models/schema.json The JSON Schema of a file of machines',
    'GET /api/models/:modelId An entry of the atlas with its history',
    'GET /api/models/:modelId/photos/:photoId A photo of a machine, JPEG',
    'GET /api/batteries Batteries that sit in no vehicle',
    'GET /api/batteries/:batteryId A battery with all it went through, by id or by the code on its label',
    'GET /api/practice/schema.json The JSON Schema of a file of a written case',
    'GET /api/exams Exams that were taken: all to a lead, to others their own',
    'GET /api/exams/:examId An exam as a file',
    'GET /api/rules The house rules, and who set them',
    'GET /api/backups The backups there are',
    'GET /api/files/:noun/schema.json The JSON Schema of a file',
    'GET /api/follow-ups What verdicts promised, by its day',
    'GET /api/follow-ups/calendar.ics The same as a calendar',
    'GET /api/instruments The linked instruments as they stand',
    'GET /api/instruments/stream The same, as it changes (server-sent events)',
    'GET /api/instruments/weather What the weather service says of a place',
    'GET /api/jobs Jobs by what was typed, newest first, a page at a time',
    'GET /api/jobs/:jobId A job with its log and all that it is worked with',
    'GET /api/jobs/:jobId/sheet What a job comes to',
    'GET /api/sign-in/house Who has a PIN or a passkey, who is signed in where, and what was done',
    'POST /api/sign-in/out Sign everybody out on this device',
    'PUT /api/sign-in/pins/:crewId Set the PIN of somebody',
    'POST /api/sign-in/passkeys/question What a new passkey must answer',
    'POST /api/sign-in/passkeys Add a passkey',
    'DELETE /api/sign-in/passkeys/:passkeyId Remove a passkey',
    'DELETE /api/sign-in/sessions/:sessionId End a session',
  ),
  ...routes(
    'assist',
    'POST /api/jobs/:jobId/events Append an event to a job; sent again it changes nothing',
    'POST /api/exams Send an exam in; it is marked here, and sent again it changes nothing',
    'PUT /api/instruments/probes Say where the probes were put',
    'POST /api/instruments/readings Read a linked instrument of a training bench, held to a case of practice',
    'POST /api/instruments/capture Capture a crank, a line of JSON for each part',
  ),
  ...routes(
    'work',
    'POST /api/board Put a call on the board; sent again it changes nothing',
    'POST /api/board/:callId/changes Take, pass on, give back, call off or reopen a call',
    'POST /api/vehicles Add a vehicle',
    'PUT /api/vehicles/:vehicleId Change a vehicle, as it was seen last',
    'POST /api/batteries Add a battery to the record',
    'POST /api/batteries/:batteryId/moves Fit, take out, charge, carry or scrap a battery',
    'POST /api/vans/items/:itemId/recharge A piece of kit is full again',
    'POST /api/vans/marks/:markId/done What a piece of kit still needed is done',
    'GET /api/models/export.json The atlas as JSON',
    'GET /api/models/export.csv The atlas as CSV',
    'GET /api/files/:noun/export.json Crew, kit, vehicles, batteries, calls or jobs as JSON',
    'GET /api/files/:noun/export.csv The same as CSV',
  ),
  ...routes(
    'find',
    'POST /api/models Add an entry to the atlas',
    'PUT /api/models/:modelId Correct an entry, as it was seen last',
    'POST /api/models/:modelId/confirmations Confirm an entry with a second pair of eyes',
    'POST /api/models/:modelId/photos Add a photo of a machine',
  ),
  ...routes(
    'lead',
    'POST /api/house Set the house up, once',
    'POST /api/crew Add somebody to the crew',
    'PUT /api/crew/:crewId Change somebody of the crew',
    'POST /api/vans Add a van',
    'PUT /api/vans/:vanId Change a van',
    'POST /api/vans/:vanId/items Add a piece of kit',
    'PUT /api/vans/items/:itemId Change a piece of kit',
    'POST /api/vans/items/:itemId/retire Retire a piece of kit',
    'GET /api/people/:personId/export What is known of a person',
    'POST /api/people/:personId/erase Forget a person: jobs and records stay, nameless',
    'POST /api/models/preview What a file would change in the atlas',
    'POST /api/models/import Take a file of machines over, all or nothing',
    'POST /api/exams/:examId/signature Sign an exam that somebody took',
    'POST /api/rules Set a house rule',
    'POST /api/backups Back up now',
    'POST /api/files/:noun/preview What a file would change',
    'POST /api/files/:noun/import Take a file over, all or nothing',
    'GET /api/instruments/addresses Where the instruments of this server listen, and where they may',
    'PUT /api/instruments/addresses/:instrument Link an instrument, or none',
    'PUT /api/sign-in/door Require sign-in, or open to everybody',
  ),
];

const PATTERNS = ROUTES.map((route) => ({
  route,
  pattern: new RegExp(`^${route.path.replaceAll('.', '\\.').replace(/:\w+/g, '[^/]+')}/?$`, 'i'),
  // A name that is written out goes before one that stands for any.
  named: route.path.split('/').filter((part) => !part.startsWith(':')).length,
})).sort((a, b) => b.named - a.named);

/** Routes that take a file as a form, with its name and its fields; every other body is JSON. */
export const FORMS: Readonly<Record<string, { readonly file: string; readonly fields: readonly string[] }>> =
  {
    'POST /api/models/preview': { file: 'file', fields: [] },
    'POST /api/models/import': { file: 'file', fields: ['by', 'basis'] },
    'POST /api/files/:noun/preview': { file: 'file', fields: [] },
    'POST /api/files/:noun/import': { file: 'file', fields: ['by', 'basis'] },
    'POST /api/models/:modelId/photos': { file: 'photo', fields: ['by', 'id'] },
  };

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
