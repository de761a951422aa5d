import { caseFileOf, readCaseFile } from '@voltrek/contracts/written-case';
import { createConfig, lintFromString } from '@redocly/openapi-core';
import { Ajv2020 } from 'ajv/dist/2020.js';
import { readFile } from 'node:fs/promises';
import { openApi } from '../src/http/openapi.js';
import { ROUTES } from '../src/http/routes.js';
import { sharedServer } from './shared-server.js';

const ROOT = new URL('../../../', import.meta.url).pathname;

interface Operation {
  readonly summary: string;
  readonly responses: Readonly<
    Record<string, { readonly content: Readonly<Record<string, { schema: object }>> }>
  >;
}
type Paths = Readonly<Record<string, Readonly<Record<string, Operation>>>>;

describe('the description of the API', () => {
  const { paths } = openApi() as { readonly paths: Paths };

  it('passes a linter of OpenAPI without an error', async () => {
    const config = await createConfig({
      extends: ['recommended'],
      // `/vans/items/{itemId}` and `/vans/{vanId}/items` differ by their method.
      rules: { 'no-ambiguous-paths': 'off' },
    });
    const found = await lintFromString({ source: JSON.stringify(openApi()), config });
    const told = found.map(
      ({ ruleId, severity, message, location: [at] }) =>
        `${severity} ${ruleId}: ${message} ${at?.pointer ?? ''}`,
    );
    expect(told).toEqual([]);
  });

  it('is served, with a page to read it', async () => {
    const { api } = await sharedServer();
    expect((await api.get('/api/openapi.json').expect(200)).body).toEqual(
      JSON.parse(JSON.stringify(openApi())),
    );
    const page = await api.get('/api/docs/').expect(200);
    expect(page.text).toContain('Voltrek: its API');
    expect(page.text).not.toMatch(/src="https?:/);
  });

  it('has every address, each with a line, an answer and, where it takes something, what', () => {
    const told = Object.entries(paths).flatMap(([path, at]) =>
      Object.keys(at).map((method) => `${method.toUpperCase()} ${path.replace(/\{(\w+)\}/g, ':$1')}`),
    );
    expect(told.sort()).toEqual(ROUTES.map(({ method, path }) => `${method} ${path}`).sort());
    for (const [path, at] of Object.entries(paths))
      for (const [method, { summary, responses }] of Object.entries(at)) {
        const [content] = Object.values(responses['2XX']!.content);
        expect(`${method} ${path}: ${summary}`).toMatch(/: \w.{7}/);
        const isOpenFile =
          /openapi|schema\.json|export\.json|question/.test(path) && !path.includes('people');
        if (!isOpenFile && path !== '/api/instruments/probes')
          expect(Object.keys(content!.schema).length).withContext(`${method} ${path}`).toBeGreaterThan(0);
      }
  });

  it('has the schema of a written case beside it, which takes what is one and nothing else', async () => {
    const { api } = await sharedServer();
    const schema = (await api.get('/api/practice/schema.json').expect(200)).body as object;
    const check = new Ajv2020({ strict: false }).compile(schema);
    const whole = JSON.parse(
      caseFileOf({
        title: 'Left by the lake',
        machineClass: 'boat',
        tempC: 3,
        cause: 'drain',
        along: null,
        symptom: 'silence',
        says: '',
        answers: { 'ask-left-on': 'no' },
        kit: ['donor'],
        number: 9,
      }),
    ) as Record<string, unknown>;
    expect(check(whole)).withContext(JSON.stringify(check.errors)).toBeTrue();
    const broken: object[] = [
      { format: 'voltrek-jobs' },
      { version: 2 },
      { tempC: '3' },
      { tempC: 41 },
      { cause: 'rust' },
      { along: 'worn' },
      { kit: ['winch'] },
      { answers: { 'ask-left-on': 1 } },
      { colour: 'red' },
    ];
    for (const change of broken) {
      const changed = { ...whole, ...change };
      expect(check(changed)).withContext(JSON.stringify(change)).toBeFalse();
      expect('faults' in readCaseFile(JSON.stringify(changed)))
        .withContext(JSON.stringify(change))
        .toBeTrue();
    }
    const { symptom: _symptom, ...without } = whole;
    expect(check(without)).toBeFalse();
  });

  it('tells answers as the types have them now', async () => {
    const { answerSchemas } = (await import(`${ROOT}scripts/answer-schemas.mjs`)) as {
      answerSchemas: (root: string) => object;
    };
    const kept: unknown = JSON.parse(await readFile(`${ROOT}server/openapi/answers.json`, 'utf8'));
    expect(answerSchemas(ROOT.replace(/\/$/, '')))
      .withContext('npm run api-doc')
      .toEqual(kept as object);
  });
});
