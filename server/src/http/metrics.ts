import type { Request, RequestHandler } from 'express';
import { collectDefaultMetrics, Counter, Gauge, Histogram, Registry } from 'prom-client';
import type { StreamHub } from './stream-hub.js';

/** Answers are counted by how long they took, up to these, seconds: a tap is felt from a tenth on. */
const SECONDS = [0.005, 0.01, 0.025, 0.05, 0.1, 0.25, 0.5, 1, 2.5, 10];

/** The state of the server from outside, in the text form of Prometheus. */
export interface Metrics {
  /** Times every request. */
  readonly watch: RequestHandler;
  /** Answers with all of it. */
  readonly tell: RequestHandler;
}

/**
 * Counts requests by route and status, events taken, and devices that listen. The process adds its memory and event loop. Nothing of it
 * names a person, a vehicle or a job: of a path it shows only the route.
 */
export function metricsOf(hub: StreamHub): Metrics {
  const register = new Registry();
  collectDefaultMetrics({ register, prefix: 'voltrek_' });
  const requests = new Histogram({
    name: 'voltrek_request_seconds',
    help: 'How long answers took, by method, route and status',
    labelNames: ['method', 'route', 'status'],
    buckets: SECONDS,
    registers: [register],
  });
  const events = new Counter({
    name: 'voltrek_events_total',
    help: 'Events that were taken into a log, by type',
    labelNames: ['type'],
    registers: [register],
  });
  hub.listen(({ type }) => events.inc({ type }));
  new Gauge({
    name: 'voltrek_streams',
    help: 'Devices that listen to the news',
    registers: [register],
    collect() {
      this.set(hub.watching());
    },
  });
  return {
    watch: (request, response, next) => {
      const end = requests.startTimer();
      response.on('finish', () => {
        end({ method: request.method, route: routeOf(request), status: String(response.statusCode) });
      });
      next();
    },
    tell: async (_request, response) => {
      response.type(register.contentType).send(await register.metrics());
    },
  };
}

/** The route that a request found, with its parameters by name; of one that found none nothing is kept, whatever it asked for. */
function routeOf({ route, originalUrl }: Request): string {
  const path = (route as { readonly path?: unknown } | undefined)?.path;
  if (typeof path !== 'string') return 'none';
  // A router forgets where it stands once a handler of it has thrown: the part of the address that led there is the same.
  return /^\/(api|metrics)/.test(path) ? path : `${originalUrl.split(/[/?]/).slice(0, 3).join('/')}${path}`;
}
