import { createServer, type RequestListener, type Server } from 'node:http';
import { hostname } from 'node:os';
import { resolve } from 'node:path';
import { fileURLToPath } from 'node:url';
import { parseArgs } from 'node:util';
import { type Problem, PROBLEM_TYPE, problemType } from '@voltrek/contracts';
import { ANSWERS } from '@voltrek/contracts/words';
import { pino } from 'pino';
import { keepBackups } from './backup/keeper.js';
import { FolderUnfitError } from './db/embedded/folder.js';
import { FolderHeldError } from './db/embedded/lock.js';
import { type Database, openDatabase } from './db/database.js';
import { openPostgres, ServerUnfitError } from './db/postgres.js';
import { loadDemo } from './demo/load.js';
import { placeOnTruth, startStandIns } from './demo/stand-ins.js';
import { createApp } from './http/app.js';
import { reachOf } from './http/reach.js';
import { isLoopback } from './http/same-site.js';
import { type Networks, networksOf, openAddressBook } from './instruments/addresses.js';
import { type Addresses, openBench } from './instruments/bench.js';
import type { InstrumentParts } from './instruments/routes.js';
import { parseAddress } from './instruments/scpi-link.js';
import { snapshotOldLogs } from './jobs/rebuild.js';
import { streamHub, type StreamHub } from './http/stream-hub.js';
import { shareMessages } from './http/messages-of-others.js';
import { isSignInRequired } from './sign-in/secrets.js';

const HOST = '127.0.0.1';
const DEFAULT_PORT = 4820;
/** A stop lets requests finish this long, and takes this long at most, ms. */
const CLOSE_MS = 1500;
const EXIT_MS = 4500;
/** A slower sender is not waited for: its heads, and all of it, the largest import included, ms. */
const HEADERS_MS = 15_000;
const REQUEST_MS = 180_000;
/**
 * An idle connection stays open longer than a client keeps one, ms. A request that is sent in the moment of closing fails, and nobody knows
 * whether it was taken.
 */
const IDLE_MS = 75_000;
/** For a browser that comes while the server starts: it needs no script, and asks again each second. */
const STARTING_PAGE = `<!doctype html>
<html lang="en">
  <head>
    <meta charset="utf-8" />
    <meta http-equiv="refresh" content="1" />
    <meta name="viewport" content="width=device-width" />
    <meta name="color-scheme" content="light dark" />
    <title>Voltrek starts</title>
  </head>
  <body style="font: 20px sans-serif; margin: 3em">
    <h1>Voltrek starts</h1>
    <p>This page tries again by itself.</p>
  </body>
</html>
`;
const WEB_FOLDER = fileURLToPath(new URL('../../../web/dist/browser', import.meta.url));

interface Options {
  readonly host: string;
  readonly port: number;
  readonly folder: string;
  /** A PostgreSQL server in the place of the embedded database. */
  readonly url: string | null;
  readonly empty: boolean;
  /** The name of this server beside others on the same database. */
  readonly name: string;
  /** Networks that an instrument may be in. */
  readonly networks: Networks;
}

function readOptions(): Options {
  const { values } = parseArgs({
    options: {
      host: { type: 'string', default: HOST },
      port: { type: 'string' },
      empty: { type: 'boolean', default: false },
    },
  });
  const port = Number(values.port ?? DEFAULT_PORT);
  if (!Number.isInteger(port) || port < 1 || port > 65535) fail('--port takes a number from 1 to 65535.');
  return {
    host: values.host,
    port,
    folder: resolve(process.env.VOLTREK_DATA ?? '.voltrek'),
    url: process.env.DATABASE_URL ?? null,
    empty: values.empty,
    name: process.env.VOLTREK_NAME ?? hostname(),
    networks: readNetworks(),
  };
}

function readNetworks(): Networks {
  try {
    return networksOf(process.env.VOLTREK_INSTRUMENT_NETWORKS);
  } catch (error) {
    if (error instanceof RangeError) fail(`VOLTREK_INSTRUMENT_NETWORKS: ${error.message}.`);
    throw error;
  }
}

function fail(message: string): never {
  process.stderr.write(`${message}\n`);
  process.exit(1);
}

const STARTING: Problem = {
  ...{ type: problemType('starting'), title: 'Service Unavailable', status: 503 },
  ...{ code: 'starting', detail: ANSWERS.starting },
};

const stillStarting: RequestListener = ({ headers }, response) => {
  // A browser gets a page that tries again; a program gets a problem document.
  if (headers.accept?.includes('text/html')) {
    response.writeHead(503, { 'Content-Type': 'text/html; charset=utf-8', 'Retry-After': '1' });
    response.end(STARTING_PAGE);
    return;
  }
  response.writeHead(503, { 'Content-Type': PROBLEM_TYPE, 'Retry-After': '1' });
  response.end(JSON.stringify(STARTING));
};

async function listen(server: Server, host: string, port: number): Promise<void> {
  await new Promise<void>((done, failed) => {
    server.once('error', failed);
    server.listen(port, host, done);
  });
}

async function main(): Promise<void> {
  const options = readOptions();
  const { host, port, folder, url, empty } = options;
  const log = pino({ level: process.env.VOLTREK_LOG ?? 'info' });
  // Take the port before the data: a busy port must not touch the folder.
  let handler: RequestListener = stillStarting;
  const server = createServer(
    { headersTimeout: HEADERS_MS, requestTimeout: REQUEST_MS, keepAliveTimeout: IDLE_MS },
    (request, response) => handler(request, response),
  );
  await listen(server, host, port).catch((error: unknown) => {
    const isBusy = error instanceof Error && 'code' in error && error.code === 'EADDRINUSE';
    fail(
      isBusy
        ? `Port ${port} is in use. Choose another with: npm start -- --port N`
        : `Cannot listen on ${host}, port ${port}: ${String(error)}`,
    );
  });
  const database = await (url === null ? openFolder(folder) : openServer(url));
  const hosts = (process.env.VOLTREK_HOSTS ?? '')
    .toLowerCase()
    .split(',')
    .map((named) => named.trim())
    .filter(Boolean);
  const isListeningOutside = !isLoopback(host);
  if (isListeningOutside && !(await isSignInRequired(database.db))) {
    await database.close();
    fail(
      `Sign-in is not set up, so this server answers this machine only. Start it without --host, require sign-in under Kit, Sign-in, then start it with --host ${host}.`,
    );
  }
  await loadDemo(database, new Date(), empty);
  const folded = await snapshotOldLogs(database.db);
  if (folded > 0) log.info(`made lists and records of ${folded} jobs of an earlier version`);
  const hub = await shareMessages(streamHub(), database);
  const { instruments, stop } = await linkInstruments(database, hub, options, log.warn.bind(log));
  const reach = await reachOf(database, `${options.name}:${port}`, isListeningOutside || hosts.length > 0);
  if (isListeningOutside) hosts.push(host.toLowerCase());
  // The files of a database server are kept by whoever keeps that server.
  const backups = url === null ? keepBackups(folder, database, log.error.bind(log)) : null;
  const own = Number(process.env.VOLTREK_PER_MINUTE);
  const perMinute = own > 0 ? { requests: own, heavy: own, signIn: own } : undefined;
  handler = createApp({
    ...{ database, hub, log, instruments, webFolder: WEB_FOLDER, hosts, reach },
    ...(backups && { backups }),
    ...(perMinute && { perMinute }),
  });
  stopOrderly(
    server,
    database,
    () => {
      hub.closeAll();
      backups?.stop();
      stop();
      return reach.stop();
    },
    log.info.bind(log),
  );
  process.stdout.write(`Voltrek is ready at http://${host}:${port}\n`);
}

const openFolder = (folder: string): Promise<Database> =>
  openDatabase(folder, (error) => {
    // At once: whatever is answered after this could be a promise that the disk does not keep.
    fail(
      `The data folder ${folder} can no longer be written safely (${error.message}). Voltrek stops; what was saved before stands.`,
    );
  }).catch((error: unknown) => {
    if (error instanceof FolderHeldError || error instanceof FolderUnfitError) fail(error.message);
    throw error;
  });

const openServer = (url: string): Promise<Database> =>
  openPostgres(url).catch((error: unknown) => {
    if (error instanceof ServerUnfitError) fail(error.message);
    throw error;
  });

/** Instruments at the addresses that are set. Where the settings of the server name none, the demo brings stand-ins; without the demo nothing is linked. */
async function linkInstruments(
  database: Database,
  hub: StreamHub,
  { empty, name, networks }: Options,
  warn: (text: string) => void,
): Promise<{ instruments: InstrumentParts; stop: () => void }> {
  const { VOLTREK_METER, VOLTREK_CLAMP, VOLTREK_TESTER, VOLTREK_WEATHER } = process.env;
  const named = Object.entries({
    meter: VOLTREK_METER,
    clamp: VOLTREK_CLAMP,
    tester: VOLTREK_TESTER,
  }).flatMap(([kind, text]) => (text ? [[kind, parseAddress(text)]] : []));
  const fixed = Object.fromEntries(named) as Addresses;
  const isReal = named.length > 0 || VOLTREK_WEATHER !== undefined;
  const played = isReal || empty ? null : await startStandIns(warn);
  const at = (port: number) => ({ host: HOST, port, isStandIn: true });
  const standIns: Addresses = played
    ? { meter: at(played.ports.meter), clamp: at(played.ports.clamp), tester: at(played.ports.tester) }
    : {};
  const bench = openBench();
  const addresses = await openAddressBook(database.db, bench, { server: name, networks, fixed, standIns });
  return {
    instruments: {
      ...{ bench, addresses },
      weatherUrl: played ? `http://${HOST}:${played.ports.weather}` : (VOLTREK_WEATHER ?? null),
      place: played && placeOnTruth(database, hub, bench),
    },
    stop: () => {
      bench.close();
      played?.stop();
    },
  };
}

function stopOrderly(
  server: Server,
  database: Database,
  closeParts: () => Promise<void>,
  say: (text: string) => void,
): void {
  let stopping = false;
  const stop = (signal: string): void => {
    if (stopping) return;
    stopping = true;
    say(`${signal}: finishing what is under way, then stopping`);
    const partsClosed = closeParts();
    const end = (): void => {
      void partsClosed.then(() => database.close()).then(() => process.exit(0));
    };
    server.close(end);
    server.closeIdleConnections();
    // A client that still holds a line open is cut off: acknowledged taps are kept, the rest is sent again.
    setTimeout(() => server.closeAllConnections(), CLOSE_MS).unref();
    setTimeout(() => process.exit(0), EXIT_MS).unref();
  };
  process.on('SIGTERM', () => stop('SIGTERM'));
  process.on('SIGINT', () => stop('SIGINT'));
}

await main();
