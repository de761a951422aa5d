import type { Response } from 'express';

const HEARTBEAT_MS = 15_000;
/** Several changes of one moment are told as one. */
const GATHER_MS = 60;

/** Open boards, told that something on them changed (server-sent events); what it is they ask for themselves. */
export interface BoardStreams {
  readonly watch: (response: Response) => void;
  readonly changed: () => void;
  readonly closeAll: () => void;
}

export function boardStreams(): BoardStreams {
  const watchers = new Set<Response>();
  let soon: NodeJS.Timeout | undefined;
  const heartbeat = setInterval(() => {
    for (const response of watchers) response.write(': still here\n\n');
  }, HEARTBEAT_MS);
  heartbeat.unref();
  return {
    watch: (response) => {
      response.writeHead(200, {
        'Content-Type': 'text/event-stream',
        'Cache-Control': 'no-cache, no-transform',
        Connection: 'keep-alive',
      });
      response.write(': watching\n\n');
      watchers.add(response);
      response.on('close', () => watchers.delete(response));
    },
    changed: () => {
      soon ??= setTimeout(() => {
        soon = undefined;
        for (const response of watchers) response.write('data: changed\n\n');
      }, GATHER_MS);
      soon.unref();
    },
    closeAll: () => {
      clearInterval(heartbeat);
      clearTimeout(soon);
      for (const response of watchers) response.end();
    },
  };
}
