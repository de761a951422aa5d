import { spawn } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { once } from 'node:events';
import { mkdtempSync, rmSync } from 'node:fs';
import { open } from 'node:fs/promises';
import { Agent, get, request } from 'node:http';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { machineMs } from './machine-speed.mjs';
import { startPostgres } from './postgres.mjs';
import { freePort, ROOT } from './steps.mjs';

/** Technicians at work at once; each reports an event every two seconds, looks at the board every ten, and holds a stream. */
const CREWS = [1, 10, 100];
const EVENT_MS = 2_000;
const BOARD_MS = 10_000;
const SECONDS = 20;
/** How often a plain sync is timed beside them: no append is sooner on the disk. */
const SYNC_MS = 250;
/**
 * Writers that send the next event as soon as the last is answered, and single rows of a bare database: by turns, since a machine is not as
 * quick from one minute to the next. The median of the rounds counts.
 */
const WRITERS = 16;
const ROUNDS = 5;
const ROUND_SECONDS = 4;

const print = (name, text) => process.stdout.write(`${name.padEnd(34)} ${text}\n`);
const at = (times, share) => times[Math.min(times.length - 1, Math.floor(share * times.length))] ?? NaN;

/** The time of an append under load on both databases, its failures, and the share of the database's rate. */
export async function benchLoad() {
  print('this machine, a fixed piece of work', `${Math.round(machineMs())} ms`);
  await onDatabase('embedded', {});
  const postgres = await startPostgres();
  if (!postgres) {
    print('PostgreSQL', 'left out: it is not on this machine');
    return;
  }
  try {
    await onDatabase('PostgreSQL', { DATABASE_URL: postgres.url });
  } finally {
    postgres.stop();
  }
}

async function onDatabase(name, env) {
  const folder = mkdtempSync(join(tmpdir(), 'voltrek-load-'));
  const port = await freePort();
  const url = `http://127.0.0.1:${port}`;
  const server = spawn(process.execPath, [`${ROOT}/server/dist/src/main.js`, '--port', String(port)], {
    env: {
      ...process.env,
      ...env,
      VOLTREK_DATA: join(folder, 'data'),
      VOLTREK_LOG: 'silent',
      VOLTREK_PER_MINUTE: '100000000',
    },
  });
  try {
    await new Promise((ready) =>
      server.stdout.on('data', (text) => String(text).includes('is ready at') && ready()),
    );
    for (const crew of CREWS) {
      const { appends, boards, syncs, errors } = await atWork(url, crew, folder);
      const told = (times) =>
        `${at(times, 0.5).toFixed(0)} / ${at(times, 0.95).toFixed(0)} / ${at(times, 0.99).toFixed(0)} ms`;
      print(
        `${name}, ${crew} at work`,
        `append p50/p95/p99 ${told(appends)}, board ${told(boards)}, a plain sync ${told(syncs)}, ${errors} errors`,
      );
    }
    const rows = await rawRows(folder, env);
    const rounds = [];
    for (let i = 0; i < ROUNDS; i++) rounds.push([await flatOut(url), await rows.rate()]);
    await rows.close();
    const inOrder = (of) => rounds.map(of).sort((a, b) => a - b);
    const full = inOrder(([events]) => events);
    const raw = inOrder(([, singles]) => singles);
    const shares = inOrder(([events, singles]) => events / singles);
    print(`${name}, ${WRITERS} writers flat out`, `${at(full, 0.5).toFixed(0)} events a second`);
    print(`${name}, single rows by itself`, `${at(raw, 0.5).toFixed(0)} a second`);
    print(
      `${name}, the server gets of it`,
      `${at(shares, 0.5).toFixed(2)} (${shares[0].toFixed(2)} to ${shares.at(-1).toFixed(2)} in ${ROUNDS} rounds)`,
    );
  } finally {
    server.kill('SIGTERM');
    await once(server, 'exit');
    rmSync(folder, { recursive: true, force: true });
  }
}

/** A bare database, and its rows a second, each committed and on the disk, one after another. */
async function rawRows(folder, { DATABASE_URL }) {
  const load = (file) => import(`${ROOT}/server/dist/src/db/${file}.js`);
  const fail = (error) => {
    throw error;
  };
  const database = DATABASE_URL
    ? await (await load('postgres')).openPostgres(DATABASE_URL)
    : await (await load('database')).openDatabase(join(folder, 'raw'), fail);
  const client = database.db.$client;
  await client.query('CREATE TABLE bench_rows (id uuid PRIMARY KEY, detail jsonb)');
  return {
    rate: async () => {
      const until = performance.now() + ROUND_SECONDS * 1000;
      let rows = 0;
      for (; performance.now() < until; rows++)
        await client.query('INSERT INTO bench_rows VALUES ($1, $2)', [
          randomUUID(),
          JSON.stringify({ row: rows }),
        ]);
      return rows / ROUND_SECONDS;
    },
    close: async () => {
      await client.query('DROP TABLE bench_rows');
      await database.close();
    },
  };
}

/** Lines that stay open, as a browser's do. */
const agent = new Agent({ keepAlive: true });

/**
 * Asks as sparingly as it can: whoever asks shares the processors with the server that is measured. A kept connection that the server
 * closed in the moment of its use is no answer: it is asked anew, as a browser does. Rejects when a fresh line breaks.
 */
const ask = (url, method = 'GET', body) =>
  new Promise((resolve, reject) => {
    const sent = body && JSON.stringify(body);
    const headers = sent && { 'content-type': 'application/json', 'content-length': Buffer.byteLength(sent) };
    const asked = request(url, { agent, method, headers }, (response) => {
      const parts = [];
      response.on('data', (part) => parts.push(part));
      response.on('error', reject);
      response.on('end', () =>
        resolve({ ok: response.statusCode < 300, json: () => JSON.parse(Buffer.concat(parts)) }),
      );
    });
    asked.on('error', (error) =>
      asked.reusedSocket && error.code === 'ECONNRESET' ? resolve(ask(url, method, body)) : reject(error),
    );
    asked.end(sent);
  });
const post = (url, body) => ask(url, 'POST', body);

const eventOf = (jobId, type, data) => ({
  ...{ id: randomUUID(), jobId, by: 'crew-1', type, data },
  at: new Date().toISOString(),
});

async function newJob(url) {
  const entry = { title: 'Load', placeName: 'Yard', said: '', ambientC: 0, urgent: false };
  const answer = await post(`${url}/api/board`, { ...entry, id: randomUUID(), modelId: 'brinmoor-pella' });
  const { id: callId, number: callNumber, modelId } = answer.json();
  const jobId = randomUUID();
  const data = { callId, callNumber, title: 'Load', placeName: 'Yard', modelId, ambientC: 0 };
  await post(`${url}/api/jobs/${jobId}/events`, eventOf(jobId, 'job.opened', data));
  return jobId;
}

const symptom = (jobId) => eventOf(jobId, 'symptom.recorded', { symptom: 'silence' });

async function atWork(url, crew, folder) {
  const appends = [];
  const boards = [];
  const syncs = [];
  const file = await open(join(folder, 'sync'), 'w');
  let errors = 0;
  const timed = async (times, answered) => {
    const start = performance.now();
    try {
      const answer = await answered();
      if (!answer.ok) errors++;
    } catch {
      errors++;
    }
    times.push(performance.now() - start);
  };
  const streams = [];
  const jobs = [];
  for (let i = 0; i < crew; i++) {
    jobs.push(await newJob(url));
    streams.push(get(`${url}/api/stream`, (response) => response.resume()));
  }
  const until = performance.now() + SECONDS * 1000;
  const every = async (ms, first, task) => {
    await new Promise((done) => setTimeout(done, first));
    while (performance.now() < until) {
      const start = performance.now();
      await task();
      await new Promise((done) => setTimeout(done, Math.max(0, ms - (performance.now() - start))));
    }
  };
  const sync = every(SYNC_MS, 0, async () => {
    await file.write(Buffer.alloc(8192));
    const start = performance.now();
    await file.sync();
    syncs.push(performance.now() - start);
  });
  await Promise.all(
    jobs.flatMap((jobId) => [
      every(EVENT_MS, Math.random() * EVENT_MS, () =>
        timed(appends, () => post(`${url}/api/jobs/${jobId}/events`, symptom(jobId))),
      ),
      every(BOARD_MS, Math.random() * BOARD_MS, () => timed(boards, () => ask(`${url}/api/board`))),
    ]),
  );
  await sync;
  await file.close();
  for (const stream of streams) stream.destroy();
  for (const times of [appends, boards, syncs]) times.sort((a, b) => a - b);
  return { appends, boards, syncs, errors };
}

async function flatOut(url) {
  const jobs = await Promise.all(Array.from({ length: WRITERS }, () => newJob(url)));
  const until = performance.now() + ROUND_SECONDS * 1000;
  let events = 0;
  await Promise.all(
    jobs.map(async (jobId) => {
      while (performance.now() < until) {
        const answer = await post(`${url}/api/jobs/${jobId}/events`, symptom(jobId));
        if (answer.ok) events++;
      }
    }),
  );
  return events / ROUND_SECONDS;
}
