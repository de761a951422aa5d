import { setTimeout as pause } from 'node:timers/promises';
import { randomUUID } from 'node:crypto';
import { ACTS, CREW_ROLES, mayDo, pinFault, type SignInHouse, type SignInState } from '@voltrek/contracts';
import type { JobEvent } from '@voltrek/core/job';
import type { Router } from 'express';
import { pino } from 'pino';
import supertest from 'supertest';
import type { Database } from '../src/db/database.js';
import { crewSecrets, sessions } from '../src/db/schema.js';
import { createApp } from '../src/http/app.js';
import { streamHub } from '../src/http/stream-hub.js';
import { reachOf } from '../src/http/reach.js';
import { routeOf } from '../src/http/route-of.js';
import { ROUTES } from '../src/http/routes.js';
import type { InstrumentParts } from '../src/instruments/routes.js';
import { hashOfPin, isPin } from '../src/sign-in/pin.js';
import { answersChecked } from './answers-checked.js';
import { eventOf } from './shared-server.js';
import { demoDatabase } from './test-database.js';
import { noInstruments } from './no-instruments.js';

const PIN = '480263';
const OTHER = '917354';
/** The demo's crew: a lead, a technician, an apprentice; and a viewer of this test's own. */
const [LEAD, TECHNICIAN, APPRENTICE] = ['crew-1', 'crew-2', 'crew-3'];

type Agent = ReturnType<typeof supertest.agent>;

describe('the door', () => {
  let database: Database;
  let app: ReturnType<typeof createApp>;
  let bare: typeof app;
  let viewer: string;
  const hub = streamHub();
  let instruments: InstrumentParts;
  const device = (): Agent => supertest.agent(app);

  beforeAll(async () => {
    database = await demoDatabase();
    instruments = await noInstruments(database);
    bare = createApp({
      ...{ database, hub, log: pino({ level: 'silent' }) },
      instruments,
      perMinute: { requests: 1e9, heavy: 1e9, signIn: 1e9 },
    });
    app = answersChecked(bare);
    const api = device();
    await api
      .put('/api/crew/crew-1')
      .send({ name: 'Ana Test', role: 'crew-lead', retired: false })
      .expect(200);
    await api
      .put('/api/crew/crew-2')
      .send({ name: 'Bo Test', role: 'technician', retired: false })
      .expect(200);
    await api
      .put('/api/crew/crew-3')
      .send({ name: 'Cy Test', role: 'apprentice', retired: false })
      .expect(200);
    const made = await api.post('/api/crew').send({ name: 'Di Test', role: 'viewer', retired: false });
    viewer = (made.body as { id: string; name: string }[]).find(({ name }) => name === 'Di Test')!.id;
    for (const id of [LEAD, TECHNICIAN, APPRENTICE, viewer])
      await api
        .put(`/api/sign-in/pins/${id}`)
        .send({ by: LEAD, pin: PIN, ...(id !== LEAD && { ownPin: PIN }) })
        .expect(200);
  });
  afterAll(async () => {
    hub.closeAll();
    instruments.bench.close();
    await database.close();
  });

  const setSignInRule = async (required: boolean): Promise<Agent> => {
    const lead = device();
    if (!required) await signIn(lead, LEAD);
    await lead.put('/api/sign-in/door').send({ by: LEAD, required, pin: PIN }).expect(200);
    return lead;
  };
  const signIn = async (agent: Agent, named: string, pin = PIN): Promise<SignInState> =>
    (await agent.post('/api/sign-in/pin').send({ named, pin }).expect(200)).body as SignInState;

  /** A call with its job, opened by somebody who may; the job's id. */
  async function openJob(agent: Agent, by: string): Promise<string> {
    const callId = randomUUID();
    const words = {
      title: 'Test',
      placeName: 'Test yard',
      said: '',
      modelId: 'brinmoor-pella',
      ambientC: -4,
    };
    const call = await agent
      .post('/api/board')
      .send({ ...words, id: callId, urgent: false })
      .expect(201);
    const { title, placeName, modelId, ambientC } = words;
    const data = {
      callId,
      callNumber: (call.body as { number: number }).number,
      title,
      placeName,
      modelId,
      ambientC,
    };
    const jobId = randomUUID();
    await agent
      .post(`/api/jobs/${jobId}/events`)
      .send({ ...eventOf(jobId, 'job.opened', data), by })
      .expect(201);
    return jobId;
  }
  const tap = (agent: Agent, jobId: string, by: string) =>
    agent
      .post(`/api/jobs/${jobId}/events`)
      .send({ ...eventOf(jobId, 'symptom.recorded', { symptom: 'slow-crank' }), by });

  describe('shut', () => {
    beforeAll(async () => void (await setSignInRule(true)));
    afterAll(async () => void (await setSignInRule(false)));

    it('answers a stranger nothing but that it is shut: not one address, whatever the method', async () => {
      const stranger = device();
      for (const { method, path, act } of ROUTES) {
        if (act === 'open') continue;
        const asked = path.replace(':resource', 'crew').replace(/:\w+/g, LEAD);
        const answer = await stranger[method.toLowerCase() as 'get'](asked).send(
          method === 'GET' ? undefined : {},
        );
        expect(`${method} ${path} ${answer.status}`).toBe(`${method} ${path} 401`);
      }
      await stranger.get('/api/nothing').expect(401);
      await stranger.get('/metrics').expect(200);
      await stranger.get('/metrics').set('X-Forwarded-For', '203.0.113.9').expect(401);
      const state = await stranger.get('/api/sign-in').expect(200);
      expect(state.body).toEqual({ required: true, crewId: null, role: null, signedIn: [], names: [] });
    });

    it('lets somebody in with their name or id and PIN, and tells names only to a device that is known', async () => {
      const phone = device();
      const state = await signIn(phone, 'bo test');
      expect([state.crewId, state.role, state.signedIn]).toEqual([TECHNICIAN, 'technician', [TECHNICIAN]]);
      expect(state.names.map(({ name }) => name)).toContain('Ana Test');
      await phone.get('/api/board').expect(200);
      await phone.post('/api/sign-in/out').expect(200);
      await phone.get('/api/board').expect(401);
      const after = (await phone.get('/api/sign-in')).body as SignInState;
      expect([after.crewId, after.names.length > 0]).toEqual([null, true]);
    });

    it('keeps the token from scripts and other sites, and only its hash', async () => {
      const answer = await device()
        .post('/api/sign-in/pin')
        .send({ named: TECHNICIAN, pin: PIN })
        .expect(200);
      const cookie = String(answer.get('Set-Cookie'));
      expect(cookie).toMatch(/HttpOnly/i);
      expect(cookie).toMatch(/SameSite=Strict/i);
      const token = /voltrek_device=([^;]+)/.exec(cookie)![1]!;
      const planted = 'A'.repeat(43);
      const renewed = await device()
        .post('/api/sign-in/pin')
        .set('Cookie', `voltrek_device=${planted}`)
        .send({ named: TECHNICIAN, pin: PIN })
        .expect(200);
      expect(String(renewed.get('Set-Cookie'))).toContain('voltrek_device=');
      expect(String(renewed.get('Set-Cookie'))).not.toContain(planted);
      const rows = JSON.stringify(await database.db.select().from(sessions));
      expect(rows).not.toContain(token);
      const behindTls = await device()
        .post('/api/sign-in/pin')
        .set('X-Forwarded-Proto', 'https')
        .send({ named: TECHNICIAN, pin: PIN })
        .expect(200);
      expect(String(behindTls.get('Set-Cookie'))).toMatch(/Secure/);
    });

    it('locks a name after five wrong PINs, and says alike of nobody and of a wrong PIN', async () => {
      const stranger = device();
      const nobody = await stranger.post('/api/sign-in/pin').send({ named: 'Nobody', pin: PIN });
      const statuses: number[] = [];
      for (let i = 0; i < 6; i++)
        statuses.push((await stranger.post('/api/sign-in/pin').send({ named: viewer, pin: OTHER })).status);
      expect(statuses).toEqual([401, 401, 401, 401, 429, 429]);
      const ofNobody: number[] = [];
      for (let i = 0; i < 6; i++)
        ofNobody.push((await stranger.post('/api/sign-in/pin').send({ named: 'No One', pin: OTHER })).status);
      expect(ofNobody).withContext('a lock tells nobody which names there are').toEqual(statuses);
      const wrong = await device().post('/api/sign-in/pin').send({ named: TECHNICIAN, pin: OTHER });
      expect(wrong.body).toEqual({ ...nobody.body, requestId: wrong.headers['x-request-id'] });
      // The right one does not open it either, until the time is over.
      await device().post('/api/sign-in/pin').send({ named: viewer, pin: PIN }).expect(429);
      await database.db.update(crewSecrets).set({ lockedUntil: new Date(Date.now() - 1000) });
      await signIn(device(), viewer);
    });

    it('judges no more PINs that come at one moment than of such as come in a row', async () => {
      const tries = Array.from({ length: 60 }, (_, i) =>
        device()
          .post('/api/sign-in/pin')
          .send({ named: viewer, pin: i === 59 ? PIN : OTHER }),
      );
      const statuses = (await Promise.all(tries)).map(({ status }) => status);
      expect(statuses.filter((status) => status === 401).length).toBeLessThanOrEqual(4);
      // The right one came last, and was not looked at.
      expect(statuses).not.toContain(200);
      await database.db.update(crewSecrets).set({ lockedUntil: null, failures: 0 });
    });

    it('lets each role do what it may and nothing more, by every address', async () => {
      for (const [role, crewId] of [
        ['viewer', viewer],
        ['apprentice', APPRENTICE],
        ['technician', TECHNICIAN],
      ] as const) {
        const agent = device();
        await signIn(agent, crewId);
        for (const { method, path, act } of ROUTES) {
          if (act === 'open' || method === 'GET' || path.startsWith('/api/sign-in')) continue;
          const asked = path.replace(':resource', 'crew').replace(/:\w+/g, 'x');
          const { status } = await agent[method.toLowerCase() as 'put'](asked).send({});
          const isLet = status !== 403 && status !== 401;
          expect(`${role} ${method} ${path} ${isLet}`).toBe(`${role} ${method} ${path} ${mayDo(role, act)}`);
        }
      }
    });

    it('does nothing at an address that is in no line of the table, whoever asks', async () => {
      const lead = device();
      await signIn(lead, LEAD);
      await lead.delete('/api/rules').expect(405);
      await lead.post('/api/docs').send({}).expect(404);
      await lead.get('/api/docs/').expect(200);
      await device().get('/api/docs/').expect(401);
    });

    it('takes a request only under a name that is signed in on the device', async () => {
      const phone = device();
      await signIn(phone, TECHNICIAN);
      const jobId = await openJob(phone, TECHNICIAN);
      expect((await tap(phone, jobId, TECHNICIAN)).status).toBe(201);
      expect((await tap(phone, jobId, LEAD)).status).toBe(401);
      await phone.post('/api/rules').send({ key: 'crankTriesMax', value: 3, by: LEAD }).expect(401);
    });

    it('hands a device over: what the one before did is still sent, and nothing else under that name', async () => {
      const phone = device();
      await signIn(phone, LEAD);
      const jobId = await openJob(phone, LEAD);
      const state = await signIn(phone, TECHNICIAN);
      expect(state.crewId).toBe(TECHNICIAN);
      expect([...state.signedIn].sort()).toEqual([LEAD, TECHNICIAN]);
      // Something new is not done in the name of somebody who is gone; a tap of that very moment counts as before it.
      expect((await tap(phone, jobId, LEAD)).status).toBe(201);
      await pause(1_100);
      expect((await tap(phone, jobId, LEAD)).status).toBe(403);
      const sent = await tap(phone, jobId, LEAD).set('voltrek-held-ms', '60000');
      expect(sent.status).toBe(201);
      expect((sent.body as { event: JobEvent }).event).toEqual(
        jasmine.objectContaining({ by: LEAD, sentBy: TECHNICIAN }),
      );
      const vouched = { ...eventOf(jobId, 'job.supervised', { on: true }), by: LEAD };
      await phone.post(`/api/jobs/${jobId}/events`).set('voltrek-held-ms', '60000').send(vouched).expect(403);
      const asLead = await phone.post('/api/rules').send({ key: 'crankTriesMax', value: 3, by: LEAD });
      expect(asLead.status).toBe(403);
    });

    it('gives a device another token whenever somebody comes or goes: a copy of the one before opens nothing', async () => {
      const phone = device();
      const cookieOf = (response: { headers: Record<string, unknown> }): string =>
        String((response.headers['set-cookie'] as string[])[0]).split(';')[0]!;
      const first = await phone.post('/api/sign-in/pin').send({ named: LEAD, pin: PIN }).expect(200);
      const copied = cookieOf(first as never);
      const withCopy = () => supertest(app).get('/api/crew').set('Cookie', copied);
      await withCopy().expect(200);
      // Handed over: the copy is worth nothing, for the one who came and for the one who went.
      await signIn(phone, TECHNICIAN);
      await withCopy().expect(401);
      const out = await phone.post('/api/sign-in/out').send({}).expect(200);
      await signIn(phone, LEAD);
      await supertest(app)
        .get('/api/crew')
        .set('Cookie', cookieOf(out as never))
        .expect(401);
    });

    it('lets nobody who left hear anything more, and opens no door to them on their return', async () => {
      const phone = device();
      await signIn(phone, viewer);
      await phone.get('/api/crew').expect(200);
      const lead = device();
      await signIn(lead, LEAD);
      const viewerAs = (retired: boolean) =>
        lead.put(`/api/crew/${viewer}`).send({ name: 'Di Test', role: 'viewer', retired }).expect(200);
      const starts = spyOn(hub, 'startOver').and.callThrough();
      await viewerAs(true);
      expect(starts).toHaveBeenCalled();
      await viewerAs(false);
      await phone.get('/api/crew').expect(401);
      // The PIN stands: whoever came back shows it again.
      await signIn(phone, viewer);
    });

    it('lets an apprentice work where somebody answers for it, and nowhere else', async () => {
      const lead = device();
      await signIn(lead, TECHNICIAN);
      const jobId = await openJob(lead, TECHNICIAN);
      const phone = device();
      await signIn(phone, APPRENTICE);
      expect((await tap(phone, jobId, APPRENTICE)).status).toBe(403);
      const supervised = (agent: Agent, by: string, on: boolean) =>
        agent.post(`/api/jobs/${jobId}/events`).send({ ...eventOf(jobId, 'job.supervised', { on }), by });
      expect((await supervised(phone, APPRENTICE, true)).status).toBe(403);
      expect((await supervised(lead, TECHNICIAN, true)).status).toBe(201);
      expect((await tap(phone, jobId, APPRENTICE)).status).toBe(201);
      expect((await supervised(phone, APPRENTICE, false)).status).toBe(403);
      expect((await supervised(lead, TECHNICIAN, false)).status).toBe(201);
      expect((await tap(phone, jobId, APPRENTICE)).status).toBe(403);
    });

    it('ends a session at once, from afar, and with it what a device hears', async () => {
      const phone = device();
      await signIn(phone, TECHNICIAN);
      await phone.get('/api/crew').expect(200);
      const lead = device();
      await signIn(lead, LEAD);
      const { body } = (await lead.get('/api/sign-in/house').expect(200)) as { body: SignInHouse };
      for (const { id } of body.sessions.filter(({ crewId }) => crewId === TECHNICIAN))
        await lead.delete(`/api/sign-in/sessions/${id}`).expect(200);
      await phone.get('/api/crew').expect(401);
    });

    it('lets a session end by itself after two shifts without a touch, and after a month in any case', async () => {
      for (const gone of [
        { seenAt: new Date(Date.now() - 17 * 3_600_000) },
        { createdAt: new Date(Date.now() - 31 * 86_400_000) },
      ]) {
        const phone = device();
        await signIn(phone, TECHNICIAN);
        await phone.get('/api/crew').expect(200);
        await database.db.update(sessions).set(gone);
        await phone.get('/api/crew').expect(401);
      }
    });

    it('shows others only their own part, and a lead all of it with what was done', async () => {
      const phone = device();
      await signIn(phone, TECHNICIAN);
      const own = (await phone.get('/api/sign-in/house').expect(200)).body as SignInHouse;
      expect(own.crew.map(({ crewId }) => crewId)).toEqual([TECHNICIAN]);
      expect(own.audit).toEqual([]);
      await phone.post('/api/rules').send({ key: 'crankTriesMax', value: 3, by: TECHNICIAN }).expect(403);
      const lead = device();
      await signIn(lead, LEAD);
      await lead.post('/api/rules').send({ key: 'crankTriesMax', value: 3, by: LEAD }).expect(201);
      const { audit } = (await lead.get('/api/sign-in/house').expect(200)).body as SignInHouse;
      const told = audit.slice(0, 3).map(({ by, kind, about }) => [by, kind, about]);
      expect(told).toContain([LEAD, 'changed', 'POST /api/rules']);
      expect(told).toContain([LEAD, 'signed-in', LEAD]);
      expect(audit.map(({ by, kind, about }) => [by, kind, about])).toContain([
        TECHNICIAN,
        'refused',
        'POST /api/rules',
      ]);
    });

    it('never shuts the last lead out', async () => {
      const lead = device();
      await signIn(lead, LEAD);
      await lead
        .put(`/api/crew/${LEAD}`)
        .send({ name: 'Ana Test', role: 'technician', retired: false })
        .expect(409);
      await lead
        .put(`/api/crew/${LEAD}`)
        .send({ name: 'Ana Test', role: 'crew-lead', retired: true })
        .expect(409);
      await lead
        .put(`/api/crew/${LEAD}`)
        .send({ name: 'Ana Test', role: 'crew-lead', retired: false })
        .expect(200);
    });

    it('changes a PIN only for whoever knows the one that stands, and ends what was opened with a PIN that a lead set anew', async () => {
      const phone = device();
      await signIn(phone, TECHNICIAN);
      const change = (by: string, whose: string, pin: string, ownPin: string) =>
        phone.put(`/api/sign-in/pins/${whose}`).send({ by, pin, ownPin });
      expect((await change(TECHNICIAN, TECHNICIAN, OTHER, OTHER)).status).toBe(401);
      expect((await change(TECHNICIAN, LEAD, OTHER, PIN)).status).toBe(403);
      expect((await change(TECHNICIAN, TECHNICIAN, '123456', PIN)).status).toBe(422);
      expect((await change(TECHNICIAN, TECHNICIAN, OTHER, PIN)).status).toBe(200);
      await phone.get('/api/crew').expect(200);
      const lead = device();
      await signIn(lead, LEAD);
      await lead.put(`/api/sign-in/pins/${TECHNICIAN}`).send({ by: LEAD, pin: PIN, ownPin: PIN }).expect(200);
      await phone.get('/api/crew').expect(401);
      await signIn(phone, TECHNICIAN);
    });
  });

  it('is shut and opened only by a lead with the PIN; open, everybody may do everything', async () => {
    const anybody = device();
    await anybody.put('/api/sign-in/door').send({ by: LEAD, required: true, pin: OTHER }).expect(401);
    await anybody.put('/api/sign-in/door').send({ by: TECHNICIAN, required: true, pin: PIN }).expect(403);
    await anybody.get('/api/board').expect(200);
    const state = (await anybody.get('/api/sign-in').expect(200)).body as SignInState;
    expect(state).toEqual({ required: false, crewId: null, role: null, signedIn: [], names: [] });
  });

  it('stays shut where a server of the house is reached from other machines', async () => {
    // Another server on the same database listens to others; this one answers this machine alone.
    const public_ = await reachOf(database, 'outside', true);
    const reach = await reachOf(database, 'inside', false);
    const outside = createApp({
      ...{ database, hub, log: pino({ level: 'silent' }), reach },
      instruments,
    });
    await setSignInRule(true);
    const lead = supertest.agent(outside);
    await lead.put('/api/sign-in/door').send({ by: LEAD, required: false, pin: PIN }).expect(401);
    await signIn(lead, LEAD);
    await lead.put('/api/sign-in/door').send({ by: LEAD, required: false, pin: PIN }).expect(409);
    await setSignInRule(false);
    await public_.stop();
    await reach.stop();
  });

  it('of a public house, open, answers this machine what setting up needs, and others nothing', async () => {
    const reach = await reachOf(database, 'behind a proxy', false);
    const proxied = createApp({ ...{ database, hub, log: pino({ level: 'silent' }), reach }, instruments });
    const here = supertest.agent(proxied);
    await here.get('/api/board').expect(200);
    const stranger = (path: string) => supertest(proxied).get(path).set('X-Forwarded-For', '203.0.113.9');
    // The first request that a proxy passes on makes the house public, for everybody.
    await stranger('/api/board').expect(403);
    await supertest(proxied)
      .post('/api/crew')
      .set('X-Forwarded-For', '203.0.113.9')
      .send({ name: 'Stranger Test', role: 'crew-lead', retired: false })
      .expect(403);
    await stranger('/api/health').expect(200);
    await stranger('/metrics').expect(401);
    await here.get('/metrics').expect(200);
    await here.get('/api/board').expect(403);
    await here.get('/api/crew').expect(200);
    const other = await reachOf(database, 'another server', false);
    expect(await other.isPublic()).toBeTrue();
    await reach.stop();
    await other.stop();
    expect(await (await reachOf(database, 'another server', false)).isPublic()).toBeFalse();
  });

  it('knows every address that the server has, and none besides', () => {
    const known = ROUTES.map(({ method, path }) => `${method} ${path}`).sort();
    expect(addressesOf(bare).sort()).toEqual(known.filter((line) => !line.includes('/api/backups')));
    for (const { method, path } of ROUTES)
      expect(routeOf(method, path.replace(/:\w+/g, 'x'))?.path).toBe(path);
  });
});

/** The addresses that an application has, read off its routers. */
function addressesOf(app: ReturnType<typeof createApp>): string[] {
  interface Layer {
    readonly route?: { readonly path: string; readonly stack: readonly { readonly method?: string }[] };
    readonly handle: { readonly stack?: readonly Layer[] };
  }
  const lines = new Set<string>();
  const walk = (layers: readonly Layer[]): void => {
    for (const layer of layers) {
      if (layer.route)
        for (const { method } of layer.route.stack)
          if (method) lines.add(`${method.toUpperCase()} ${layer.route.path}`);
      if (layer.handle.stack && !layer.route) walk(layer.handle.stack);
    }
  };
  walk((app.router as unknown as Router as unknown as { stack: readonly Layer[] }).stack);
  return [...lines].filter((line) => line.includes(' /api/') && !line.includes('*'));
}

describe('a PIN', () => {
  it('is kept as a slow hash with a salt of its own, which only it fits', async () => {
    const [one, two] = [await hashOfPin(PIN), await hashOfPin(PIN)];
    expect(one).not.toBe(two);
    expect(one).not.toContain(PIN);
    expect(await isPin(PIN, one)).toBeTrue();
    expect(await isPin(OTHER, one)).toBeFalse();
    expect(await isPin(PIN, null)).toBeFalse();
  });

  it('is no run and no repetition, and of six digits at the least', () => {
    for (const pin of ['12345', '123456', '987654', '777777', '12a456', '1234567890123', ''])
      expect(pinFault(pin)).not.toBeNull();
    for (const pin of ['480263', '112233', '000001', '121212']) expect(pinFault(pin)).toBeNull();
  });
});

describe('roles', () => {
  it('each may look; a lead may do everything, and each rank all that the one below may', () => {
    const ranks = ['viewer', 'apprentice', 'technician', 'crew-lead'] as const;
    // The desk stands beside them: it sends, and works on no job.
    expect([...ranks, 'desk'].sort()).toEqual([...CREW_ROLES].sort());
    expect(ACTS.filter((act) => mayDo('desk', act))).toEqual(['look', 'send']);
    expect(ACTS.every((act) => mayDo('crew-lead', act))).toBeTrue();
    for (const [i, rank] of ranks.entries()) {
      expect(mayDo(rank, 'look')).toBeTrue();
      for (const act of ACTS) if (i > 0 && mayDo(ranks[i - 1]!, act)) expect(mayDo(rank, act)).toBeTrue();
    }
    expect(mayDo('technician', 'lead')).toBeFalse();
  });
});
