import type { JobEvent } from '@voltrek/core/job';
import type { Response } from 'express';

/** Comment lines keep a quiet stream open through proxies and show a dead one. */
const HEARTBEAT_MS = 15_000;

/** Open pages that watch a job, told of each event as it is acknowledged (server-sent events). */
export interface JobStreams {
  readonly watch: (jobId: string, response: Response) => void;
  readonly tell: (event: JobEvent, revision: number) => void;
  /** Told of every event of every job. */
  readonly listen: (listener: (event: JobEvent) => void) => void;
  readonly closeAll: () => void;
}

export function jobStreams(): JobStreams {
  const watchers = new Map<string, Set<Response>>();
  const listeners: ((event: JobEvent) => void)[] = [];
  const heartbeat = setInterval(() => {
    for (const set of watchers.values()) for (const response of set) response.write(': still here\n\n');
  }, HEARTBEAT_MS);
  heartbeat.unref();
  return {
    watch: (jobId, response) => {
      response.writeHead(200, {
        'Content-Type': 'text/event-stream',
        'Cache-Control': 'no-cache, no-transform',
        Connection: 'keep-alive',
      });
      response.write(': watching\n\n');
      const set = watchers.get(jobId) ?? new Set();
      watchers.set(jobId, set.add(response));
      response.on('close', () => {
        set.delete(response);
        if (set.size === 0) watchers.delete(jobId);
      });
    },
    listen: (listener) => {
      listeners.push(listener);
    },
    tell: (event, revision) => {
      for (const listener of listeners) listener(event);
      for (const response of watchers.get(event.jobId) ?? []) {
        response.write(`id: ${event.id}\ndata: ${JSON.stringify({ event, revision })}\n\n`);
      }
    },
    closeAll: () => {
      clearInterval(heartbeat);
      for (const set of watchers.values()) for (const response of set) response.end();
    },
  };
}
