import {
  type CaptureEnd,
  type CaptureLine,
  CASE_READING,
  INSTRUMENTS,
  parseAddressChange,
  PROBES_PLACED,
} from '@voltrek/contracts';
import { type CaseReading, replay, voltsBetween } from '@voltrek/core/practice';
import { type Request, Router } from 'express';
import { requireLead } from '../crew/repository.js';
import type { Database } from '../db/database.js';
import { openStream } from '../http/event-stream.js';
import { HttpProblem, notFound } from '../http/problem.js';
import type { AddressBook } from './addresses.js';
import type { Bench } from './bench.js';
import { LinkError } from './scpi-link.js';
import { forecastAt, weatherAt } from './weather.js';
import { sendList } from '../http/list-page.js';
import { serve } from '../http/serve.js';

const CAPTURE_SECONDS = 12;

/** The parts that instruments need beside the bench itself. */
export interface InstrumentParts {
  readonly bench: Bench;
  readonly addresses: AddressBook;
  /** Base address of the weather service; null when none is set. */
  readonly weatherUrl: string | null;
  /** Puts stand-ins where they read; null for real instruments, which are where hands put them. */
  readonly place: StandInPlaces | null;
}

/** Puts the stand-ins where a hand would. */
export interface StandInPlaces {
  /** On a job's hidden truth. */
  readonly onJob: (jobId: string, check: string, battery: number, isTry: boolean) => Promise<void>;
  /** On a case of practice, as far as it has been worked. */
  readonly onCase: (reading: CaseReading) => void;
}

/** @throws HttpProblem 422 for a case that is none, impossible actions, or a place that the case does not have */
function requireCase({ code, actions, probes, around }: CaseReading): void {
  try {
    if ((probes === null) !== (around === null)) {
      const world = replay(code, actions);
      if (probes) voltsBetween(world, probes);
      return;
    }
  } catch (error) {
    if (!(error instanceof RangeError || error instanceof TypeError)) throw error;
  }
  throw new HttpProblem(422, 'noSuchCase');
}

export function instrumentRoutes(
  database: Database,
  { bench, addresses, weatherUrl, place }: InstrumentParts,
): Router {
  const router = Router();

  serve(router, 'GET /api/instruments', (request, response) => {
    sendList(request, response, bench.now(), ({ instrument }) => instrument);
  });

  serve(router, 'GET /api/instruments/stream', (request, response) => {
    openStream(response);
    const stop = bench.watch((now) => response.write(`data: ${JSON.stringify(now)}\n\n`));
    request.on('close', stop);
  });

  serve(router, 'GET /api/instruments/addresses', (_request, response) => {
    response.json(addresses.page());
  });

  serve(router, 'PUT /api/instruments/addresses/:instrument', async (request, response) => {
    const { address, by } = parseAddressChange(request.body);
    const instrument = INSTRUMENTS.find((one) => one === request.params.instrument);
    if (!instrument) throw notFound('instrument', request.params.instrument);
    if (bench.isBusy()) throw new HttpProblem(409, 'aCaptureIsUnderWay');
    const link = await database.write(async (tx) => {
      await requireLead(tx, by);
      return addresses.set(tx, instrument, address);
    });
    link();
    response.json(addresses.page());
  });

  serve(router, 'PUT /api/instruments/probes', async (request, response) => {
    const { jobId, check, battery } = PROBES_PLACED.validateSync(request.body, { abortEarly: false });
    await place?.onJob(jobId, check, battery, false);
    response.status(204).end();
  });

  serve(router, 'POST /api/instruments/readings', async (request, response) => {
    const reading = CASE_READING.validateSync(request.body, { abortEarly: false }) as CaseReading;
    requireCase(reading);
    if (bench.isBusy()) throw new HttpProblem(409, 'aCaptureIsUnderWay');
    place?.onCase(reading);
    try {
      response.json(await bench.read(reading.probes ? 'meter' : 'clamp'));
    } catch (error) {
      if (!(error instanceof LinkError)) throw error;
      throw new HttpProblem(503, 'theInstrumentDoesNotAnswer');
    }
  });

  serve(router, 'POST /api/instruments/capture', async (request, response) => {
    const { jobId } = PROBES_PLACED.pick(['jobId']).validateSync(request.body, { strict: true });
    response.writeHead(200, {
      'Content-Type': 'application/x-ndjson',
      'Cache-Control': 'no-cache, no-transform',
    });
    const say = (line: CaptureLine): boolean => response.write(`${JSON.stringify(line)}\n`);
    const end = (why: CaptureEnd): void => {
      say({ lost: why });
      response.end();
    };
    if (bench.isBusy()) {
      end('busy');
      return;
    }
    let isOpen = true;
    response.on('close', () => (isOpen = false));
    await place?.onJob(jobId, 'crank', 0, true);
    try {
      await bench.capture(
        CAPTURE_SECONDS,
        (part) => say({ part }),
        () => isOpen,
      );
      response.end();
    } catch (error) {
      if (!(error instanceof LinkError)) throw error;
      end(error.state);
    } finally {
      // The try is over: what the stand-ins show follows the log again.
      await place?.onJob(jobId, 'crank', 0, false);
    }
  });

  /** Asks the weather service about the place that a request names. @throws HttpProblem 422 without one, 404 without a service */
  const asked = ({ query: { place: named } }: Request, ask: typeof weatherAt | typeof forecastAt) => {
    if (typeof named !== 'string' || !named.trim() || named.length > 120)
      throw new HttpProblem(422, 'nameAPlace');
    if (!weatherUrl) throw new HttpProblem(404, 'noWeatherService');
    return ask(weatherUrl, named);
  };

  serve(router, 'GET /api/instruments/weather', async (request, response) => {
    response.json(await asked(request, weatherAt));
  });

  serve(router, 'GET /api/instruments/forecast', async (request, response) => {
    response.json(await asked(request, forecastAt));
  });

  return router;
}
