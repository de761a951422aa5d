import { randomUUID } from 'node:crypto';
import { type Problem, PROBLEM_TYPE } from '@voltrek/contracts';
import type { Response } from 'supertest';
import { openApi } from '../src/http/openapi.js';
import { eventOf, openJob, sharedServer } from './shared-server.js';

const METHODS = ['get', 'post', 'put', 'delete', 'patch'] as const;

interface Operation {
  readonly requestBody?: { readonly content: Readonly<Record<string, unknown>> };
}
type Paths = Readonly<Record<string, Readonly<Record<string, Operation>>>>;

/** Addresses of the description, each with a name that nothing has. */
const ADDRESSES = Object.entries((openApi() as { readonly paths: Paths }).paths).map(
  ([path, operations]) => ({
    address: path.replace('{resource}', 'crew').replace(/\{\w+\}/g, randomUUID()),
    operations,
  }),
);

function problemOf({ status, type, headers, body }: Response): Problem {
  const problem = body as Problem;
  expect(type).toBe(PROBLEM_TYPE);
  expect(problem.status).toBe(status);
  expect(problem.type).toMatch(/^urn:voltrek:problem:[a-z-]+$/);
  expect(problem.requestId).toMatch(/^[0-9a-f-]{36}$/);
  expect(problem.requestId).toBe((headers as Record<string, string>)['x-request-id']);
  return problem;
}

describe('a problem', () => {
  it('has a code that stays, the parameters of its words, and the id of its request', async () => {
    const { api } = await sharedServer();
    const unknown = problemOf(await api.get('/api/models/no-such-model').expect(404));
    expect(unknown).toEqual(
      jasmine.objectContaining({
        ...{ type: 'urn:voltrek:problem:there-is-no', code: 'thereIsNo' },
        ...{ params: ['machine', 'no-such-model'], detail: 'There is no machine no-such-model.' },
      }),
    );
    const jobId = await openJob();
    const early = await api
      .post(`/api/jobs/${jobId}/events`)
      .send(eventOf(jobId, 'job.closed', { note: '' }))
      .expect(409);
    expect(problemOf(early)).toEqual(jasmine.objectContaining({ code: 'refused', refusal: 'no-verdict' }));
    const fields = problemOf(await api.post('/api/vehicles').send({}).expect(422));
    expect(fields.code).toBe('fieldsAtFault');
    expect(fields.fields!.length).toBeGreaterThan(0);
  });

  it('is 405 with the methods of its address, for each method that no operation has', async () => {
    const { api } = await sharedServer();
    let asked = 0;
    for (const { address, operations } of ADDRESSES)
      for (const method of METHODS.filter((m) => !(m in operations))) {
        const response = await api[method](address);
        // A name that is written out may be read as one that stands for any, which takes more.
        const allowed = response.headers.allow?.split(', ') ?? [];
        if (response.status !== 405) {
          expect(ADDRESSES.some((o) => method in o.operations && alike(o.address, address)))
            .withContext(`${method} ${address}: ${response.status}`)
            .toBeTrue();
          continue;
        }
        asked++;
        expect(problemOf(response).code).toBe('methodNotHere');
        for (const own of Object.keys(operations))
          expect(allowed).withContext(address).toContain(own.toUpperCase());
        expect(allowed).not.toContain(method.toUpperCase());
      }
    expect(asked).toBeGreaterThan(200);
  });

  it('is 415 where a body is neither JSON nor the form that an operation takes', async () => {
    const { api } = await sharedServer();
    let asked = 0;
    for (const { address, operations } of ADDRESSES)
      for (const [method, { requestBody }] of Object.entries(operations)) {
        if (!requestBody) continue;
        asked++;
        const [takes] = Object.keys(requestBody.content);
        const response = await api[method as 'post'](address).type('text/plain').send('x');
        expect(response.status).withContext(`${method} ${address}`).toBe(415);
        expect(response.headers.accept).withContext(`${method} ${address}`).toBe(takes);
        problemOf(response);
      }
    expect(asked).toBeGreaterThan(35);
  });

  it('is 400 for a cursor that no page told', async () => {
    const { api } = await sharedServer();
    const first = await api.get('/api/jobs?limit=1').expect(200);
    const { next } = first.body as { next: string };
    await api.get(`/api/jobs?limit=1&after=${encodeURIComponent(next)}`).expect(200);
    for (const after of ['x', `${next}x`, next.slice(0, -4), '_', `2026-13-01_${randomUUID()}`])
      expect(problemOf(await api.get(`/api/jobs?after=${encodeURIComponent(after)}`)).code)
        .withContext(after)
        .toBe('brokenCursor');
  });
});

/** Two addresses that one pattern may stand for: as long, and alike wherever neither has a name of its own. */
function alike(pattern: string, address: string): boolean {
  const [a, b] = [pattern.split('/'), address.split('/')];
  return a.length === b.length && a.every((part, i) => part === b[i] || /^[0-9a-f-]{36}$/.test(part));
}

describe('a thing that was made', () => {
  it('has its address in Location, where it can be read', async () => {
    const { api } = await sharedServer();
    const jobId = await openJob();
    const event = eventOf(jobId, 'symptom.recorded', { symptom: 'slow-crank' });
    const made = [
      await api.post(`/api/jobs/${jobId}/events`).send(event).expect(201),
      await api
        .post('/api/vehicles')
        .send({
          ...{ plate: 'QX 7310', fleetNumber: null, serialNumber: null, modelId: 'brinmoor-pella' },
          ...{ owner: null, notes: '' },
        })
        .expect(201),
    ];
    for (const { headers } of made) await api.get(String(headers.location)).expect(200);
  });
});
