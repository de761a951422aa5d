import { mkdtempSync, rmSync } from 'node:fs';
import { createServer } from 'node:http';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { randomUUID } from 'node:crypto';

const DIST = new URL('../server/dist/src/', import.meta.url).href;
const load = (name) => import(`${DIST}${name}`);

/**
 * Rounds of each measurement; API and raw SQL take turns, so that a machine that slows down slows both. Both come over HTTP: the raw one
 * from a bare server that sends the rows of a hand-written query.
 */
const ROUNDS = 41;
/** Rounds before it, so that neither is measured while the engine still learns its code. */
const WARMING = 25;
const print = (name, text) => process.stdout.write(`${name.padEnd(34)} ${text}\n`);
const middle = (times) => times.sort((a, b) => a - b)[Math.floor(times.length / 2)];
async function timed(task) {
  const start = performance.now();
  await task();
  return performance.now() - start;
}

/**
 * Fills a data folder with that many past jobs, each at a vehicle of its own. Prints the cost of the lists and of an append: the API over
 * HTTP, the same rows by hand-written SQL, and the ratio.
 */
export async function benchStore(jobs) {
  const { openDatabase } = await load('db/database.js');
  const { loadDemo } = await load('demo/load.js');
  const folder = mkdtempSync(join(tmpdir(), 'voltrek-bench-'));
  const database = await openDatabase(folder, (error) => {
    throw error;
  });
  const client = database.db.$client;
  try {
    await loadDemo(database, new Date(), false);
    const seconds = (await timed(() => fill(client, jobs))) / 1000;
    const { rows } = await client.query('SELECT count(*)::int AS n FROM job_events');
    print('filled', `${jobs} jobs, ${rows[0].n} events, in ${seconds.toFixed(0)} s`);
    const server = await serve(database);
    const url = `http://127.0.0.1:${server.address().port}`;
    await lists(url, client);
    await appends(url);
    await imports(url);
    server.closeAllConnections();
    await new Promise((done) => server.close(done));
  } finally {
    await database.close();
    rmSync(folder, { recursive: true, force: true });
  }
}

async function serve(database) {
  const [{ createApp }, { streamHub }, { openBench }, { networksOf, openAddressBook }, { pino }] =
    await Promise.all([
      load('http/app.js'),
      load('http/stream-hub.js'),
      load('instruments/bench.js'),
      load('instruments/addresses.js'),
      import('pino'),
    ]);
  const bench = openBench();
  const none = { server: 'bench', networks: networksOf(undefined), fixed: {}, standIns: {} };
  const app = createApp({
    database,
    hub: streamHub(),
    log: pino({ level: 'silent' }),
    instruments: {
      ...{ bench, addresses: await openAddressBook(database.db, bench, none) },
      ...{ weatherUrl: null, place: null },
    },
  });
  const server = createServer(app);
  await new Promise((done) => server.listen(0, '127.0.0.1', done));
  return server;
}

/** Copies of the demo's past jobs: one vehicle to twenty jobs, two minutes apart into the past. */
async function fill(client, jobs) {
  const vehicles = Math.max(1, Math.round(jobs / 20));
  const columns = async (table, but) => {
    const { rows } = await client.query(
      `SELECT column_name AS name FROM information_schema.columns WHERE table_name = $1 ORDER BY ordinal_position`,
      [table],
    );
    return rows.map((r) => r.name).filter((name) => !but.includes(name));
  };
  const copy = async (table, made, from) => {
    const kept = await columns(table, [...Object.keys(made), 'position']);
    const names = [...Object.keys(made), ...kept].map((n) => `"${n}"`).join(', ');
    const values = [...Object.values(made), ...kept.map((n) => `t."${n}"`)].join(', ');
    await client.query(`INSERT INTO ${table} (${names}) SELECT ${values} ${from}`);
  };
  await client.query(`
    CREATE TEMP TABLE vt AS SELECT *, row_number() OVER (ORDER BY id) - 1 AS r FROM vehicles;
    CREATE TEMP TABLE jt AS SELECT *, row_number() OVER (ORDER BY id) - 1 AS r FROM jobs WHERE state = 'closed';
  `);
  const count = async (table) => (await client.query(`SELECT count(*)::int AS n FROM ${table}`)).rows[0].n;
  const [ofVehicles, ofJobs] = [await count('vt'), await count('jt')];
  const plate = `'QX' || lpad(n::text, 6, '0')`;
  await copy(
    'vehicles',
    {
      id: `'v' || n`,
      plate,
      plate_key: plate,
      search_text: `lower(${plate}) || ' ' || t.search_text`,
    },
    `FROM generate_series(1, ${vehicles}) n JOIN vt t ON t.r = n % ${ofVehicles}`,
  );
  await copy(
    'batteries',
    { id: `md5('b' || n)::uuid`, code: `'N' || n`, vehicle_id: `'v' || n`, van_id: 'NULL' },
    `FROM generate_series(1, ${vehicles}) n JOIN LATERAL (SELECT * FROM batteries LIMIT 1) t ON true`,
  );
  const jobsFrom = `FROM generate_series(1, ${jobs}) n JOIN jt j ON j.r = n % ${ofJobs}`;
  const vehicle = `'v' || (1 + n % ${vehicles})`;
  const past = `n * interval '2 minutes'`;
  await copy(
    'calls',
    {
      id: `'n' || n`,
      number: '100000 + n',
      vehicle_id: vehicle,
      received_at: `t.received_at - ${past}`,
      ended_at: `t.ended_at - ${past}`,
    },
    `${jobsFrom} JOIN calls t ON t.id = j.call_id`,
  );
  await copy(
    'jobs',
    {
      id: `md5('j' || n)::uuid`,
      call_id: `'n' || n`,
      call_number: '100000 + n',
      vehicle_id: vehicle,
      opened_at: `t.opened_at - ${past}`,
      closed_at: `t.closed_at - ${past}`,
    },
    `${jobsFrom} JOIN jobs t ON t.id = j.id`,
  );
  // A position is part of an event, and a counter elsewhere.
  await copy(
    'job_events',
    { id: `md5('e' || n || '-' || t.position)::uuid`, job_id: `md5('j' || n)::uuid`, position: 't.position' },
    `${jobsFrom} JOIN job_events t ON t.job_id = j.id`,
  );
  // Of what was promised long ago, one in fifty was never ticked off.
  await copy(
    'follow_ups',
    { job_id: `md5('j' || n)::uuid`, done: `n % 50 <> 0` },
    `${jobsFrom} JOIN follow_ups t ON t.job_id = j.id`,
  );
  await copy(
    'battery_entries',
    {
      battery_id: `md5('b' || (1 + n % ${vehicles}))::uuid`,
      job_id: `md5('j' || n)::uuid`,
      at: `t.at - ${past}`,
    },
    `${jobsFrom} JOIN battery_entries t ON t.job_id = j.id`,
  );
  await client.query('ANALYZE');
}

const SUMMARY = `id, call_id, call_number, title, place_name, model_id, vehicle_id, van_id, stage, state, verdict, suspect,
  lowest_rest_volts, opened_at, closed_at, by, revision`;
const NEWEST = `SELECT ${SUMMARY} FROM jobs WHERE state = 'closed'`;
const ORDER = `ORDER BY closed_at DESC NULLS LAST, id LIMIT 51`;

async function lists(url, client) {
  const { rows } = await client.query(
    `SELECT id, closed_at FROM jobs WHERE state = 'closed' ORDER BY closed_at DESC NULLS LAST, id
       OFFSET (SELECT count(*) / 2 FROM jobs) LIMIT 1`,
  );
  const deep = `${rows[0].closed_at.toISOString()}_${rows[0].id}`;
  const battery = (await client.query(`SELECT md5('b7')::uuid AS id`)).rows[0].id;
  const measured = [
    [
      'board',
      '/api/board',
      `SELECT c.*, v.plate, v.fleet_number, p.name, p.phone, j.id AS job_id, j.stage, j.state AS job_state, j.verdict, j.opened_at, j.closed_at
         FROM calls c JOIN vehicles v ON v.id = c.vehicle_id
         LEFT JOIN jobs j ON j.call_id = c.id LEFT JOIN people p ON p.id = c.caller_id
         WHERE c.state IN ('waiting', 'taken') OR (c.state IN ('done', 'called-off') AND c.ended_at > now() - interval '12 hours')`,
    ],
    ['log, newest 50', '/api/jobs', `${NEWEST} ${ORDER}`],
    [
      'log, a page half way down',
      `/api/jobs?after=${encodeURIComponent(deep)}`,
      `${NEWEST} AND (closed_at < '${rows[0].closed_at.toISOString()}') ${ORDER}`,
    ],
    ['log by a common word', '/api/jobs?q=lane', `${NEWEST} AND search_text ILIKE '%lane%' ${ORDER}`],
    [
      'log by two words',
      '/api/jobs?q=lane+harbour',
      `${NEWEST} AND search_text ILIKE '%lane%' AND search_text ILIKE '%harbour%' ${ORDER}`,
    ],
    [
      'log by plate',
      '/api/jobs?q=QX+000007',
      `${NEWEST} AND vehicle_id IN (SELECT id FROM vehicles WHERE plate_key = 'QX000007') ${ORDER}`,
    ],
    [
      'vehicles by plate',
      '/api/vehicles?q=QX000007',
      `SELECT v.*, m.model FROM vehicles v JOIN models m ON m.id = v.model_id WHERE plate_key = 'QX000007'`,
    ],
    [
      'follow-ups',
      '/api/follow-ups',
      `SELECT j.id, call_number, title, place_name, kind, due_on FROM follow_ups f JOIN jobs j ON j.id = f.job_id
         WHERE NOT done AND due_on >= current_date - 30 ORDER BY due_on, call_number`,
    ],
    [
      'battery record',
      `/api/batteries/${battery}`,
      [
        `SELECT b.*, v.plate, m.detail FROM batteries b LEFT JOIN vehicles v ON v.id = b.vehicle_id
           LEFT JOIN models m ON m.id = v.model_id WHERE b.id = '${battery}'`,
        `SELECT * FROM battery_entries WHERE battery_id = '${battery}' ORDER BY at`,
        `SELECT * FROM battery_moves WHERE battery_id = '${battery}' ORDER BY position`,
        `SELECT DISTINCT ON (key) key, value FROM rule_settings ORDER BY key, at DESC`,
      ],
    ],
    [
      'atlas search',
      '/api/models?q=pella',
      `SELECT id, detail FROM models WHERE 'pella' <% search_text LIMIT 20`,
    ],
  ];
  const bare = createServer(async (request, response) => {
    const found = [];
    for (const sql of [measured[Number(request.url.slice(1))][2]].flat())
      found.push((await client.query(sql)).rows);
    response.end(JSON.stringify(found));
  });
  await new Promise((done) => bare.listen(0, '127.0.0.1', done));
  for (const [at, [name, path]] of measured.entries()) {
    const ask = (from) => async () => {
      const response = await fetch(from);
      if (!response.ok) throw new Error(`${from}: ${response.status} ${await response.text()}`);
      await response.json();
    };
    const api = ask(`${url}${path}`);
    const raw = ask(`http://127.0.0.1:${bare.address().port}/${at}`);
    for (let i = 0; i < WARMING; i++) {
      await api();
      await raw();
    }
    const both = [];
    for (let i = 0; i < ROUNDS; i++) both.push([await timed(api), await timed(raw)]);
    const [ours, hand] = [0, 1].map((k) => middle(both.map((b) => b[k])));
    const ratio = middle(both.map(([a, b]) => a / b));
    print(name, `${ours.toFixed(1)} ms; raw SQL ${hand.toFixed(1)} ms; ratio ${ratio.toFixed(1)}`);
  }
  bare.closeAllConnections();
  await new Promise((done) => bare.close(done));
}

/** The cost of reading, comparing and importing an atlas of that size, and the longest wait of a tap meanwhile. */
const MODELS = 5_000;

async function imports(url) {
  const atlas = await (await fetch(`${url}/api/models/export.json`)).json();
  const machines = Array.from({ length: MODELS }, (_, i) => {
    const machine = atlas.machines[i % atlas.machines.length];
    return { ...machine, id: `bench-${i}`, model: `${machine.model} ${i}` };
  });
  const file = new Blob([JSON.stringify({ ...atlas, machines })]);
  const [crew] = await (await fetch(`${url}/api/crew`)).json();
  const send = async (path, fields) => {
    const form = new FormData();
    for (const [name, value] of Object.entries(fields)) form.append(name, value);
    form.append('file', file, 'atlas.json');
    const waits = [];
    let isDone = false;
    const tapping = (async () => {
      while (!isDone) waits.push(await timed(async () => (await fetch(`${url}/api/board`)).text()));
    })();
    const began = performance.now();
    const response = await fetch(`${url}${path}`, { method: 'POST', body: form });
    const report = await response.json();
    if (!response.ok) throw new Error(`${path}: ${response.status} ${JSON.stringify(report)}`);
    const took = performance.now() - began;
    isDone = true;
    await tapping;
    print(
      `${path}, ${MODELS} models`,
      `${(took / 1000).toFixed(1)} s; a tap meanwhile waits ${middle([...waits]).toFixed(0)} ms, ${Math.max(...waits).toFixed(0)} ms at the most`,
    );
    return report;
  };
  const { basis } = await send('/api/models/preview', {});
  await send('/api/models/import', { by: crew.id, basis: String(basis) });
}

const SCENE = { place: 'yard', sloping: false, dark: true, enclosed: false, mainsNear: false };

/** The cost of a tap as the log of its job grows. */
async function appends(url) {
  const send = async (path, body) => {
    const response = await fetch(`${url}${path}`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(body),
    });
    if (!response.ok) throw new Error(`${path}: ${response.status} ${await response.text()}`);
    return response.json();
  };
  const board = await (await fetch(`${url}/api/board`)).json();
  const call = board.find((c) => c.state === 'waiting');
  const [crew] = await (await fetch(`${url}/api/crew`)).json();
  const jobId = randomUUID();
  const event = (type, data) => ({
    id: randomUUID(),
    jobId,
    at: new Date().toISOString(),
    by: crew.id,
    type,
    data,
  });
  await send(`/api/jobs/${jobId}/events`, event('job.opened', openingOf(call)));
  let sent = 1;
  for (const upTo of [50, 500, 2000]) {
    const times = [];
    while (sent < upTo) {
      times.push(
        await timed(() =>
          send(
            `/api/jobs/${jobId}/events`,
            event('scene.recorded', { ...SCENE, ambientC: (sent % 20) - 10 }),
          ),
        ),
      );
      sent += 1;
    }
    print(`append at event ${upTo}`, `${middle(times.slice(-45)).toFixed(1)} ms`);
  }
}

function openingOf(call) {
  const { id: callId, number: callNumber, title, placeName, modelId, vehicleId, ambientC } = call;
  return { callId, callNumber, title, placeName, modelId, vehicleId, vanId: call.vanId ?? 'van-1', ambientC };
}
