import type { Response } from 'express';

/** Begins an answer that stays open and tells of things as they happen (server-sent events). */
export function openStream(response: Response): void {
  response.writeHead(200, {
    'Content-Type': 'text/event-stream',
    'Cache-Control': 'no-cache, no-transform',
    Connection: 'keep-alive',
  });
}
