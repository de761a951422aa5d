import { Ajv2020, type ValidateFunction } from 'ajv/dist/2020.js';
import express, { type Express } from 'express';
import { openApi } from '../src/http/openapi.js';
import { routeOf } from '../src/http/route-of.js';

interface Described {
  readonly components: object;
  readonly paths: Readonly<
    Record<
      string,
      Readonly<
        Record<
          string,
          { readonly responses: { readonly '2XX': { readonly content: Readonly<Record<string, object>> } } }
        >
      >
    >
  >;
}

/** Answers that differ from the description of the API, over a whole suite. */
export const answersAtFault = new Set<string>();

/** The same application, each answer in JSON held to the description of the API that it serves. */
export function answersChecked(app: Express): Express {
  const described = openApi() as Described;
  const ajv = new Ajv2020({ strict: false, allErrors: false, validateFormats: false });
  ajv.addSchema({ $id: 'api', components: described.components });
  const known = new Map<string, ValidateFunction>();
  const judgeOf = (named: string, path: string, method: string): ValidateFunction => {
    const made = known.get(named);
    if (made) return made;
    const { content } =
      described.paths[path.replace(/:(\w+)/g, '{$1}')]![method.toLowerCase()]!.responses['2XX'];
    const schema = JSON.parse(
      JSON.stringify((content['application/json'] as { schema: object }).schema).replaceAll('"#/', '"api#/'),
    ) as object;
    const judge = ajv.compile(schema);
    known.set(named, judge);
    return judge;
  };
  const outer = express();
  outer.use((request, response, next) => {
    const json = response.json.bind(response);
    response.json = (body: unknown) => {
      const route = routeOf(request.method, request.originalUrl.split('?')[0]!);
      if (response.statusCode < 300 && route) {
        const named = `${route.method} ${route.path}`;
        const judge = judgeOf(named, route.path, route.method);
        // As it goes over the wire: without what JSON leaves out.
        if (!judge(JSON.parse(JSON.stringify(body)))) {
          const { instancePath, message, params } = judge.errors![0]!;
          answersAtFault.add(`${named}: ${instancePath} ${message} ${JSON.stringify(params)}`);
        }
      }
      return json(body);
    };
    next();
  });
  outer.use(app);
  return outer;
}
