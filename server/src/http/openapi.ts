import { readFileSync } from 'node:fs';
import { KIT_KINDS, kitEntrySchema, PROBLEM_TYPE, problemType } from '@voltrek/contracts';
import { ANSWERS, REFUSAL_WORDS } from '@voltrek/contracts/words';
import { BODIES, EVENT_DATA } from '@voltrek/contracts/api';
import { WRITTEN_CASE_FILE } from '@voltrek/contracts/written-case';
import { convertSchema } from '@sodaru/yup-to-json-schema';
import { FORMS, type Route, ROUTES } from './routes-of-all.js';

const FILE = new URL('../../../openapi/answers.json', import.meta.url);

interface AnswerSchemas {
  readonly answers: Readonly<Record<string, object>>;
  readonly definitions: Readonly<Record<string, object>>;
}

/** The query parameters of an address, by route. */
const QUERIES: Readonly<Record<string, readonly string[]>> = {
  'GET /api/models': ['q'],
  'GET /api/vehicles': ['q'],
  'GET /api/jobs': ['q', 'verdict', 'after', 'limit'],
  'GET /api/instruments/weather': ['place'],
};
/** The type of an answer that is no JSON, by route. */
const OTHER_TYPES: Readonly<Record<string, string>> = {
  'GET /api/stream': 'text/event-stream',
  'GET /api/instruments/stream': 'text/event-stream',
  'POST /api/instruments/capture': 'application/x-ndjson',
  'GET /api/models/:modelId/photos/:photoId': 'image/jpeg',
  'GET /api/follow-ups/calendar.ics': 'text/calendar',
  'GET /api/models/export.csv': 'text/csv',
  'GET /api/files/:noun/export.csv': 'text/csv',
};
/** Routes that take a piece of kit, each kind by its own fields. */
const TAKES_KIT: readonly string[] = ['POST /api/vans/:vanId/items', 'PUT /api/vans/items/:itemId'];
/** The JSON Schema of the file of a written case. */
export const writtenCaseSchema = (): object => ({
  $schema: 'https://json-schema.org/draft/2020-12/schema',
  title: 'voltrek-case',
  ...convertSchema(WRITTEN_CASE_FILE),
  additionalProperties: false,
});

/**
 * The whole API as an OpenAPI 3.1 document: addresses and roles from the table that the door goes by, bodies from the schemas that they are
 * judged by, answers from the types that they are made of.
 */
export function openApi(): object {
  const { answers, definitions } = JSON.parse(
    // Names of types that stand for several have signs in them that no reference takes.
    readFileSync(FILE, 'utf8').replaceAll('"#/definitions/', '"#/components/schemas/'),
    (key, value: unknown) => (key === '$ref' && typeof value === 'string' ? plainRef(value) : value),
  ) as AnswerSchemas;
  const paths: Record<string, Record<string, object>> = {};
  for (const route of ROUTES) {
    const at = (paths[route.path.replace(/:(\w+)/g, '{$1}')] ??= {});
    at[route.method.toLowerCase()] = operation(route, answers[`${route.method} ${route.path}`]);
  }
  return {
    openapi: '3.1.0',
    info: {
      title: 'Voltrek',
      version: '1',
      description:
        'What a device asks its house. Answers that are no success are problem documents (RFC 9457). Where sign-in is required, a device is known by its cookie.',
    },
    components: {
      schemas: {
        ...Object.fromEntries(Object.entries(definitions).map(([name, schema]) => [plainName(name), schema])),
        ...Object.fromEntries(
          Object.entries(EVENT_DATA).map(([type, schema]) => [`data-of-${type}`, convertSchema(schema)]),
        ),
        Problem: {
          type: 'object',
          description: 'A problem document (RFC 9457). Its code stays when the words of its detail change.',
          required: ['type', 'title', 'status', 'code'],
          properties: {
            type: { type: 'string', format: 'uri', examples: [problemType('signIn')] },
            title: { type: 'string', description: 'The words of the status' },
            status: { type: 'integer', minimum: 400, maximum: 599 },
            detail: { type: 'string', description: 'For people' },
            code: { enum: Object.keys(ANSWERS) },
            params: { type: 'array', description: 'Parameters of the words, in their order' },
            requestId: { type: 'string', format: 'uuid', description: 'Names the request in the log' },
            refusal: { enum: Object.keys(REFUSAL_WORDS), description: 'Why the job did not take an event' },
            fields: {
              type: 'array',
              description: 'The fields at fault',
              items: {
                type: 'object',
                required: ['path', 'message'],
                properties: { path: { type: 'string' }, message: { type: 'string' } },
              },
            },
          },
        },
      },
      securitySchemes: { device: { type: 'apiKey', in: 'cookie', name: 'voltrek_device' } },
    },
    paths,
  };
}

function operation(route: Route, answer: object | undefined): object {
  const named = `${route.method} ${route.path}`;
  const body = bodyOf(named);
  const other = OTHER_TYPES[named];
  const content = other
    ? { [other]: { schema: { type: 'string' } } }
    : { 'application/json': { schema: answer ?? {} } };
  return {
    summary: route.summary,
    operationId: named.replace(/[^a-z]+/gi, '-').toLowerCase(),
    tags: [route.path.split('/')[2]],
    description:
      route.act === 'open'
        ? 'Open to everybody.'
        : `Needs the right to ${route.act} where sign-in is required.`,
    ...(route.act !== 'open' && { security: [{}, { device: [] }] }),
    parameters: [
      ...[...route.path.matchAll(/:(\w+)/g)].map(([, name]) => ({
        ...{ name, in: 'path', required: true },
        schema: { type: 'string' },
      })),
      ...(QUERIES[named] ?? []).map((name) => ({ name, in: 'query', schema: { type: 'string' } })),
    ],
    ...(body && { requestBody: { required: true, content: body } }),
    responses: {
      '2XX': { description: 'Done.', content },
      default: {
        description: 'Why not.',
        content: { [PROBLEM_TYPE]: { schema: { $ref: '#/components/schemas/Problem' } } },
      },
    },
  };
}

function bodyOf(named: string): object | null {
  const form = FORMS[named];
  if (form) {
    const fields = form.fields.map((field) => [field, { type: 'string' }] as const);
    const properties = { ...Object.fromEntries(fields), [form.file]: { type: 'string', format: 'binary' } };
    return { 'multipart/form-data': { schema: { type: 'object', required: [form.file], properties } } };
  }
  if (TAKES_KIT.includes(named)) {
    const anyOf = KIT_KINDS.map((kind) => convertSchema(kitEntrySchema(kind)));
    return { 'application/json': { schema: { anyOf } } };
  }
  const schema = BODIES[named];
  return schema ? { 'application/json': { schema: convertSchema(schema) } } : null;
}

const plainName = (name: string): string => decodeURIComponent(name).replace(/[^\w.-]+/g, '_');
const plainRef = (ref: string): string =>
  `#/components/schemas/${plainName(ref.slice('#/components/schemas/'.length))}`;
