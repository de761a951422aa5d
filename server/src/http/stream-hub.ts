import type { StreamMessage } from '@voltrek/contracts';
import type { JobEvent } from '@voltrek/core/job';
import type { Response } from 'express';
import { openStream } from './event-stream.js';

/** A quiet stream says this often that it is still there, so that a dead one is seen, ms. */
const BEAT_MS = 15_000;
/** Merges the changes of one moment into one message, ms. */
const GATHER_MS = 60;

/** The event stream to the devices: one for each, whatever is on its screens. */
export interface StreamHub {
  readonly watch: (response: Response) => void;
  /** An event was acknowledged. */
  readonly tell: (event: JobEvent, revision: number) => void;
  /** Something on the board is another; what it is, whoever shows it asks for. */
  readonly boardChanged: () => void;
  /** An entry of the atlas is another; null: many may be. */
  readonly entryChanged: (modelId: string | null) => void;
  /** Devices that listen now. */
  readonly watching: () => number;
  /** Called with every event of every job. */
  readonly listen: (listener: (event: JobEvent) => void) => void;
  /** Ends the streams of all devices: they begin anew, and ask for what they missed. */
  readonly startOver: () => void;
  readonly closeAll: () => void;
}

export function streamHub(): StreamHub {
  const devices = new Set<Response>();
  const listeners: ((event: JobEvent) => void)[] = [];
  let soon: NodeJS.Timeout | undefined;
  const say = (message: StreamMessage): void => {
    const line = `data: ${JSON.stringify(message)}\n\n`;
    for (const response of devices) response.write(line);
  };
  const beating = setInterval(() => say({ kind: 'beat' }), BEAT_MS);
  beating.unref();
  const boardChanged = (): void => {
    soon ??= setTimeout(() => {
      soon = undefined;
      say({ kind: 'board' });
    }, GATHER_MS);
    soon.unref();
  };
  return {
    watch: (response) => {
      openStream(response);
      response.write(`data: ${JSON.stringify({ kind: 'beat' } satisfies StreamMessage)}\n\n`);
      devices.add(response);
      response.on('close', () => devices.delete(response));
    },
    tell: (event, revision) => {
      for (const listener of listeners) listener(event);
      say({ kind: 'logged', event, revision });
      // A job that opens, moves on or closes is a line of the board.
      boardChanged();
    },
    watching: () => devices.size,
    boardChanged,
    entryChanged: (modelId) => say({ kind: 'entry', modelId }),
    listen: (listener) => {
      listeners.push(listener);
    },
    startOver: () => {
      for (const response of devices) response.end();
    },
    closeAll: () => {
      clearInterval(beating);
      clearTimeout(soon);
      for (const response of devices) response.end();
    },
  };
}
