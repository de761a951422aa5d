import { readFileSync } from 'node:fs';
import { PROBLEM_TYPE, problemType } from '@voltrek/contracts';
import { ANSWERS, FAULTS, REFUSAL_WORDS } from '@voltrek/contracts/words';
import { EVENT_DATA } from '@voltrek/contracts/api';
import { WRITTEN_CASE_FILE } from '@voltrek/contracts/written-case';
import { convertSchema } from '@sodaru/yup-to-json-schema';
import { Schema } from 'yup';
import { PAGE_MAX } from './list-page.js';
import { dataOf, QUERY_PARAMETERS, type QueryParameter, type Route, ROUTES } from './routes.js';

const FILE = new URL('../../../openapi/answers.json', import.meta.url);

interface AnswerSchemas {
  readonly answers: Readonly<Record<string, object>>;
  readonly definitions: Readonly<Record<string, object>>;
}

/** The JSON Schema of the file of a written case. */
export const writtenCaseSchema = (): object => ({
  $schema: 'https://json-schema.org/draft/2020-12/schema',
  title: 'voltrek-case',
  ...convertSchema(WRITTEN_CASE_FILE),
  additionalProperties: false,
});

/** Returns the API as an OpenAPI 3.1 document: addresses, rights and bodies from the table of routes, answers from their types. */
export function openApi(): object {
  const { answers, definitions } = JSON.parse(
    // Generic type names contain characters that `$ref` does not allow.
    readFileSync(FILE, 'utf8').replaceAll('"#/definitions/', '"#/components/schemas/'),
    (key, value: unknown) => (key === '$ref' && typeof value === 'string' ? plainRef(value) : value),
  ) as AnswerSchemas;
  const paths: Record<string, Record<string, object>> = {};
  for (const route of ROUTES) {
    const at = (paths[route.path.replace(/:(\w+)/g, '{$1}')] ??= {});
    at[route.method.toLowerCase()] = operation(route, answers[route.address]);
  }
  return {
    openapi: '3.1.0',
    info: {
      title: 'Voltrek',
      version: '1',
      license: { name: 'MIT', identifier: 'MIT' },
      description:
        'The API of one house. A refusal is a problem document (RFC 9457). A cookie identifies the device where sign-in is required. A list answers by pages where `limit` is given; `Link` names the next.',
    },
    servers: [{ url: '/', description: 'The house that serves this document' }],
    tags: [...new Set(ROUTES.map(tagOf))].map((name) => ({
      name,
      description: `Addresses under /api/${name}`,
    })),
    components: {
      schemas: {
        ...Object.fromEntries(Object.entries(definitions).map(([name, schema]) => [plainName(name), schema])),
        ...Object.fromEntries(
          Object.entries(EVENT_DATA).map(([type, schema]) => [dataOf(type), convertSchema(schema)]),
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
                required: ['path', 'code', 'params', 'message'],
                properties: {
                  path: { type: 'string' },
                  code: { enum: Object.keys(FAULTS) },
                  params: {
                    type: 'object',
                    description: 'Parameters of the words, by name',
                    additionalProperties: { type: ['string', 'number'] },
                  },
                  message: { type: 'string', description: 'For people' },
                },
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
  const body = bodyOf(route);
  const content = route.type
    ? {
        [route.type]: { schema: route.type === 'application/json' ? { type: 'object' } : { type: 'string' } },
      }
    : { 'application/json': { schema: answer ?? {} } };
  const query = [...(route.query ?? []), ...(route.isList ? PAGED : [])];
  return {
    summary: route.summary,
    operationId: route.address.replace(/[^a-z]+/gi, '-').toLowerCase(),
    tags: [tagOf(route)],
    description:
      route.act === 'open'
        ? 'Open to everybody.'
        : `Needs the right to ${route.act} where sign-in is required.`,
    security: route.act === 'open' ? [] : [{}, { device: [] }],
    parameters: [
      ...[...route.path.matchAll(/:(\w+)/g)].map(([, name]) => ({
        ...{ name, in: 'path', required: true, description: PATH_PARAMETERS[name!] },
        schema: { type: 'string' },
      })),
      ...query.map((name) => ({
        ...{ name, in: 'query', description: QUERY_PARAMETERS[name] },
        schema: name === 'limit' ? limitSchema(route) : { type: 'string' },
      })),
    ],
    ...(body && { requestBody: { required: true, content: body } }),
    responses: {
      '2XX': {
        description: 'Done.',
        ...(route.isList && {
          headers: { Link: { description: 'The next page, `rel="next"`', schema: { type: 'string' } } },
        }),
        content,
      },
      '4XX': { description: 'A refusal, with its reason.', content: PROBLEM },
      '5XX': { description: 'A failure of the server.', content: PROBLEM },
    },
  };
}

const PROBLEM = { [PROBLEM_TYPE]: { schema: { $ref: '#/components/schemas/Problem' } } };
const PAGED: readonly QueryParameter[] = ['limit', 'after'];
const tagOf = ({ path }: Route): string => path.split('/')[2]!.replace('.json', '');

/** The parameters of paths, with their purpose. */
const PATH_PARAMETERS: Readonly<Record<string, string>> = {
  callId: 'Id of a call',
  jobId: 'Id of a job, a UUID',
  vehicleId: 'Id of a vehicle',
  modelId: 'Id of an entry of the atlas',
  photoId: 'Id of a photo',
  batteryId: 'Id of a battery, or the code on its label',
  examId: 'Id of an exam, a UUID',
  resource: 'Kind of the rows of a file',
  crewId: 'Id of a person of the crew',
  passkeyId: 'Id of a passkey',
  sessionId: 'Id of a session',
  vanId: 'Id of a van',
  itemId: 'Id of a piece of kit',
  markId: 'Id of a mark of kit that needs attention',
  personId: 'Id of a caller or owner',
  instrument: 'Name of an instrument',
};

/** The rows that a request may want. */
const limitSchema = ({ isList = false, pageMax = PAGE_MAX }: Route): object => ({
  type: 'integer',
  minimum: isList ? 1 : 0,
  maximum: pageMax,
});

/** One of these schemas. */
const oneOfNamed = (names: readonly string[]): object => ({
  anyOf: names.map((name) => ({ $ref: `#/components/schemas/${name}` })),
});

function bodyOf({ form, body, named = {} }: Route): object | null {
  if (form) {
    const fields = form.fields.map((field) => [field, { type: 'string' }] as const);
    const properties = { ...Object.fromEntries(fields), [form.file]: { type: 'string', format: 'binary' } };
    return { 'multipart/form-data': { schema: { type: 'object', required: [form.file], properties } } };
  }
  if (!body) return null;
  const schema =
    body instanceof Schema ? convertSchema(body) : { anyOf: body.map((one) => convertSchema(one)) };
  for (const [field, names] of Object.entries(named))
    Object.assign(schema.properties!, { [field]: oneOfNamed(names) });
  return { 'application/json': { schema } };
}

const plainName = (name: string): string => decodeURIComponent(name).replace(/[^\w.-]+/g, '_');
const plainRef = (ref: string): string =>
  `#/components/schemas/${plainName(ref.slice('#/components/schemas/'.length))}`;
