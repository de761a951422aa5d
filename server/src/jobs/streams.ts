import type { JobEvent } from '@voltrek/core/job';
import type { Response } from 'express';
import { watchers } from '../http/event-stream.js';

/** Open pages that watch a job, told of each event as it is acknowledged (server-sent events). */
export interface JobStreams {
  readonly watch: (jobId: string, response: Response) => void;
  readonly tell: (event: JobEvent, revision: number) => void;
  /** Told of every event of every job. */
  readonly listen: (listener: (event: JobEvent) => void) => void;
  readonly closeAll: () => void;
}

export function jobStreams(): JobStreams {
  const pages = watchers();
  const byJob = new Map<string, Set<Response>>();
  const listeners: ((event: JobEvent) => void)[] = [];
  return {
    watch: (jobId, response) => {
      const set = byJob.get(jobId) ?? new Set();
      byJob.set(jobId, set.add(response));
      pages.add(response, () => {
        set.delete(response);
        if (set.size === 0) byJob.delete(jobId);
      });
    },
    listen: (listener) => {
      listeners.push(listener);
    },
    tell: (event, revision) => {
      for (const listener of listeners) listener(event);
      for (const response of byJob.get(event.jobId) ?? []) {
        response.write(`id: ${event.id}\ndata: ${JSON.stringify({ event, revision })}\n\n`);
      }
    },
    closeAll: pages.closeAll,
  };
}
