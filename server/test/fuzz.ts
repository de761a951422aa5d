import { randomUUID } from 'node:crypto';
import { request as httpRequest } from 'node:http';
import { setTimeout as delay } from 'node:timers/promises';
import { PROBLEM_TYPE } from '@voltrek/contracts';
import { type Random, seededRandom } from '@voltrek/core/quantities';

/** One request as it goes over the wire. */
interface Sent {
  readonly method: string;
  readonly path: string;
  readonly headers: Readonly<Record<string, string>>;
  readonly body: Buffer | null;
}

interface Answer {
  readonly status: number;
  readonly type: string;
  readonly text: string;
  readonly ms: number;
}

/** A server's answers to requests that are broken in every way one can think of. */
export interface FuzzReport {
  readonly requests: number;
  /** Answers by hundreds: 2 for 200 to 299. */
  readonly byClass: ReadonlyMap<number, number>;
  /** Answers of 5xx, answers that are no problem document where they should be, and requests that nobody answered. */
  readonly failures: readonly string[];
  readonly slowestMs: number;
}

/** A request that takes longer hangs, ms. */
const HANGS_MS = 20_000;
/** Stands in JSON for a value that JSON.stringify cannot make: nested deeper than a parser may follow. */
const NESTED = '<nested>';
const nested = (depth: number): string => `${'['.repeat(depth)}${']'.repeat(depth)}`;

const pick = <T>(random: Random, list: readonly T[]): T => list[Math.floor(random() * list.length)]!;

/** Values that some field or other of a careless server breaks on. */
const NASTY: readonly unknown[] = [
  null,
  true,
  0,
  -1,
  1.5,
  1e308,
  -1e308,
  2 ** 53 + 1,
  2 ** 31,
  '',
  ' ',
  'a\u0000b',
  '\u0000',
  '\ud800',
  'x\udfff',
  '__proto__',
  'constructor',
  'toString',
  '1e5',
  '-'.repeat(36),
  '00000000-0000-0000-0000-00000000000g',
  'ffffffff-ffff-ffff-ffff-ffffffffffff',
  '2026-02-30T10:00:00Z',
  '2026-13-01T00:00:00Z',
  '0000-01-01T00:00:00Z',
  '+275760-09-13T00:00:00.001Z',
  '9999-12-31T23:59:60Z',
  "'; DROP TABLE jobs; --",
  '%00%ed%a0%80',
  '\u202e\u{1F50B}\u0301',
  'a'.repeat(20_000),
  [],
  {},
  [[]],
  [null],
  { length: 3 },
  { toString: null, valueOf: 1 },
  NESTED,
];
const NASTY_PIECES: readonly string[] = [
  '%00',
  '%ed%a0%80',
  '%zz',
  '%',
  '..%2f..%2f..%2fetc%2fpasswd',
  '-'.repeat(36),
  'ffffffff-ffff-ffff-ffff-ffffffffffff',
  'constructor',
  '__proto__',
  'a'.repeat(4_000),
  '%F0%9F%94%8B',
  "';--",
  '.',
  '%2e%2e',
  ' ',
];

/** A place in a value: the keys on the way to it. */
type Place = readonly (string | number)[];

function placesIn(value: unknown, at: Place = []): Place[] {
  if (typeof value !== 'object' || value === null) return [at];
  return [
    at,
    ...Object.entries(value).flatMap(([key, part]) =>
      placesIn(part, [...at, Array.isArray(value) ? Number(key) : key]),
    ),
  ];
}

/** The value with what stands at a place made into something else; `undefined` takes it out. */
function replaced(value: unknown, [key, ...rest]: Place, by: unknown): unknown {
  if (key === undefined) return by;
  const copy = (Array.isArray(value) ? [...(value as unknown[])] : { ...(value as object) }) as Record<
    string | number,
    unknown
  >;
  // An undefined value does not go into JSON.
  copy[key] = replaced(copy[key], rest, by);
  return copy;
}

/** A body that was right, with up to three things in it that are not. */
function broken(random: Random, body: unknown): string {
  let value = body;
  const times = Math.floor(random() * 4);
  for (let i = 0; i < times; i++) {
    const place = pick(random, placesIn(value));
    const how = random();
    if (how < 0.15) value = replaced(value, place, undefined);
    else if (how < 0.25) value = replaced(value, [...place, '__proto__'], pick(random, NASTY));
    else value = replaced(value, place, pick(random, NASTY));
  }
  const text = JSON.stringify(value ?? null).replaceAll(`"${NESTED}"`, nested(3_000));
  if (random() < 0.04) return text.slice(0, Math.floor(random() * text.length));
  return random() < 0.03 ? text.replace('":', '":"\\u0000",":') : text;
}

function formWith(
  random: Random,
  fields: Readonly<Record<string, string>>,
  file: string,
): { type: string; body: Buffer } {
  const boundary = 'voltrek-fuzz';
  const parts = Object.entries(fields).map(
    ([name, value]) => `--${boundary}\r\nContent-Disposition: form-data; name="${name}"\r\n\r\n${value}\r\n`,
  );
  const name = pick(random, ['file', 'photo', 'x', '']);
  const whole = `${parts.join('')}--${boundary}\r\nContent-Disposition: form-data; name="${name}"; filename="a"\r\n\r\n${file}\r\n--${boundary}--\r\n`;
  const bytes = Buffer.from(whole);
  return {
    type: pick(random, [
      `multipart/form-data; boundary=${boundary}`,
      'multipart/form-data',
      'multipart/form-data; boundary=',
    ]),
    body: random() < 0.3 ? bytes.subarray(0, Math.floor(random() * bytes.length)) : bytes,
  };
}

/** The things on a server that requests can be made of. */
interface Material {
  readonly ids: Readonly<Record<string, readonly string[]>>;
  /** Bodies that are right, by method and path; ids stand as `:name`. */
  readonly bodies: readonly (readonly [method: string, path: string, body: unknown])[];
  readonly reads: readonly string[];
  readonly queries: readonly string[];
  readonly files: readonly string[];
}

async function materialOf(url: string): Promise<Material> {
  const get = async <T>(path: string): Promise<T> => (await fetch(`${url}${path}`)).json() as Promise<T>;
  const text = async (path: string): Promise<string> => (await fetch(`${url}${path}`)).text();
  type Row = Readonly<Record<string, unknown>> & { readonly id: string };
  const crew = await get<Row[]>('/api/crew');
  const vans = await get<(Row & { readonly kit: readonly Row[] })[]>('/api/vans');
  const board = await get<Row[]>('/api/board');
  const { jobs } = await get<{ readonly jobs: readonly Row[] }>('/api/jobs?limit=20');
  const details = await Promise.all(
    jobs.map(({ id }) => get<{ readonly events: readonly Row[]; readonly machine: Row }>(`/api/jobs/${id}`)),
  );
  const vehicles = await get<Row[]>('/api/vehicles?q=');
  const batteries = await get<Row[]>('/api/batteries');
  const models = await get<{ readonly machines: readonly Row[] }>('/api/models?q=');
  const by = crew[0]!.id;
  const call = {
    id: randomUUID(),
    title: 'T',
    placeName: 'P',
    said: '',
    modelId: models.machines[0]!.id,
    ambientC: 1,
    urgent: false,
  };
  const confirmed = { by, note: 'seen' };
  const machine = { ...details[0]!.machine, id: `fuzz-${randomUUID().slice(0, 8)}` };
  const entry = { machine, by, note: '', basedOn: null };
  const rating = { chemistry: 'agm', capacityAh: 70, ccaAmps: 700, ccaStandard: 'EN' };
  const opened = board.filter((c) => c.job !== null).map((c) => (c.job as Row).id);
  const exported = await Promise.all(
    ['crew', 'vehicles', 'batteries', 'calls'].flatMap((resource) => [
      text(`/api/files/${resource}/export.json`),
      text(`/api/files/${resource}/export.csv`),
    ]),
  );
  return {
    ids: {
      jobId: [...opened, ...jobs.map(({ id }) => id)],
      callId: board.map(({ id }) => id),
      vanId: vans.map(({ id }) => id),
      itemId: vans.flatMap(({ kit }) => kit.map(({ id }) => id)),
      vehicleId: vehicles.map(({ id }) => id),
      batteryId: batteries.map(({ id }) => id),
      modelId: models.machines.map(({ id }) => id),
      crewId: crew.map(({ id }) => id),
      personId: vehicles.map((v) => (v.owner as Row | null)?.id ?? 'nobody'),
      markId: [randomUUID()],
      photoId: [randomUUID()],
      instrument: ['meter', 'clamp', 'tester', 'kettle'],
      resource: ['crew', 'kit', 'vehicles', 'batteries', 'calls', 'jobs', 'secrets'],
    },
    bodies: [
      ...details.flatMap(({ events }) => events.map((e) => ['POST', '/api/jobs/:jobId/events', e] as const)),
      // As an earlier version said it, which a device may still hold.
      ...details.map(
        ({ events }) =>
          [
            'POST',
            '/api/jobs/:jobId/events',
            { ...events[0], type: 'check.recorded', data: { check: 'belt', result: 'fault' } },
          ] as const,
      ),
      ['POST', '/api/board', call],
      ...['taken', 'passed-on', 'called-off'].map(
        (kind) =>
          [
            'POST',
            '/api/board/:callId/changes',
            { kind, by, vanId: vans[0]!.id, technicianId: by, reason: 'because', promisedAt: null },
          ] as const,
      ),
      ['POST', '/api/rules', { key: 'crankTriesMax', value: 3, by }],
      ['POST', '/api/crew', { name: 'One', role: 'technician' }],
      ['PUT', '/api/crew/:crewId', { name: 'One', role: 'technician', retired: false }],
      ['POST', '/api/vans', { name: 'Van' }],
      ['PUT', '/api/vans/:vanId', { name: 'Van', retired: false }],
      ...vans.flatMap(({ kit }) =>
        kit.flatMap(
          ({ id: _id, ...item }) =>
            [
              ['POST', '/api/vans/:vanId/items', item],
              ['PUT', '/api/vans/items/:itemId', item],
            ] as const,
        ),
      ),
      ['POST', '/api/vans/items/:itemId/retire', confirmed],
      ['POST', '/api/vans/items/:itemId/recharge', confirmed],
      ['POST', '/api/vans/marks/:markId/done', confirmed],
      [
        'POST',
        '/api/vehicles',
        {
          plate: 'ZZ 1',
          fleetNumber: null,
          serialNumber: null,
          modelId: models.machines[0]!.id,
          owner: null,
          notes: '',
        },
      ],
      ['PUT', '/api/vehicles/:vehicleId', { vehicle: vehicles[0], basedOn: 1, by }],
      ['POST', '/api/batteries', { rating, dateMark: null, vanId: null, by }],
      [
        'POST',
        '/api/batteries/:batteryId/moves',
        { kind: 'scrapped', by, vehicleId: null, place: null, vanId: null, note: '' },
      ],
      ['POST', '/api/models', entry],
      ['PUT', '/api/models/:modelId', { ...entry, basedOn: 1 }],
      ['POST', '/api/models/:modelId/confirmations', confirmed],
      ['POST', '/api/people/:personId/erase', confirmed],
      [
        'POST',
        '/api/house',
        {
          crew: [{ name: 'One', role: 'technician' }],
          vans: [{ name: 'V', kit: ['lithium-pack'] }],
          atlas: 'empty',
        },
      ],
      ['POST', '/api/device/jobs', { ids: [jobs[0]!.id] }],
      ['PUT', '/api/instruments/addresses/:instrument', { address: '127.0.0.1:9', by }],
      ['PUT', '/api/instruments/probes', { jobId: jobs[0]!.id, check: 'rest', battery: 0 }],
      [
        'POST',
        '/api/instruments/readings',
        { code: 'order-2', actions: [], probes: null, around: 'own-cable' },
      ],
    ],
    reads: [
      '/api/health',
      '/api/device',
      '/api/board',
      '/api/board/:callId/changes',
      '/api/house',
      '/api/crew',
      '/api/vans',
      '/api/vehicles',
      '/api/vehicles/:vehicleId',
      '/api/people/:personId/export',
      '/api/models',
      '/api/models/schema.json',
      '/api/models/export.json',
      '/api/models/export.csv',
      '/api/models/:modelId',
      '/api/models/:modelId/photos/:photoId',
      '/api/batteries',
      '/api/batteries/:batteryId',
      '/api/rules',
      '/api/practice/schema.json',
      '/api/files/:resource/schema.json',
      '/api/files/:resource/export.json',
      '/api/files/:resource/export.csv',
      '/api/follow-ups',
      '/api/follow-ups/calendar.ics',
      '/api/instruments',
      '/api/instruments/addresses',
      '/api/instruments/weather',
      '/api/jobs',
      '/api/jobs/:jobId',
      '/api/jobs/:jobId/sheet',
      '/api/nothing',
      '/nothing/at/all',
    ],
    queries: [
      'q',
      'after',
      'limit',
      'verdict',
      'place',
      'suspect',
      'from',
      'to',
      'modelId',
      '__proto__',
      'constructor',
    ],
    files: [
      ...exported,
      '{"format":',
      'row\n',
      '\u0000\u0001',
      '{"format":"voltrek-atlas","version":2,"machines":[{}]}',
      nested(3_000),
    ],
  };
}

function made(random: Random, material: Material): Sent {
  const fill = (path: string): string =>
    path.replace(/:(\w+)/g, (_all, name: string) => {
      const ids = material.ids[name] ?? [];
      return random() < 0.15 || ids.length === 0
        ? pick(random, NASTY_PIECES)
        : encodeURIComponent(pick(random, ids));
    });
  const kind = random();
  if (kind < 0.3) {
    const query = Array.from({ length: Math.floor(random() * 3) }, () => {
      const value =
        random() < 0.5
          ? pick(random, NASTY_PIECES)
          : encodeURIComponent(pick(random, ['1', 'pella', 'zz', '-5', '1e9', '2026-01-01']));
      return `${pick(random, material.queries)}${pick(random, ['=', '[]=', '[a]='])}${value}`;
    });
    const path = fill(pick(random, material.reads));
    const method =
      random() < 0.85 ? 'GET' : pick(random, ['POST', 'PUT', 'PATCH', 'DELETE', 'OPTIONS', 'HEAD', 'TRACE']);
    return {
      method,
      path: `${path}${query.length > 0 ? `?${query.join('&')}` : ''}`.replaceAll(' ', '%20'),
      headers: {},
      body: null,
    };
  }
  if (kind < 0.42) {
    const path = fill(
      pick(random, [
        '/api/models/preview',
        '/api/models/import',
        '/api/models/:modelId/photos',
        '/api/files/:resource/preview',
        '/api/files/:resource/import',
      ]),
    );
    const file = pick(random, material.files);
    const cut = random() < 0.5 ? file.slice(0, Math.floor(random() * file.length)) : file;
    const { type, body } = formWith(
      random,
      { by: pick(random, ['crew-1', '', 'a\u0000']), basis: pick(random, ['1', 'x', '-1']) },
      cut,
    );
    return { method: 'POST', path: path.replaceAll(' ', '%20'), headers: { 'content-type': type }, body };
  }
  const [method, path, body] = pick(random, material.bodies);
  const filled = fill(path).replaceAll(' ', '%20');
  // An event names its job, and goes in once.
  const named =
    path.endsWith('/events') && random() < 0.9
      ? { ...(body as object), id: randomUUID(), jobId: decodeURIComponentSafe(filled.split('/')[3]!) }
      : body;
  const type =
    random() < 0.94
      ? 'application/json'
      : pick(random, [
          'text/plain',
          'application/json; charset=utf-16',
          'application/xml',
          '',
          'multipart/form-data',
        ]);
  const encoding = random() < 0.02 ? { 'content-encoding': pick(random, ['gzip', 'br', 'zip']) } : {};
  return {
    method,
    path: filled,
    headers: { 'content-type': type, ...encoding },
    body: Buffer.from(broken(random, named)),
  };
}

function decodeURIComponentSafe(text: string): string {
  try {
    return decodeURIComponent(text);
  } catch {
    return text;
  }
}

function send(url: URL, { method, path, headers, body }: Sent): Promise<Answer> {
  return new Promise((done, failed) => {
    const began = performance.now();
    const sending = httpRequest(
      {
        host: url.hostname,
        port: url.port,
        method,
        path,
        headers: { ...headers, ...(body && { 'content-length': String(body.length) }) },
        timeout: HANGS_MS,
      },
      (response) => {
        const parts: Buffer[] = [];
        response.on('data', (part: Buffer) => parts.push(part));
        response.on('end', () =>
          done({
            status: response.statusCode ?? 0,
            type: (response.headers['content-type'] ?? '').split(';')[0]!,
            text: Buffer.concat(parts).toString('utf8'),
            ms: performance.now() - began,
          }),
        );
        response.on('error', failed);
      },
    );
    sending.on('timeout', () => sending.destroy(new Error('no answer')));
    sending.on('error', failed);
    sending.end(body ?? undefined);
  });
}

/** Returns the fault of an answer; null when there is none. */
function wrongWith(method: string, { status, type, text }: Answer): string | null {
  if (status >= 500) return `${status} ${text.slice(0, 160)}`;
  if (status < 400 || method === 'HEAD') return null;
  if (type !== PROBLEM_TYPE) return `${status} of type ${type || 'none'}: ${text.slice(0, 120)}`;
  const { detail, title } = JSON.parse(text) as { readonly detail?: string; readonly title?: string };
  if (!detail && !title) return `${status} says nothing`;
  return /node_modules|\bat .*\.js:\d+|\/src\//.test(text)
    ? `${status} tells of the inside: ${text.slice(0, 160)}`
    : null;
}

/**
 * Sends requests of every route, right and broken, and gathers what must not be: answers of 5xx, refusals that are no problem document,
 * and none at all. The same seed sends the same kinds of request.
 *
 * @param url of a server with the demo's data, which it may spoil
 */
export async function fuzz(url: string, requests: number, seed: number): Promise<FuzzReport> {
  const random = seededRandom(seed);
  const material = await materialOf(url);
  const at = new URL(url);
  const byClass = new Map<number, number>();
  const failures: string[] = [];
  let slowestMs = 0;
  for (let i = 0; i < requests; i++) {
    const sent = made(random, material);
    const told = (why: string): void => {
      failures.push(
        `${sent.method} ${sent.path.slice(0, 160)} ${sent.body?.toString('utf8').slice(0, 240) ?? ''}: ${why}`,
      );
    };
    try {
      const answer = await send(at, sent);
      byClass.set(Math.floor(answer.status / 100), (byClass.get(Math.floor(answer.status / 100)) ?? 0) + 1);
      slowestMs = Math.max(slowestMs, answer.ms);
      const why = wrongWith(sent.method, answer);
      if (why) told(why);
    } catch (error) {
      told(error instanceof Error ? error.message : 'it broke');
      await delay(20);
    }
  }
  return { requests, byClass, failures, slowestMs };
}
