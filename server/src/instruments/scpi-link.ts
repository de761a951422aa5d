import { connect, type Socket } from 'node:net';
import { ANSWER_MS, type LinkState } from '@voltrek/contracts';
import type { Range } from '@voltrek/core/quantities';

/** The address at which an instrument listens. */
export interface Address {
  readonly host: string;
  readonly port: number;
  /** It plays an instrument: it gets the values to be read. */
  readonly isStandIn?: boolean;
}

/** "host:port", an address of IPv6 in brackets. @throws RangeError for anything else */
export function parseAddress(text: string): Address {
  const [, named, sixth, port] = /^(?:([\w.-]+)|\[([\da-f:.]+)\]):(\d{1,5})$/i.exec(text) ?? [];
  const host = named ?? sixth;
  const number = Number(port);
  if (!host || !(number >= 1 && number <= 65_535)) throw new RangeError(`${text} is no host:port`);
  return { host, port: number };
}

/** An instrument on the line: asked one question at a time, connected again by itself when it goes. */
export interface ScpiLink {
  readonly state: () => LinkState;
  /** Its answer to `*IDN?`; null until there is one. */
  readonly identity: () => string | null;
  /** One answer. @throws LinkError when it is gone or answers too late */
  readonly ask: (command: string) => Promise<string>;
  /**
   * One figure.
   *
   * @param range what the instrument can read at all; an overload passes it by far and is no fault
   * @throws LinkError when it is none, or beyond its range
   */
  readonly figure: (command: string, range?: Range) => Promise<number>;
  readonly tell: (command: string) => void;
  readonly close: () => void;
}

/** Why a question was not answered. */
export class LinkError extends Error {
  constructor(readonly state: LinkState) {
    super(`instrument: ${state}`);
    this.name = 'LinkError';
  }
}

/** A reading this large stands for "past my range" on every SCPI instrument. */
export const OVERLOAD = 9e36;
const ANY_FIGURE = { min: -Infinity, max: Infinity, unit: '' };
const RETRY_FIRST_MS = 300;
const RETRY_MOST_MS = 5000;
/** Lines that nobody asked for, in a row: whoever says more is not listened to until the line is opened again. */
const UNASKED_MOST = 50;
/** Longest answer: a whole part of a fast buffer. */
const LINE_MOST = 2_000_000;

/**
 * An answer stands once the line has been quiet this long behind it: one question has one answer, and of two lines nobody can say which
 * it is. Instruments that send unasked are received, and refused, this way.
 */
const QUIET_MS = 20;

interface Waiting {
  readonly done: (line: string) => void;
  readonly failed: (error: LinkError) => void;
}

/** True for a figure that no instrument of that range reads. An overload passes every range by far and is no fault. */
export function isBeyond(value: number, { min, max }: Range): boolean {
  return (value < min || value > max) && (Math.abs(value) < OVERLOAD || !Number.isFinite(value));
}

/**
 * @param onChange called with every change of the state
 * @param answerMs the longest that it may take over one answer, ms
 */
export function scpiLink(address: Address, onChange: () => void, answerMs = ANSWER_MS): ScpiLink {
  let state: LinkState = 'connecting';
  let identity: string | null = null;
  let socket: Socket | null = null;
  let waiting: Waiting | null = null;
  /** The line taken for the answer, while it is not yet sure that it is the only one. */
  let unread: string | null = null;
  let quiet: NodeJS.Timeout | undefined;
  let turn: Promise<unknown> = Promise.resolve();
  let retryMs = RETRY_FIRST_MS;
  let unasked = 0;
  let retry: NodeJS.Timeout | undefined;
  let closed = false;

  const become = (next: LinkState): void => {
    if (state === next) return;
    state = next;
    onChange();
  };
  const fail = (next: LinkState): void => {
    clearTimeout(quiet);
    unread = null;
    waiting?.failed(new LinkError(next));
    waiting = null;
  };

  function open(): void {
    const line = connect(address);
    socket = line;
    let rest = '';
    line.setEncoding('utf8');
    line.setNoDelay(true);
    unasked = 0;
    line.on('connect', () => {
      // Ready only once it has said who it is: anything may listen on a port.
      void greet();
    });
    line.on('data', (text: string) => {
      const lines = `${rest}${text}`.split('\n');
      rest = lines.pop() ?? '';
      if (rest.length > LINE_MOST) line.destroy();
      for (const said of lines) {
        if (line.destroyed) return;
        hear(said.trim());
        if (unasked > UNASKED_MOST) line.destroy();
      }
    });
    line.on('error', () => line.destroy());
    line.on('close', () => {
      if (socket !== line) return;
      socket = null;
      fail('lost');
      if (closed) return;
      become('lost');
      retry = setTimeout(open, retryMs);
      retryMs = Math.min(RETRY_MOST_MS, retryMs * 2);
    });
  }

  function hear(line: string): void {
    if (!waiting) {
      unasked++;
      // Nobody asked. What was answered just before may have been such a line too.
      if (state === 'ready') become('nonsense');
      return;
    }
    if (unread !== null) {
      unread = null;
      clearTimeout(quiet);
      become('nonsense');
      fail('nonsense');
      return;
    }
    unread = line;
    quiet = setTimeout(() => {
      const { done } = waiting ?? {};
      waiting = null;
      unread = null;
      unasked = 0;
      done?.(line);
    }, QUIET_MS);
  }

  async function greet(): Promise<void> {
    try {
      identity = await ask('*IDN?');
      retryMs = RETRY_FIRST_MS;
      become('ready');
    } catch {
      // The state tells why; a line that stays silent is asked again by whoever reads it.
    }
  }

  function send(command: string): Promise<string> {
    return new Promise<string>((done, failed) => {
      if (!socket || socket.connecting) {
        failed(new LinkError(state === 'connecting' ? 'connecting' : 'lost'));
        return;
      }
      const late = setTimeout(() => {
        clearTimeout(quiet);
        unread = null;
        waiting = null;
        become('slow');
        failed(new LinkError('slow'));
        // A late answer must not be taken for the next one: start the line anew.
        socket?.destroy();
      }, answerMs);
      waiting = {
        done: (line) => {
          clearTimeout(late);
          done(line);
        },
        failed: (error) => {
          clearTimeout(late);
          failed(error);
        },
      };
      socket.write(`${command}\n`);
    });
  }

  function ask(command: string): Promise<string> {
    const answer = turn.then(() => send(command));
    turn = answer.catch(() => undefined);
    return answer;
  }

  open();
  return {
    state: () => state,
    identity: () => identity,
    ask,
    figure: async (command, range = ANY_FIGURE) => {
      const text = await ask(command);
      const value = text === '' ? NaN : Number(text);
      if (Number.isNaN(value) || isBeyond(value, range)) {
        become('nonsense');
        throw new LinkError('nonsense');
      }
      become('ready');
      return value;
    },
    tell: (command) => {
      turn = turn.then(() => socket?.write(`${command}\n`));
    },
    close: () => {
      closed = true;
      clearTimeout(retry);
      socket?.destroy();
    },
  };
}
