import { randomUUID } from 'node:crypto';
import { connect, type AddressInfo } from 'node:net';
import { createServer } from 'node:http';
import { PROBLEM_TYPE } from '@voltrek/contracts';
import { eventOf, openJob, sharedServer } from './shared-server.js';

const nested = (depth: number): string => `${'['.repeat(depth)}${']'.repeat(depth)}`;

describe('input that nobody foresaw', () => {
  /** Sends a body as it stands and gives what came of it. */
  const post = async (path: string, body: string, type = 'application/json') => {
    const { api } = await sharedServer();
    return api.post(path).set('Content-Type', type).send(body);
  };

  it('is a named 4xx in every body, never a failure of the server', async () => {
    const jobId = await openJob();
    const event = (data: unknown, more: object = {}) =>
      JSON.stringify({ ...eventOf(jobId, 'job.closed', { note: '' }), data, ...more });
    const call = (more: object) =>
      JSON.stringify({
        id: randomUUID(),
        title: 'T',
        placeName: 'P',
        said: '',
        modelId: 'brinmoor-pella',
        ambientC: 1,
        urgent: false,
        ...more,
      });
    const bodies: readonly (readonly [path: string, body: string])[] = [
      [`/api/jobs/${jobId}/events`, event({ note: 'a\u0000b' })],
      [`/api/jobs/${jobId}/events`, event({ note: 'x' }).replace('"x"', '"\\ud800"')],
      [`/api/jobs/${jobId}/events`, event({ note: '' }, { at: '2026-02-30T10:00:00Z' })],
      [`/api/jobs/${jobId}/events`, event({ note: '' }, { at: '2026-13-01T10:00:00Z' })],
      [`/api/jobs/${jobId}/events`, event({ note: '' }, { at: '0000-01-01T10:00:00Z' })],
      [`/api/jobs/${jobId}/events`, event({ note: '' }, { id: '-'.repeat(36) })],
      [`/api/jobs/${jobId}/events`, event({ note: '' }).replace('"note":""', '"__proto__":{"note":""}')],
      [`/api/jobs/${jobId}/events`, event({ note: '' }).replace('"note":""', '"constructor":1')],
      [`/api/jobs/${jobId}/events`, `{"data":${nested(5000)}}`],
      ['/api/board', call({ title: 'a\u0000' })],
      ['/api/board', call({ said: nested(1) }).replace(`"${nested(1)}"`, nested(5000))],
      ['/api/rules', `{"key":"constructor","value":1,"by":"crew-1"}`],
      ['/api/rules', `{"key":"__proto__","value":1,"by":"crew-1"}`],
      ['/api/models', `{"machine":${nested(5000)},"by":"crew-1","note":"","basedOn":null}`],
      ['/api/vans/marks/------------------------------------/done', '{"by":"crew-1"}'],
      [`/api/vans/marks/${randomUUID()}/done`, '{"by":"constructor"}'],
      ['/api/board', '{"id":'],
      ['/api/board', 'null'],
      ['/api/board', '"text"'],
      ['/api/board', '[]'],
    ];
    for (const [path, body] of bodies) {
      const response = await post(path, body);
      expect(response.status).withContext(body.slice(0, 120)).toBeGreaterThanOrEqual(400);
      expect(response.status).withContext(body.slice(0, 120)).toBeLessThan(500);
      expect(response.type).withContext(body.slice(0, 120)).toBe(PROBLEM_TYPE);
      expect((response.body as { detail: string }).detail)
        .withContext(body.slice(0, 120))
        .toBeTruthy();
    }
  });

  it('is a named 4xx in every address and method', async () => {
    const { api } = await sharedServer();
    const paths = [
      '/api/models/a%00b',
      '/api/models?q=%00',
      '/api/models/%ed%a0%80',
      '/api/models/%zz',
      '/api/jobs/------------------------------------',
      '/api/jobs?q=a%00',
      '/api/jobs?verdict=constructor',
      '/api/jobs?q=a&q=b',
      '/api/jobs?limit=1e9',
      '/api/batteries/__proto__',
      '/api/models/brinmoor-pella/photos/------------------------------------',
      '/api/nothing',
      '/nothing/here',
    ];
    for (const path of paths) {
      const response = await api.get(path);
      expect(response.status).withContext(path).toBeGreaterThanOrEqual(400);
      expect(response.status).withContext(path).toBeLessThan(500);
      expect(response.type).withContext(path).toBe(PROBLEM_TYPE);
    }
    for (const method of ['post', 'put', 'patch', 'delete'] as const)
      for (const path of ['/nothing', '/api/nothing', '/api/crew/x/y']) {
        const response = await api[method](path);
        expect(response.status).withContext(`${method} ${path}`).toBe(404);
        expect(response.type).withContext(`${method} ${path}`).toBe(PROBLEM_TYPE);
      }
  });

  it('is a named 4xx in a form that is cut off or is none', async () => {
    const cut = '--x\r\nContent-Disposition: form-data; name="file"; filename="a.json"\r\n\r\n{"format"';
    for (const [body, type] of [
      [cut, 'multipart/form-data; boundary=x'],
      ['', 'multipart/form-data; boundary=x'],
      ['--x', 'multipart/form-data'],
      ['abc', 'multipart/form-data; boundary='],
    ] as const) {
      for (const path of ['/api/models/preview', '/api/models/import', '/api/models/brinmoor-pella/photos']) {
        const response = await post(path, body, type);
        expect(response.status).withContext(`${path} ${type} ${body}`).toBeGreaterThanOrEqual(400);
        expect(response.status).withContext(`${path} ${type} ${body}`).toBeLessThan(500);
      }
    }
  });

  it('changes nothing when another page sends it, and is not even read under a foreign name', async () => {
    const { api } = await sharedServer();
    const rule = { key: 'crankTriesMax', value: 3, by: 'crew-1' };
    await api.post('/api/rules').set('Origin', 'http://elsewhere.example').send(rule).expect(403);
    await api.post('/api/rules').set('Origin', 'null').send(rule).expect(403);
    await api.post('/api/rules').set('Sec-Fetch-Site', 'cross-site').send(rule).expect(403);
    await api.post('/api/rules').set('Sec-Fetch-Site', 'same-site').send(rule).expect(403);
    await api.get('/api/crew').set('Host', 'elsewhere.example').expect(421);
    await api.get('/api/crew').set('Host', 'localhost.elsewhere.example').expect(421);
    await api.get('/api/crew').set('Host', 'localhost:4820').expect(200);
    await api.get('/api/crew').set('Host', '[::1]:4820').expect(200);
    // A capture acts on an instrument, so nothing that a page of others can embed may start one.
    await api.get(`/api/instruments/capture?job=${randomUUID()}`).expect(405);
    await api
      .post('/api/instruments/capture')
      .set('Sec-Fetch-Site', 'cross-site')
      .send({ jobId: randomUUID() })
      .expect(403);
  });

  it('does not stop the server when a line breaks off in the middle of a request', async () => {
    const { app, api } = await sharedServer();
    const server = createServer(app);
    await new Promise<void>((done) => server.listen(0, '127.0.0.1', done));
    const { port } = server.address() as AddressInfo;
    const socket = connect(port, '127.0.0.1');
    socket.write(
      'POST /api/board HTTP/1.1\r\nHost: localhost\r\nContent-Type: application/json\r\nContent-Length: 500\r\n\r\n{"id"',
    );
    await new Promise((done) => setTimeout(done, 50));
    socket.destroy();
    await new Promise((done) => server.close(done));
    await api.get('/api/health').expect(200);
  });
});
