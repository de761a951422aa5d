import { randomUUID } from 'node:crypto';
import { createServer, get, type IncomingMessage } from 'node:http';
import type { AddressInfo } from 'node:net';
import type { JobDetail, LogPage, StreamMessage, Problem } from '@voltrek/contracts';
import { eventOf, openJob, PACK_PLAN, send, sharedServer } from './shared-server.js';

const problemOf = (response: { body: unknown; type: string; text: string }): Problem => {
  expect(response.type).toBe('application/problem+json');
  return JSON.parse(response.text) as Problem;
};
const symptom = { symptom: 'silence' } as const;

describe('the job log', () => {
  it('opens a job, keeps its events in order and folds them', async () => {
    const { api } = await sharedServer();
    const jobId = await openJob();
    await send(jobId, 'symptom.recorded', symptom);
    await send(jobId, 'reading.taken', {
      kind: 'rest',
      volts: 11.62,
      battery: 0,
      tempC: -4,
      source: 'typed',
    });
    const detail = (await api.get(`/api/jobs/${jobId}`).expect(200)).body as JobDetail;
    expect(detail.events.map((e) => e.type)).toEqual(['job.opened', 'symptom.recorded', 'reading.taken']);
    expect(detail.machine.id).toBe('brinmoor-pella');
    expect(detail.kit.length).toBeGreaterThan(3);
    expect(detail.donorMachine?.id).toBe('service-van');
  });

  it('changes nothing when an event is sent again', async () => {
    const { api } = await sharedServer();
    const jobId = await openJob();
    const event = eventOf(jobId, 'symptom.recorded', symptom);
    await api.post(`/api/jobs/${jobId}/events`).send(event).expect(201);
    const again = await api.post(`/api/jobs/${jobId}/events`).send(event).expect(200);
    expect((again.body as { isNew: boolean }).isNew).toBeFalse();
    const detail = (await api.get(`/api/jobs/${jobId}`)).body as JobDetail;
    expect(detail.events.length).toBe(2);
  });

  it('refuses an id that stands with other content, and names what differs', async () => {
    const { api } = await sharedServer();
    const jobId = await openJob();
    const event = eventOf(jobId, 'symptom.recorded', { symptom: 'slow-crank' });
    await api.post(`/api/jobs/${jobId}/events`).send(event).expect(201);
    const other = { ...event, data: { symptom: 'silence' } };
    const answer = await api.post(`/api/jobs/${jobId}/events`).send(other).expect(409);
    expect((answer.body as { detail: string }).detail).toContain('data.symptom');
    await api.post(`/api/jobs/${jobId}/events`).send(event).expect(200);
  });

  it('takes simultaneous events of one job one after another, each once', async () => {
    const { api } = await sharedServer();
    const jobId = await openJob();
    const events = Array.from({ length: 12 }, () => eventOf(jobId, 'symptom.recorded', symptom));
    const responses = await Promise.all(events.map((e) => api.post(`/api/jobs/${jobId}/events`).send(e)));
    expect(responses.every((r) => r.status === 201)).toBeTrue();
    const revisions = responses.map((r) => (r.body as { revision: number }).revision).sort((a, b) => a - b);
    expect(revisions).toEqual(Array.from({ length: 12 }, (_, i) => i + 2));
  });

  it('times the events of a job in the order of its log, however long each waited on the device', async () => {
    const { api } = await sharedServer();
    const jobId = await openJob();
    // The second was held while the first was on its way. A device that counts wrongly held the last.
    for (const heldMs of [0, 4_000, 0, 86_400_000])
      await api
        .post(`/api/jobs/${jobId}/events`)
        .set('voltrek-held-ms', String(heldMs))
        .send(eventOf(jobId, 'symptom.recorded', symptom))
        .expect(201);
    const { events } = (await api.get(`/api/jobs/${jobId}`)).body as JobDetail;
    const heard = events.map((e) => e.heardAt!);
    expect(new Set(heard).size).toBe(5);
    expect(heard).toEqual([...heard].sort());
  });

  it('refuses what the job does not allow, with the reason, and writes nothing', async () => {
    const { api } = await sharedServer();
    const jobId = await openJob();
    const response = await send(jobId, 'clamp.attached', { clamp: 'redCasualty', pointId: 'battery-plus' });
    expect(response.status).toBe(409);
    expect(problemOf(response).refusal).toBe('no-plan');
    expect(((await api.get(`/api/jobs/${jobId}`)).body as JobDetail).events.length).toBe(1);
  });

  it('refuses a second job for one call', async () => {
    const { api } = await sharedServer();
    const jobId = await openJob();
    const { events } = (await api.get(`/api/jobs/${jobId}`)).body as JobDetail;
    const other = randomUUID();
    const opened = { ...events[0]!, id: randomUUID(), jobId: other };
    const response = await api.post(`/api/jobs/${other}/events`).send(opened);
    expect(response.status).toBe(409);
    expect(problemOf(response).refusal).toBe('already-open');
  });

  it('refuses an event id that another job has used', async () => {
    const { api } = await sharedServer();
    const [one, two] = [await openJob(), await openJob()];
    const event = eventOf(one, 'symptom.recorded', symptom);
    await api.post(`/api/jobs/${one}/events`).send(event).expect(201);
    const response = await api.post(`/api/jobs/${two}/events`).send({ ...event, jobId: two });
    expect(response.status).toBe(409);
  });

  it('refuses a clamp on a point the machine does not have', async () => {
    const jobId = await openJob();
    await send(jobId, 'polarity.proved', { signs: ['mark', 'meter'] });
    await send(jobId, 'plan.chosen', PACK_PLAN);
    const response = await send(jobId, 'clamp.attached', { clamp: 'redCasualty', pointId: 'no-such-point' });
    expect(response.status).toBe(409);
  });

  it('closes a job, finds it in the log, and takes nothing more', async () => {
    const { api } = await sharedServer();
    const jobId = await openJob('skarnby-orchard-fan');
    await send(jobId, 'verdict.given', {
      verdict: 'keep',
      suspect: null,
      certainty: 'unsure',
      followUps: [{ kind: 'inspect', days: 180 }],
    });
    expect((await send(jobId, 'job.closed', { note: '' })).status).toBe(201);
    const late = await send(jobId, 'symptom.recorded', symptom);
    expect(problemOf(late).refusal).toBe('job-closed');
    const page = (await api.get('/api/jobs').query({ q: 'orchard TEST', verdict: 'keep' }).expect(200))
      .body as LogPage;
    expect(page.jobs.map((j) => j.id)).toContain(jobId);
  });

  it('tells every device of each event as it is taken, whatever job it is of, and that the board changed', async () => {
    const { app } = await sharedServer();
    const jobId = await openJob();
    const server = createServer(app).listen(0, '127.0.0.1');
    await new Promise((done) => server.once('listening', done));
    const { port } = server.address() as AddressInfo;
    const stream = await new Promise<IncomingMessage>((done) =>
      get(`http://127.0.0.1:${port}/api/stream`, done),
    );
    expect(stream.headers['content-type']).toBe('text/event-stream');
    let text = '';
    const heard = new Promise<string>((done) => {
      stream.on('data', (chunk: Buffer) => {
        text += chunk.toString();
        // The board may still tell of the job that was opened a moment ago: the one behind the event is meant.
        if (/"symptom.recorded".*"board"/s.test(text)) done(text);
      });
    });
    await send(jobId, 'symptom.recorded', symptom);
    const message = await heard;
    const told = [...message.matchAll(/data: (.*)/g)].map(([, line]) => JSON.parse(line!) as StreamMessage);
    expect(told[0]).withContext('at once, so that the line is known to stand').toEqual({ kind: 'beat' });
    expect(told).toContain(
      jasmine.objectContaining({
        kind: 'logged',
        event: jasmine.objectContaining({ jobId, type: 'symptom.recorded' }),
        revision: 2,
      }),
    );
    stream.destroy();
    server.close();
  });
});

describe('bad input', () => {
  it('is a problem document and never a 5xx', async () => {
    const { api } = await sharedServer();
    const jobId = await openJob();
    const path = `/api/jobs/${jobId}/events`;
    const good = eventOf(jobId, 'symptom.recorded', symptom);
    const reading = { kind: 'rest', volts: 12, battery: 0, tempC: 0, source: 'typed' };
    const bad: [unknown, number][] = [
      [{ ...good, id: 'not-a-uuid' }, 422],
      [{ ...good, at: 'yesterday' }, 422],
      [{ ...good, type: 'job.deleted' }, 422],
      [{ ...good, data: { symptom: 'sneezes' } }, 422],
      [{ ...good, data: { ...symptom, extra: 1 } }, 422],
      [{ ...good, extra: true }, 422],
      [{ ...good, jobId: randomUUID() }, 422],
      [{ ...good, by: 'nobody' }, 404],
      [{ ...good, type: 'reading.taken', data: { ...reading, volts: '12' } }, 422],
      [{ ...good, type: 'reading.taken', data: { ...reading, volts: 1e9 } }, 422],
      [{ ...good, type: 'reading.taken', data: { ...reading, volts: null } }, 422],
      [[], 422],
      [null, 400],
      [{ ...good, data: { symptom: 'x'.repeat(70_000) } }, 413],
    ];
    for (const [body, status] of bad) {
      const response = await api
        .post(path)
        .set('Content-Type', 'application/json')
        .send(JSON.stringify(body));
      expect(response.status).withContext(JSON.stringify(body).slice(0, 120)).toBe(status);
      expect(problemOf(response).status).toBe(status);
    }
    const torn = await api.post(path).set('Content-Type', 'application/json').send('{"id": ');
    expect(problemOf(torn).status).toBe(400);
    const plain = await api.post(path).set('Content-Type', 'text/plain').send('hello');
    expect(plain.status).toBe(415);
    expect(((await api.get(`/api/jobs/${jobId}`)).body as JobDetail).events.length).toBe(1);
  });

  it('names the field at fault', async () => {
    const jobId = await openJob();
    const response = await send(jobId, 'reading.taken', {
      kind: 'rest',
      volts: 500,
      battery: 0,
      tempC: 0,
      source: 'typed',
    });
    expect(problemOf(response).fields?.map((f) => f.path)).toEqual(['data.volts']);
  });

  it('answers unknown paths, jobs and machines with 404', async () => {
    const { api } = await sharedServer();
    for (const path of ['/api/nothing', `/api/jobs/${randomUUID()}`, '/api/jobs/1', '/api/models/none']) {
      const response = await api.get(path);
      expect(response.status).withContext(path).toBe(404);
      problemOf(response);
    }
  });

  it('refuses a log query that makes no sense', async () => {
    const { api } = await sharedServer();
    for (const query of ['limit=-1', 'limit=9999', 'verdict=maybe', `q=${'x'.repeat(300)}`]) {
      expect((await api.get(`/api/jobs?${query}`)).status)
        .withContext(query)
        .toBe(422);
    }
    expect(((await api.get('/api/jobs').query({ q: '100%_\\' })).body as LogPage).jobs).toEqual([]);
  });

  it('refuses a call that is not whole', async () => {
    const { api } = await sharedServer();
    const call = {
      id: randomUUID(),
      title: 'T',
      placeName: 'P',
      said: '',
      modelId: 'brinmoor-pella',
      ambientC: 0,
      urgent: false,
    };
    await api
      .post('/api/board')
      .send({ ...call, modelId: 'none' })
      .expect(404);
    await api
      .post('/api/board')
      .send({ ...call, ambientC: 900 })
      .expect(422);
    await api
      .post('/api/board')
      .send({ ...call, title: ' ' })
      .expect(422);
    await api.post('/api/board').send(call).expect(201);
    await api.post('/api/board').send(call).expect(200);
  });
});

describe('the rest of the API', () => {
  it('tells of itself in the text form of Prometheus: requests by route, events by type, nothing of anybody', async () => {
    const { api } = await sharedServer();
    const jobId = await openJob();
    await send(jobId, 'symptom.recorded', symptom);
    await api.get('/api/jobs/no-such-job').expect(404);
    const told = await api.get('/metrics').expect(200);
    expect(told.type).toBe('text/plain');
    const value = (line: RegExp): number => Number(line.exec(told.text)?.[1] ?? NaN);
    expect(
      value(
        /voltrek_request_seconds_count\{method="POST",route="\/api\/jobs\/:jobId\/events",status="201"\} (\d+)/,
      ),
    ).toBeGreaterThan(1);
    expect(
      value(/voltrek_request_seconds_count\{method="GET",route="\/api\/jobs\/:jobId",status="404"\} (\d+)/),
    ).toBeGreaterThan(0);
    expect(value(/voltrek_events_total\{type="symptom.recorded"\} (\d+)/)).toBeGreaterThan(0);
    expect(value(/voltrek_streams (\d+)/)).toBeGreaterThanOrEqual(0);
    expect(value(/voltrek_nodejs_eventloop_lag_p99_seconds ([\d.e-]+)/)).toBeGreaterThan(0);
    expect(told.text).not.toContain(jobId);
    await api.get('/metrics').set('Host', 'elsewhere.example').expect(421);
  });

  it('is healthy and lists what ships', async () => {
    const { api } = await sharedServer();
    expect((await api.get('/api/health').expect(200)).body).toEqual({
      status: 'ok',
      lastBackup: null,
      backupProblem: null,
    });
    expect(((await api.get('/api/crew')).body as unknown[]).length).toBeGreaterThanOrEqual(4);
    expect(((await api.get('/api/vans')).body as unknown[]).length).toBeGreaterThanOrEqual(2);
    expect(((await api.get('/api/models')).body as { total: number }).total).toBeGreaterThanOrEqual(30);
    const board = (await api.get('/api/board')).body as { title: string; urgent: boolean }[];
    expect(board.some((c) => c.title.includes('bakery'))).toBeTrue();
    expect(board[0]!.urgent).toBeTrue();
  });

  it('sends the usual guarding headers', async () => {
    const { api } = await sharedServer();
    const { headers } = await api.get('/api/health');
    expect(headers['content-security-policy']).toBe("default-src 'none';frame-ancestors 'none'");
    expect(headers['x-frame-options']).toBe('DENY');
    expect(headers['referrer-policy']).toBe('no-referrer');
    expect(headers['cross-origin-resource-policy']).toBe('same-origin');
    expect(headers['x-content-type-options']).toBe('nosniff');
    expect(headers['x-powered-by']).toBeUndefined();
  });
});
