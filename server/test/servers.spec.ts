import { randomUUID } from 'node:crypto';
import { once } from 'node:events';
import { mkdtemp, readFile } from 'node:fs/promises';
import { get, type IncomingMessage, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import type { Call, JobDetail, StreamMessage } from '@voltrek/contracts';
import pg from 'pg';
import { pino } from 'pino';
import { type Database, openInMemory, SNAPSHOT } from '../src/db/database.js';
import { openPostgres, ServerUnfitError } from '../src/db/postgres.js';
import { loadDemo } from '../src/demo/load.js';
import { createApp } from '../src/http/app.js';
import { streamHub, type StreamHub } from '../src/http/stream-hub.js';
import { shareMessages } from '../src/http/messages-of-others.js';
import { HouseFileError } from '../src/house/house-file.js';
import { newestNotes, note } from '../src/sign-in/audit.js';
import { hashOfPin } from '../src/sign-in/pin.js';
import { isSignInRequired, provenByPin, setSignInRule, setPin } from '../src/sign-in/secrets.js';
import { passkeys } from '../src/db/schema.js';
import { backUpAsFile, moveHouse } from '../src/house/move.js';
import { rebuild } from '../src/jobs/rebuild.js';
import { until } from './patience.js';
import { eventOf } from './shared-server.js';
import { DEMO_NOW, newDatabaseUrl, TEST_SERVER } from './test-database.js';
import { noInstruments } from './no-instruments.js';

interface Running {
  readonly url: string;
  readonly database: Database;
  readonly stop: () => Promise<void>;
}

async function startOn(databaseUrl: string): Promise<Running> {
  const database = await openPostgres(databaseUrl);
  await loadDemo(database, DEMO_NOW, false);
  const desk: StreamHub = streamHub();
  const app = createApp({
    database,
    hub: await shareMessages(desk, database),
    log: pino({ level: 'silent' }),
    instruments: await noInstruments(database),
    perMinute: { requests: 1e9, heavy: 1e9, signIn: 1e9 },
  });
  const server: Server = app.listen(0, '127.0.0.1');
  await once(server, 'listening');
  return {
    url: `http://127.0.0.1:${(server.address() as AddressInfo).port}`,
    database,
    stop: async () => {
      desk.closeAll();
      server.closeAllConnections();
      server.close();
      await database.close();
    },
  };
}

const post = (url: string, body: unknown): Promise<Response> =>
  fetch(url, { method: 'POST', headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) });

async function newCall(url: string): Promise<Call> {
  const entry = { title: 'Two', placeName: 'Yard', said: '', ambientC: 0, urgent: false };
  const answer = await post(`${url}/api/board`, { ...entry, id: randomUUID(), modelId: 'brinmoor-pella' });
  expect(answer.status).toBe(201);
  return (await answer.json()) as Call;
}

async function openJobOn(url: string): Promise<string> {
  const { id: callId, number: callNumber, modelId } = await newCall(url);
  const jobId = randomUUID();
  const data = { callId, callNumber, title: 'Two', placeName: 'Yard', modelId, ambientC: 0 };
  expect((await post(`${url}/api/jobs/${jobId}/events`, eventOf(jobId, 'job.opened', data))).status).toBe(
    201,
  );
  return jobId;
}

describe('two servers on one PostgreSQL database', () => {
  let databaseUrl: string;
  let one: Running;
  let other: Running;

  beforeAll(async () => {
    if (TEST_SERVER === null) return;
    databaseUrl = await newDatabaseUrl();
    // At once: one brings the database to this version and fills it, the other finds that done.
    [one, other] = await Promise.all([startOn(databaseUrl), startOn(databaseUrl)]);
  });
  afterAll(async () => {
    if (TEST_SERVER === null) return;
    await Promise.all([one.stop(), other.stop()]);
  });
  beforeEach(() => {
    if (TEST_SERVER === null) pending('there is no PostgreSQL server for these tests');
  });

  it('tell each other what their devices must hear', async () => {
    const stream = await new Promise<IncomingMessage>((done) => get(`${other.url}/api/stream`, done));
    const heard: StreamMessage[] = [];
    stream.on('data', (chunk: Buffer) => {
      for (const [, json] of chunk.toString().matchAll(/^data: (.*)$/gm))
        heard.push(JSON.parse(json!) as StreamMessage);
    });
    const jobId = await openJobOn(one.url);
    const event = eventOf(jobId, 'symptom.recorded', { symptom: 'silence' });
    await post(`${one.url}/api/jobs/${jobId}/events`, event);
    const isHeard = (): boolean =>
      heard.some((n) => n.kind === 'logged' && n.event.id === event.id && n.revision === 2) &&
      heard.some((n) => n.kind === 'board');
    await until(isHeard, 'what the other server was told');
    // Each once, in the order of the log.
    const logged = heard.flatMap((n) => (n.kind === 'logged' && n.event.jobId === jobId ? [n.revision] : []));
    expect(logged).toEqual([1, 2]);
    stream.destroy();
  });

  it('take events of one job and of others at once: each stands once, the log has no gap, and lists are as the logs say', async () => {
    const jobs = await Promise.all([one, one, other].map(({ url }) => openJobOn(url)));
    const sent = new Map<string, string[]>(jobs.map((id) => [id, []]));
    const answers = await Promise.all(
      Array.from({ length: 60 }, async (_, i) => {
        const jobId = jobs[i % jobs.length]!;
        const { url } = i % 2 ? one : other;
        const event = eventOf(jobId, 'symptom.recorded', { symptom: i % 3 ? 'silence' : 'one-click' });
        sent.get(jobId)!.push(event.id);
        return (await post(`${url}/api/jobs/${jobId}/events`, event)).status;
      }),
    );
    expect(answers.every((status) => status === 201))
      .withContext(answers.join())
      .toBeTrue();
    for (const jobId of jobs) {
      const { events } = (await (await fetch(`${other.url}/api/jobs/${jobId}`)).json()) as JobDetail;
      expect(
        events
          .slice(1)
          .map((e) => e.id)
          .sort(),
      ).toEqual([...sent.get(jobId)!].sort());
    }
    expect((await rebuild(one.database.db)).differed).toEqual([]);
  });

  it('refuse a database that a newer version wrote, and change nothing in it', async () => {
    const url = await newDatabaseUrl();
    await (await openPostgres(url)).close();
    const client = new pg.Client({ connectionString: url });
    await client.connect();
    const stamp = Date.now() + 365 * 86_400_000;
    await client.query(
      `INSERT INTO drizzle.__drizzle_migrations (hash, created_at) VALUES ('of-tomorrow', ${stamp})`,
    );
    await client.end();
    await expectAsync(openPostgres(url)).toBeRejectedWithError(ServerUnfitError, /newer version of Voltrek/);
  });

  it('give no two calls one number', async () => {
    const calls = await Promise.all(
      Array.from({ length: 24 }, (_, i) => newCall(i % 2 ? one.url : other.url)),
    );
    const numbers = calls.map(({ number }) => number);
    expect(new Set(numbers).size).toBe(24);
  });

  it('hold a house that was carried over from the embedded database, and give it back, row for row @long', async () => {
    const folder = await openInMemory(SNAPSHOT);
    await loadDemo(folder, DEMO_NOW, false);
    const server = await openPostgres(await newDatabaseUrl());
    const again = await openInMemory(SNAPSHOT);
    const pinHash = await hashOfPin('480263');
    const key = {
      id: 'key-1',
      crewId: 'crew-1',
      name: 'Van',
      publicKey: new Uint8Array([1, 0, 255]),
      counter: 3,
    };
    await folder.write(async (tx) => {
      await setPin(tx, 'crew-1', pinHash);
      await tx.insert(passkeys).values({ ...key, createdAt: DEMO_NOW, usedAt: null });
      await note(tx, 'crew-1', 'signed-in', 'crew-1');
      await setSignInRule(tx, true);
    });
    try {
      const there = await moveHouse(folder, server);
      expect(there.job_events).toBeGreaterThan(2000);
      await expectAsync(moveHouse(folder, server)).toBeRejectedWithError(
        HouseFileError,
        /works in this house already/,
      );
      expect(await moveHouse(server, again)).toEqual(there);
      // The door goes along, and through no file.
      for (const house of [server, again]) {
        expect(await isSignInRequired(house.db)).toBeTrue();
        expect(await provenByPin(house, 'crew-1', '480263')).toBe('crew-1');
        await expectAsync(provenByPin(house, 'crew-1', '480264')).toBeRejected();
        expect(await house.db.select().from(passkeys)).toEqual(await folder.db.select().from(passkeys));
        expect((await newestNotes(house.db)).filter(({ kind }) => kind === 'signed-in').length).toBe(1);
      }
      const path = join(await mkdtemp(join(tmpdir(), 'voltrek-')), 'house.ndjson');
      expect(await backUpAsFile(server, path)).toEqual(there);
      expect(await readFile(path, 'utf8')).not.toContain(pinHash);
    } finally {
      await Promise.all([folder, server, again].map((database) => database.close()));
    }
  });

  it('ask for patience while the database server ends their lines, and go on', async () => {
    const jobId = await openJobOn(one.url);
    const admin = new pg.Client({ connectionString: TEST_SERVER! });
    await admin.connect();
    const statuses = new Set<number>();
    const kept: string[] = [];
    for (let i = 0; i < 40; i++) {
      if (i % 8 === 0)
        await admin.query(`SELECT pg_terminate_backend(pid) FROM pg_stat_activity WHERE datname = $1`, [
          new URL(databaseUrl).pathname.slice(1),
        ]);
      const event = eventOf(jobId, 'symptom.recorded', { symptom: 'silence' });
      const { status } = await post(`${one.url}/api/jobs/${jobId}/events`, event);
      statuses.add(status);
      if (status === 201) kept.push(event.id);
    }
    await admin.end();
    expect([...statuses].filter((status) => status !== 201 && status !== 503)).toEqual([]);
    const { events } = (await (await fetch(`${other.url}/api/jobs/${jobId}`)).json()) as JobDetail;
    const ids = events.map((e) => e.id);
    expect(kept.filter((id) => !ids.includes(id))).toEqual([]);
    expect(kept.length).toBeGreaterThan(20);
    // The line between the servers is laid anew, if not at once. Whoever follows is let go then, since something may have been missed.
    const isHeardOfOther = async (): Promise<boolean> => {
      const stream = await new Promise<IncomingMessage>((done) => get(`${other.url}/api/stream`, done));
      let heard = '';
      stream.on('data', (chunk: Buffer) => (heard += chunk.toString()));
      const event = eventOf(jobId, 'symptom.recorded', { symptom: 'silence' });
      await post(`${one.url}/api/jobs/${jobId}/events`, event);
      await pause(400);
      stream.destroy();
      return heard.includes(event.id);
    };
    while (!(await isHeardOfOther()));
  });
});
