import type { Response } from 'express';

/** Comment lines keep a quiet stream open through proxies and show a dead one. */
const HEARTBEAT_MS = 15_000;

/** Begins an answer that stays open and tells of things as they happen (server-sent events). */
export function openStream(response: Response): void {
  response.writeHead(200, {
    'Content-Type': 'text/event-stream',
    'Cache-Control': 'no-cache, no-transform',
    Connection: 'keep-alive',
  });
}

/** Open pages that watch one thing; gone ones leave by themselves, quiet ones are kept open. */
export interface Watchers {
  /** @param onGone called when the page has left */
  readonly add: (response: Response, onGone?: () => void) => void;
  readonly all: ReadonlySet<Response>;
  readonly closeAll: () => void;
}

export function watchers(): Watchers {
  const all = new Set<Response>();
  const heartbeat = setInterval(() => {
    for (const response of all) response.write(': still here\n\n');
  }, HEARTBEAT_MS);
  heartbeat.unref();
  return {
    all,
    add: (response, onGone) => {
      openStream(response);
      response.write(': watching\n\n');
      all.add(response);
      response.on('close', () => {
        all.delete(response);
        onGone?.();
      });
    },
    closeAll: () => {
      clearInterval(heartbeat);
      for (const response of all) response.end();
    },
  };
}
