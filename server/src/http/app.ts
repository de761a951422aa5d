import { existsSync } from 'node:fs';
import compression from 'compression';
import cookieParser from 'cookie-parser';
import express, { type Express, type RequestHandler } from 'express';
import type { Logger } from 'pino';
import { type Options, pinoHttp } from 'pino-http';
import swaggerUi, { type SwaggerUiOptions } from 'swagger-ui-express';
import { atlasRoutes } from '../atlas/routes.js';
import { parseJobsWanted } from '@voltrek/contracts';
import { MINUTE_MS } from '@voltrek/core/quantities';
import type { BackupKeeper } from '../backup/keeper.js';
import { backupRoutes } from '../backup/routes.js';
import { batteryRoutes } from '../batteries/routes.js';
import { boardRoutes } from '../calls/routes.js';
import { crewRoutes } from '../crew/routes.js';
import type { Database } from '../db/database.js';
import { examRoutes } from '../exams/routes.js';
import { shiftRoutes } from '../shifts/routes.js';
import { fileRoutes } from '../files/routes.js';
import { devicePack } from '../house/device-pack.js';
import { houseRoutes } from '../house/routes.js';
import { followUpRoutes } from '../followups/routes.js';
import { type InstrumentParts, instrumentRoutes } from '../instruments/routes.js';
import { jobRoutes } from '../jobs/routes.js';
import { jobDetails } from '../jobs/service.js';
import { peopleRoutes } from '../people/routes.js';
import { ruleRoutes } from '../rules/routes.js';
import { signInRuleOf, guardRoutes } from '../sign-in/guard.js';
import { signInRoutes } from '../sign-in/routes.js';
import { vanRoutes } from '../vans/routes.js';
import { watchRoutes } from '../watch/routes.js';
import { vehicleRoutes } from '../vehicles/routes.js';
import { metricsOf } from './metrics.js';
import { fittingRequest } from './fitting-request.js';
import type { StreamHub } from './stream-hub.js';
import { plainInput } from './plain-input.js';
import { HEAVY_PER_MINUTE, pace, REQUESTS_PER_MINUTE, SIGN_INS_PER_MINUTE } from './pace.js';
import { openApi, writtenCaseSchema } from './openapi.js';
import { HttpProblem, nameRequest, notFound, problemHandler } from './problem.js';
import { isLocal, type Reach } from './reach.js';
import { serve } from './serve.js';
import { sameSite } from './same-site.js';
import { guardHeaders, serveWeb } from './web.js';

/** The names of this machine. */
const OWN_HOSTS: readonly string[] = ['127.0.0.1', 'localhost', '[::1]'];
/** The largest request there is: an event with a long ledger of evidence. */
const BODY_LIMIT = '64kb';

const USUAL_PACE = { requests: REQUESTS_PER_MINUTE, heavy: HEAVY_PER_MINUTE, signIn: SIGN_INS_PER_MINUTE };
/** Addresses that read or write the whole of something. */
const HEAVY = ['/api/backups', '/api/files/{*file}', '/api/models/preview', '/api/models/import'];

const READ_ONLY: SwaggerUiOptions = {
  customSiteTitle: 'Voltrek: its API',
  customfavIcon: '/favicon.svg',
  customCss: '.swagger-ui .topbar, .swagger-ui .scheme-container { display: none }',
  swaggerOptions: {
    url: '/api/openapi.json',
    supportedSubmitMethods: [],
    docExpansion: 'list',
    validatorUrl: null,
  },
};

/** A line of the log tells what was asked and what came of it: no names that were typed, no cookies, nothing of anybody. */
const LOGGED: Pick<Options, 'serializers'> = {
  serializers: {
    req: ({ id, method, url }: { id: unknown; method: string; url: string }) => ({
      id,
      method,
      path: url.split('?')[0],
    }),
    res: ({ statusCode }: { statusCode: number }) => ({ statusCode }),
  },
};

export interface AppParts {
  readonly database: Database;
  readonly hub: StreamHub;
  readonly log: Logger;
  readonly instruments: InstrumentParts;
  /** Left out where the data is in no folder. */
  readonly backups?: BackupKeeper;
  /** Folder of the built web application; left out where only the API is served. */
  readonly webFolder?: string;
  /** Requests that one address may send in a minute, of imports and backups, and to sign in; left out for the usual. */
  readonly perMinute?: { readonly requests: number; readonly heavy: number; readonly signIn: number };
  /** Names that the server answers for beside this machine's own. */
  readonly hosts?: readonly string[];
  /** Whether the house is reached from other machines; left out: it is not. */
  readonly reach?: Reach;
}

/** A house that nobody asks about. */
const UNREACHED: Reach = {
  isPublic: () => Promise.resolve(false),
  noteRequest: () => Promise.resolve(),
  stop: () => Promise.resolve(),
};

/** The whole server as an Express application, not yet listening. */
export function createApp(parts: AppParts): Express {
  const {
    database,
    hub,
    log,
    instruments,
    backups,
    webFolder,
    hosts = [],
    perMinute = USUAL_PACE,
    reach = UNREACHED,
  } = parts;
  const app = express();
  app.disable('x-powered-by');
  // A proxy on this machine tells who asks, and whether by TLS; no other is believed.
  app.set('trust proxy', 'loopback');
  app.use(nameRequest);
  // A failure is logged where it is answered.
  if (log.isLevelEnabled('debug')) app.use(pinoHttp({ logger: log, useLevel: 'debug', ...LOGGED }));
  app.use(guardHeaders());
  app.use(compressed());
  const metrics = metricsOf(hub);
  app.use(metrics.watch);
  app.use(sameSite([...OWN_HOSTS, ...hosts]));
  app.use('/api', pace(perMinute.requests));
  app.post(HEAVY, pace(perMinute.heavy));
  app.post('/api/sign-in/*rest', pace(perMinute.signIn));
  app.use(express.json({ limit: BODY_LIMIT }));
  app.use(plainInput);
  app.use(cookieParser());
  const signInRule = signInRuleOf(database);
  app.use('/api', guardRoutes(database, signInRule, reach));
  app.use('/api', fittingRequest);

  // First of all: every tap comes here.
  app.use(jobRoutes(database, hub));
  app.get('/metrics', async (request, response, next) => {
    await reach.noteRequest(request);
    const isOpen = !(await signInRule.isShut()) && !(await reach.isPublic());
    if (!isOpen && !isLocal(request)) throw new HttpProblem(401, 'signIn');
    await metrics.tell(request, response, next);
  });
  serve(app, 'GET /api/health', async (_request, response) => {
    await database.db.execute('select 1');
    const state = await backups?.state();
    const newest = state?.backups[0];
    response.json({
      status: 'ok',
      lastBackup: newest ? { at: newest.at, ageMinutes: minutesSince(newest.at) } : null,
      backupProblem: state?.problem ?? null,
    });
  });
  // Made when it is asked for: few do, and no start waits for it.
  serve(app, 'GET /api/openapi.json', (_request, response) => {
    response.json(openApi());
  });
  // To read, not to try: what is sent here goes into the house's log.
  app.use('/api/docs', swaggerUi.serve, swaggerUi.setup(undefined, READ_ONLY));
  serve(app, 'GET /api/stream', (_request, response) => {
    hub.watch(response);
  });
  serve(app, 'GET /api/device', async (_request, response) => {
    response.json(await devicePack(database.db));
  });
  serve(app, 'POST /api/device/jobs', async (request, response) => {
    response.json(await jobDetails(database, parseJobsWanted(request.body)));
  });
  app.use(boardRoutes(database, hub));
  app.use(signInRoutes({ database, rule: signInRule, hub, reach }));
  app.use(houseRoutes(database));
  app.use(crewRoutes(database, hub));
  app.use(vanRoutes(database));
  app.use(vehicleRoutes(database));
  app.use(peopleRoutes(database));
  app.use(atlasRoutes(database, hub));
  app.use(batteryRoutes(database));
  serve(app, 'GET /api/practice/schema.json', (_request, response) => {
    response.json(writtenCaseSchema());
  });
  app.use(examRoutes(database));
  app.use(shiftRoutes(database));
  app.use(ruleRoutes(database));
  if (backups) app.use(backupRoutes(database, backups));
  app.use(fileRoutes(database, hub));
  app.use(followUpRoutes(database));
  app.use(watchRoutes(database));
  app.use(instrumentRoutes(database, instruments));
  app.use('/api', (request) => {
    throw notFound('route', `${request.method} ${request.originalUrl.split('?')[0]}`);
  });
  if (webFolder && existsSync(webFolder)) serveWeb(app, webFolder);
  app.use((request) => {
    throw notFound('route', `${request.method} ${request.path}`);
  });
  app.use(problemHandler(log));
  return app;
}

/** Packs what is answered. A tap is answered with less than is worth packing, and each would pay for the looking. */
function compressed(): RequestHandler {
  const pack = compression({
    filter: (q, r) => !/\/(stream|capture)$/.test(q.path) && compression.filter(q, r),
  });
  return (request, response, next) => {
    if (request.method === 'POST' && TAP.test(request.path)) next();
    else pack(request, response, next);
  };
}

const TAP = /^\/api\/jobs\/[^/]+\/events$/;

const minutesSince = (at: string): number => Math.round((Date.now() - Date.parse(at)) / MINUTE_MS);
