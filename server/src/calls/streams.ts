import type { Response } from 'express';
import { watchers } from '../http/event-stream.js';

/** Several changes of one moment are told as one. */
const GATHER_MS = 60;

/** Open boards, told that something on them changed (server-sent events); what it is they ask for themselves. */
export interface BoardStreams {
  readonly watch: (response: Response) => void;
  readonly changed: () => void;
  readonly closeAll: () => void;
}

export function boardStreams(): BoardStreams {
  const boards = watchers();
  let soon: NodeJS.Timeout | undefined;
  return {
    watch: (response) => {
      boards.add(response);
    },
    changed: () => {
      soon ??= setTimeout(() => {
        soon = undefined;
        for (const response of boards.all) response.write('data: changed\n\n');
      }, GATHER_MS);
      soon.unref();
    },
    closeAll: () => {
      clearTimeout(soon);
      boards.closeAll();
    },
  };
}
